import { textOf } from "@/testing/handedOut";
import { readLog } from "@/core/trace";
import { readingOf } from "@/testing/readingOf";
import { tell, type ChangeRow } from "@/data";
import { keepRun } from "@/testing/byThisMachine";
import { readRunCsv, saveJob } from "./saveFiles";
import { lastChange, watchChanges } from "@/server/system/watchChanges";
import { frames, makeWorld, refusal, runOf, type World } from "@/testing/world";

let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(async () => world.end());

describe("what is saved as files", () => {
  it("a run is a log that reads back as it was", async () => {
    const trace = frames(47);
    const { id } = await keepRun(runOf(world.jobId), trace);
    const { name, content } = await readRunCsv(id);
    expect(name).toMatch(/^run-\d+\.csv$/);
    const back = readingOf(readLog(await textOf(content))).trace;
    if (back.form !== "frames") throw new Error("frames came back as something else");
    expect(back.frameTimes.length).toBe(trace.frameTimes.length);
    back.frameTimes.forEach((ms, at) => expect(ms).toBeCloseTo(trace.frameTimes[at]!, 3));
  });
  it("a job holds what its page shows, in words too, and every run's trace", async () => {
    const { id } = await keepRun(runOf(world.jobId), frames(31));
    const file = JSON.parse(await textOf((await saveJob(world.jobId)).content)) as Record<string, unknown>;
    const runs = file.runs as { id: string; trace: string; summary: { averageFps: number } }[];
    expect(file).toMatchObject({ application: "velvet-lamp", format: 1, faults: [], trials: [] });
    expect(file.next).toEqual(expect.stringMatching(/[.:!]$/));
    const own = runs.find((run) => run.id === id)!;
    expect(own.summary.averageFps).toBeCloseTo(31, 0);
    expect(readLog(own.trace).ok).toBe(true);
  });
  it("what isn't there is said to be missing", async () => {
    const nowhere = crypto.randomUUID();
    expect((await refusal(async () => readRunCsv(nowhere))).status).toBe(404);
    expect((await refusal(async () => saveJob(nowhere))).status).toBe(404);
  });
});

describe("changes are told", () => {
  const heardBy = async (since: string | null) => {
    const heard: ChangeRow[] = [];
    const end = await watchChanges(since, (change) => heard.push(change));
    return { heard, end };
  };
  const until = async (done: () => boolean) => {
    for (let k = 0; k < 200 && !done(); k++) await new Promise((resolve) => setTimeout(resolve, 25));
  };
  afterAll(async () => {
    const kept = globalThis as { lampListening?: { end: () => Promise<void> } };
    const client = kept.lampListening;
    delete kept.lampListening;
    await client?.end();
  });
  it("to whoever was away: everything since the last that was seen, in order, and that one not again", async () => {
    await tell("somebody", [{ kind: "job", id: "one" }]);
    const seen = await lastChange();
    await tell("somebody", [{ kind: "job", id: "two" }]);
    await tell("somebody", [{ kind: "job", id: "three" }]);
    const { heard, end } = await heardBy(seen);
    await until(() => heard.some(({ topics }) => topics[0]!.id === "three"));
    end();
    const ids = heard.map(({ topics }) => topics[0]!.id);
    expect(ids.filter((id) => ["one", "two", "three"].includes(id))).toEqual(["two", "three"]);
    expect(heard.map(({ id }) => id)).not.toContain(seen);
  });
  it("as it happens, to everybody who listens and to nobody who has gone", async () => {
    const [stays, goes] = [await heardBy(null), await heardBy(null)];
    goes.end();
    await tell("somebody", [{ kind: "job", id: "now" }]);
    await until(() => stays.heard.length > 0);
    stays.end();
    expect(stays.heard.map(({ topics }) => topics)).toEqual([[{ kind: "job", id: "now" }]]);
    expect(goes.heard).toEqual([]);
  });
  it("a mark that is none tells nothing old, and breaks nothing", async () => {
    for (const odd of ["", "x", "1; drop table changes", "9".repeat(40)]) {
      const { heard, end } = await heardBy(odd);
      end();
      expect(heard).toEqual([]);
    }
  });
});
