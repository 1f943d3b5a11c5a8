import { addTrial, appendRun, changeRun, finishRun, keepRun, openRun } from "@/testing/byThisMachine";
import { database, findRun, findTrace, listRuns } from "@/data";
import { thisMachine } from "@/server/actor";
import { viewLive } from "@/server/devices/live";
import { endStaleRuns, markRun } from "./keepRun";
import { asProblem } from "@/server/problem";
import { viewJob } from "@/server/jobs/viewJob";
import { frames, makeWorld, runOf, trialOf, type World } from "@/testing/world";

jest.setTimeout(60_000);
let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(async () => world.end());

const refusal = async (action: Promise<unknown>) =>
  action.then(() => {
    throw new Error("it was not refused");
  }, asProblem);
const open = async (form: "frames" | "interval" = "frames") => openRun({ run: runOf(world.jobId), form });
const trace = frames(50);
const times = [...trace.frameTimes];

describe("a run that grows", () => {
  it("comes to the figures that the same run sent whole comes to", async () => {
    const whole = await keepRun(runOf(world.jobId), {
      ...trace,
      channels: [{ role: "watts", times: Float64Array.of(1000, 2000), values: Float64Array.of(9, 11) }],
    });
    const { id } = await open();
    // Pieces in any order, one of them twice.
    const pieces = [
      { role: "trace", sequence: 1, values: times.slice(300, 700) },
      { role: "trace", sequence: 0, values: times.slice(0, 300) },
      { role: "watts", sequence: 0, values: [1000, 9, 2000, 11] },
      { role: "trace", sequence: 2, values: times.slice(700) },
    ];
    for (const piece of pieces) expect(await appendRun(id, piece)).toEqual({ kept: true });
    expect(await appendRun(id, pieces[1])).toEqual({ kept: false });
    const grown = await finishRun(id, { state: "whole" });
    expect(grown.grade).toBe(whole.grade);
    const [a, b] = await Promise.all([findRun(whole.id), findRun(id)]);
    expect(b!.summary).toEqual(a!.summary);
    expect(b!.state).toBe("whole");
  });

  it("isn't in the story while it is open, and has its trace so far", async () => {
    const before = (await viewJob(world.jobId)).runs.length;
    const { id } = await open();
    await appendRun(id, { role: "trace", sequence: 0, values: times.slice(0, 100) });
    expect((await viewJob(world.jobId)).runs).toHaveLength(before);
    const soFar = await findTrace(id);
    expect(soFar?.form === "frames" && soFar.frameTimes.length).toBe(100);
    await finishRun(id, { state: "cut off" });
    expect((await viewJob(world.jobId)).runs).toHaveLength(before + 1);
    expect((await findRun(id))!.state).toBe("cut off");
  });

  it("is marked from a moment on: a mark ends where the next begins, or with the run, and never after it", async () => {
    const { id } = await open();
    await appendRun(id, { role: "trace", sequence: 0, values: times.slice(0, 400) });
    const mark = async (label: string | null, atMs: number) => markRun(thisMachine, id, { label, atMs });
    await mark("the hall", 1000);
    await mark("Loading", 3000);
    await mark(null, 4000);
    await mark("the hall", 5000);
    const { marks } = (await viewLive()).runs.find(({ runId }) => runId === id)!;
    expect(marks).toEqual([
      { label: "the hall", startMs: 1000, endMs: 3000 },
      { label: "Loading", startMs: 3000, endMs: 4000 },
      { label: "the hall", startMs: 5000, endMs: null },
    ]);
    // A key that was pressed late begins no earlier than what was marked before it.
    await mark("late", 4500);
    await mark("after the end", 900_000);
    await finishRun(id, { state: "whole", marks: [{ label: "by the log", startMs: 0, endMs: 500 }] });
    const kept = (await findTrace(id))!;
    const end = times.slice(0, 400).reduce((sum, ms) => sum + ms, 0);
    expect(kept.marks.map(({ label }) => label)).toEqual(["by the log", "the hall", "Loading", "late"]);
    expect(kept.marks.at(-1)!.endMs).toBeCloseTo(end, 0);
    expect((await refusal(mark("too late", 10))).status).toBe(409);
  });

  it("that nobody finishes is ended: what came is kept as cut off, what can't be is left out; one that grows isn't touched", async () => {
    const [some, none, gap, growing] = [await open(), await open(), await open(), await open()];
    await appendRun(some.id, { role: "trace", sequence: 0, values: times.slice(0, 400) });
    await appendRun(gap.id, { role: "trace", sequence: 1, values: times.slice(0, 400) });
    await database().query(`update runs set made_at = now() - interval '1 day' where state = 'open'`);
    await database().query(
      `update trace_chunks set at = now() - interval '13 hours' where run_id in ($1, $2)`,
      {
        bind: [some.id, gap.id],
      },
    );
    await appendRun(growing.id, { role: "trace", sequence: 0, values: times.slice(0, 10) });
    expect(await endStaleRuns()).toBe(3);
    expect(await findRun(some.id)).toMatchObject({ state: "cut off", summary: { frames: 400 } });
    const { leftOut } = await viewJob(world.jobId);
    expect(leftOut.runs.map(({ id }) => id)).toEqual(expect.arrayContaining([none.id, gap.id]));
    expect((await findRun(growing.id))!.state).toBe("open");
    expect(await endStaleRuns()).toBe(0);
  });

  it("with a piece missing is not finished; the piece is named, and nothing is lost", async () => {
    const { id } = await open();
    for (const sequence of [0, 1, 3])
      await appendRun(id, {
        role: "trace",
        sequence,
        values: times.slice(100 * sequence, 100 * sequence + 100),
      });
    const problem = await refusal(finishRun(id, { state: "whole" }));
    expect([problem.status, problem.title, problem.more.missingChunks]).toEqual([
      409,
      "Piece 2 of “trace” is missing.",
      [{ role: "trace", sequence: 2 }],
    ]);
    await appendRun(id, { role: "trace", sequence: 2, values: times.slice(200, 300) });
    await finishRun(id, { state: "whole" });
    expect((await findRun(id))!.summary!.frames).toBe(400);
  });

  it("a crash ends it as one, and a finished run takes nothing more", async () => {
    const { id } = await open();
    await appendRun(id, { role: "trace", sequence: 0, values: times });
    expect((await finishRun(id, { state: "crashed" })).grade).toBe("dark");
    expect((await refusal(appendRun(id, { role: "trace", sequence: 1, values: [16] }))).status).toBe(409);
    expect((await refusal(finishRun(id, { state: "whole" }))).status).toBe(409);
  });

  it.each([
    ["a time of zero", { role: "trace", sequence: 0, values: [16, 0] }],
    ["a negative time", { role: "trace", sequence: 0, values: [-16] }],
    ["a time too large for what it is kept in", { role: "trace", sequence: 0, values: [1e39] }],
    ["half a pair", { role: "watts", sequence: 0, values: [1000, 9, 2000] }],
    ["no such channel", { role: "mood", sequence: 0, values: [1, 2] }],
    ["nothing", { role: "trace", sequence: 0, values: [] }],
  ])("%s is refused, and the run stays as it was", async (_what, piece) => {
    const { id } = await open();
    expect((await refusal(appendRun(id, piece))).status).toBe(422);
    expect((await refusal(finishRun(id, { state: "whole" }))).title).toMatch(/Nothing was appended/);
  });

  it("readings of a counter grow as pairs of duration and rate", async () => {
    const { id } = await open("interval");
    await appendRun(id, { role: "trace", sequence: 0, values: [1000, 50, 1000, 40] });
    await finishRun(id, { state: "whole" });
    expect((await findRun(id))!.summary!.averageFps).toBeCloseTo(45, 6);
  });

  it("can be made for an arm, and counts there once it is whole", async () => {
    const { id: trialId } = await addTrial(trialOf(world.jobId));
    const { id } = await openRun({ run: runOf(world.jobId, { trialId, arm: 0 }), form: "frames" });
    await appendRun(id, { role: "trace", sequence: 0, values: times });
    const left = async () =>
      (await viewJob(world.jobId)).trials.find((trial) => trial.id === trialId)!.left.length;
    expect(await left()).toBe(4);
    await finishRun(id, { state: "whole" });
    expect(await left()).toBe(3);
  });

  it("pieces appended at once are all there", async () => {
    const { id } = await open();
    await Promise.all(
      Array.from({ length: 8 }, async (_, sequence) =>
        appendRun(id, { role: "trace", sequence, values: times.slice(100 * sequence, 100 * sequence + 100) }),
      ),
    );
    await finishRun(id, { state: "whole" });
    expect((await findRun(id))!.summary!.frames).toBe(800);
    await changeRun(id, { deleted: true });
    expect((await listRuns(world.jobId)).some((run) => run.id === id)).toBe(false);
  });
});
