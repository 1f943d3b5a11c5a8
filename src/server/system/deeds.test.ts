import { QueryTypes } from "sequelize";
import { armAt } from "@/core/trial";
import { deedWords } from "@/core/words";
import { store } from "@/data/models";
import * as data from "@/data";
import { thisMachine } from "@/server/actor";
import { mendJob } from "@/server/jobs/mendJob";
import { merge, viewMerge } from "@/server/kit/merge";
import { packTrace } from "@/core/trace";
import { gunzipSync, gzipSync } from "node:zlib";
import { keepRunFile, readRunFile, rereadRun } from "@/server/runs/keepRun";
import { moveRuns } from "@/server/runs/moveRuns";
import { setProfileValues } from "@/server/profiles/changeProfile";
import { viewTrial } from "@/server/trials/viewTrial";
import { viewJob } from "@/server/jobs/viewJob";
import * as us from "@/testing/byThisMachine";
import { exampleSpec } from "@/testing/exampleTrial";
import { frames, makeWorld, refusal, runOf, trialOf, type World } from "@/testing/world";
import { readBody } from "@/contract";
import { listDeeds, undoDeed } from "./deeds";

jest.setTimeout(120_000);

let world: World;
let runId: string,
  secondRun: string,
  trialId: string,
  otherTitle: string,
  otherRig: string,
  otherSystem: string,
  otherEngine: string;
beforeAll(async () => {
  world = await makeWorld();
  ({ id: runId } = await us.keepRun(runOf(world.jobId), frames(52, 1)));
  ({ id: secondRun } = await us.keepRun(runOf(world.jobId), frames(51, 2)));
  ({ id: trialId } = await us.addTrial(trialOf(world.jobId, { rounds: 2 })));
  for (const [at, fps] of [50, 60, 60, 50].entries())
    await us.keepRun(
      runOf(world.jobId, {
        trialId,
        arm: fps === 50 ? 0 : 1,
        settings: armAt(trialOf(world.jobId), fps === 50 ? 0 : 1).settings,
      }),
      frames(fps, 10 + at),
    );
  await us.decideTrial(trialId, { choice: "keep", arm: 1, reason: "for the test" });
  otherSystem = await us.addSystem({
    name: "Larger Box",
    screens: [{ width: 640, height: 480, pixelAspect: 1 }],
    rates: [{ region: "", hz: 30 }],
    note: "",
  });
  const [{ systemId }] = await store().query<{ systemId: string }>(
    `select system_id as "systemId" from titles limit 1`,
    { type: QueryTypes.SELECT },
  );
  otherTitle = await us.addTitle({
    systemId,
    name: "The Short Stair",
    nativeFps: 50,
    tied: true,
    region: "",
    hardness: "hard",
    memoryNeededGb: null,
    notes: "",
    scenes: [{ name: "the step", how: "", seconds: 30, worst: true }],
    patches: [],
  });
  otherRig = await us.addRig({ name: "Candle", spec: exampleSpec });
  otherEngine = await us.addEngine({
    name: "Distaff",
    systemIds: [systemId],
    notes: "",
    builds: [{ version: "1", branch: "stable", date: null, notes: "" }],
    backEnds: [],
    catalogue: [],
  });
});
afterAll(async () => world.end());

/** Everything that a person may change, as it reads; rows that are left out and histories aside. */
async function everything(): Promise<Record<string, unknown>> {
  const of = async (statement: string) => store().query<object>(statement, { type: QueryTypes.SELECT });
  const bare = (alias: string) => `(to_jsonb(${alias}) - 'version' - 'mended_at')`;
  const made: Record<string, unknown> = {};
  for (const table of [
    "titles",
    "rigs",
    "systems",
    "engines",
    "rig_revisions",
    "scenes",
    "builds",
    "settings",
    "engine_systems",
    "house_rules",
    "preflight_items",
    "engine_abilities",
    "bench_state",
    "campaigns",
    "campaign_titles",
  ])
    made[table] = await of(
      `select ${bare("t")} as row from ${table} t ${["titles", "rigs"].includes(table) ? "where retired_at is null" : table === "campaigns" ? "where deleted_at is null" : ""} order by 1`,
    );
  for (const table of ["jobs", "runs", "trials", "faults"])
    made[table] = await of(`select ${bare("t")} as row from ${table} t where deleted_at is null order by 1`);
  made.figures = await of(
    `select m.run_id, m.grade, m.summary, m.verdict from run_summaries m join runs r on r.id = m.run_id where r.deleted_at is null order by 1`,
  );
  made.values =
    await of(`select distinct on (rig_id, engine_id, layer, system_id, title_id, build_id, key) rig_id, engine_id, layer, system_id, title_id, key, value, origin
    from profile_values order by rig_id, engine_id, layer, system_id, title_id, build_id, key, id desc`).then(
      (rows) => rows.filter((row) => (row as { value: unknown }).value !== null),
    );
  return made;
}

const last = async () => {
  const [deed] = await listDeeds({ kind: "", id: "", own: false }, thisMachine);
  if (!deed) throw new Error("Nothing was noted.");
  return deed;
};
const versionOf = async (table: string, id: string) =>
  (
    await store().query<{ version: number }>(`select version from ${table} where id = $1`, {
      bind: [id],
      type: QueryTypes.SELECT,
    })
  )[0]?.version ?? 0;

const edits: [name: string, words: RegExp, edit: () => Promise<unknown>][] = [
  [
    "a run's name and scene",
    /^Run 1: name, scene changed/,
    async () => us.changeRun(runId, { label: "the first", scene: "the stair" }),
  ],
  [
    "a run's conditions",
    /^Run 1: conditions changed/,
    async () => us.changeRun(runId, { conditions: { ...runOf(world.jobId).conditions, roomC: 31 } }),
  ],
  ["a run that ended in a crash", /^Run 1: state changed/, async () => us.changeRun(runId, { crashed: true })],
  [
    "a run overruled",
    /^Run 1: its light by a person changed/,
    async () => us.changeRun(runId, { overruled: { grade: "dims", reason: "to me" } }),
  ],
  ["a run left out", /^Run 2 left out/, async () => us.changeRun(secondRun, { deleted: true })],
  ["a run brought in", /^Run 7 brought in/, async () => us.keepRun(runOf(world.jobId), frames(40, 77))],
  [
    "a run read again by other columns",
    /brought in/,
    async () =>
      rereadRun(thisMachine, secondRun, packTrace(frames(30, 5), runOf(world.jobId, { skippedRows: 2 }))),
  ],
  [
    "a fault",
    /^Fault added/,
    async () =>
      us.addFault({
        runId,
        kind: "crash",
        severity: "blocking",
        scene: "",
        atMs: null,
        note: "",
        workaround: "",
      }),
  ],
  [
    "runs moved to another title",
    /^Job “The Short Stair” added/,
    async () => moveRuns(thisMachine, readBody("moveRuns", { ids: [runId], titleId: otherTitle })),
  ],
  [
    "runs moved to another rig",
    /^Job “The Long Stair” added/,
    async () => moveRuns(thisMachine, readBody("moveRuns", { ids: [runId, secondRun], rigId: otherRig })),
  ],
  [
    "runs given a scene",
    /^Run [12]: scene changed; run [12]: scene changed/,
    async () => moveRuns(thisMachine, readBody("moveRuns", { ids: [runId, secondRun], scene: "the cellar" })),
  ],
  [
    "a job of another title",
    /^Job “The Short Stair”: title changed/,
    async () => mendJob(thisMachine, world.jobId, readBody("mendJob", { titleId: otherTitle })),
  ],
  [
    "a job on another rig",
    /^Job “The Long Stair”: rig changed/,
    async () => mendJob(thisMachine, world.jobId, readBody("mendJob", { rigId: otherRig })),
  ],
  [
    "a trial",
    /^Trial “Lighter again” added/,
    async () => us.addTrial(trialOf(world.jobId, { name: "Lighter again" })),
  ],
  ["a decision taken back", /^Trial “Lighter”: decision taken back/, async () => us.undecideTrial(trialId)],
  [
    "a job's aim",
    /^Job “The Long Stair”: aim changed/,
    async () => us.changeJob(world.jobId, { aim: "battery" }),
  ],
  [
    "a title's rate and scenes",
    /^Title “The Long Stair”: rate changed|Title/,
    async () => {
      const title = (await data.findTitle(world.titleId))!;
      const {
        id: _id,
        retired: _retired,
        version: _version,
        ...rest
      } = title as typeof title & { version: number };
      return us.changeTitle(world.titleId, {
        ...rest,
        nativeFps: 50,
        scenes: [{ name: "the attic", how: "", seconds: 10, worst: true, fps: null }],
      });
    },
  ],
  [
    "a title off the shelf",
    /^Title “The Short Stair” left out or taken off the shelf/,
    async () => us.changeTitles({ ids: [otherTitle], retired: true }),
  ],
  [
    "a rig's description",
    /Rig|revision/i,
    async () =>
      us.reviseRig(world.rigId, {
        name: "Lantern",
        spec: { ...exampleSpec, temperatureLimitC: 70 },
        note: "limit",
      }),
  ],
  [
    "a profile's values",
    /^(Values?|\d+.values?) of a profile/,
    async () =>
      setProfileValues(
        thisMachine,
        readBody("setProfileValues", {
          rigId: world.rigId,
          engineId: world.engineId,
          layer: "title",
          systemId: null,
          titleId: world.titleId,
          buildId: null,
          values: [
            { key: "scale", value: 4 },
            { key: "lean", value: true },
          ],
          origin: { kind: "by hand" },
          saw: 1_000_000,
        }),
      ),
  ],
  [
    "two titles merged",
    /^Title “The Long Stair” left out or taken off the shelf, with/,
    async () => merge(thisMachine, { what: "title", from: world.titleId, into: otherTitle }),
  ],
  [
    "two rigs merged",
    /^Rig “Lantern” left out/,
    async () => merge(thisMachine, { what: "rig", from: world.rigId, into: otherRig }),
  ],
  [
    "two systems merged",
    /^System “Little Box” removed/,
    async () => {
      const { systemId } = (await data.findTitle(world.titleId))!;
      return merge(thisMachine, { what: "system", from: systemId, into: otherSystem });
    },
  ],
  [
    "two engines merged",
    /^Engine “Spindle” removed/,
    async () => merge(thisMachine, { what: "engine", from: world.engineId, into: otherEngine }),
  ],
];

describe("every mistake can be mended", () => {
  it.each(edits)("%s is told, and undone: everything reads as before, figures too", async (_, told, edit) => {
    const before = await everything();
    await edit();
    const deed = await last();
    expect(deedWords(deed)).toMatch(told);
    expect(deed.actor).toBe("this machine");
    expect(await everything()).not.toEqual(before);
    await undoDeed(thisMachine, deed.id);
    expect(await everything()).toEqual(before);
    expect(deedWords(await last())).toMatch(/^Undone: /);
    expect((await refusal(async () => undoDeed(thisMachine, deed.id))).status).toBe(409);
  });

  it("an undoing is undone too", async () => {
    await us.changeRun(runId, { label: "kept" });
    const after = await everything();
    await undoDeed(thisMachine, (await last()).id);
    await undoDeed(thisMachine, (await last()).id);
    expect(await everything()).toEqual(after);
  });

  it("what was changed again since isn't undone over it", async () => {
    await us.changeRun(runId, { label: "one" });
    const first = await last();
    await us.changeRun(runId, { label: "two" });
    const { status, title } = await refusal(async () => undoDeed(thisMachine, first.id));
    expect([status, title]).toEqual([409, "A run of it was changed again since."]);
    // Another field of the same run stands in nobody's way.
    await us.changeRun(runId, { notes: "a note" });
    const note = await last();
    await us.changeRun(runId, { label: "three" });
    await undoDeed(thisMachine, note.id);
    expect((await viewJob(world.jobId)).runs.find(({ id }) => id === runId)).toMatchObject({
      label: "three",
      notes: "",
    });
  });

  it("tells a job's deeds from those of the kit", async () => {
    const inJob = await listDeeds({ kind: "job", id: world.jobId, own: true }, thisMachine);
    const inKit = await listDeeds({ kind: "kit", id: "", own: true }, thisMachine);
    expect(inJob.length).toBeGreaterThan(5);
    expect(
      inJob.some((deed) => inKit.some(({ id }) => id === deed.id && deedWords(deed).startsWith("Run 1: name"))),
    ).toBe(false);
    expect(inKit.length).toBeGreaterThan(3);
  });
});

describe("what is mended is judged anew", () => {
  it("a run of another title has its rate held against that title's", async () => {
    const { id } = await us.keepRun(runOf(world.jobId), frames(51, 33));
    const lightOf = async () => (await data.findRun(id))?.verdict?.grade;
    expect(await lightOf()).toBe("dims");
    const { jobId } = await moveRuns(thisMachine, readBody("moveRuns", { ids: [id], titleId: otherTitle }));
    expect(jobId).not.toBe(world.jobId);
    expect((await data.findRun(id))?.yardstick).toMatchObject({ nativeFps: 50, targetFps: 50 });
    expect(await lightOf()).toBe("steady");
  });

  it("a decision says that its runs were changed since, and what they say now", async () => {
    await us.undecideTrial(trialId);
    await us.decideTrial(trialId, { choice: "keep", arm: 1, reason: "for the test" });
    expect((await viewTrial(trialId)).trial.mendedSince ?? false).toBe(false);
    const { runs } = await viewTrial(trialId);
    // The two arms were swapped by mistake when the runs were brought in.
    for (const run of runs) {
      const version = await versionOf("runs", run.id);
      await us.changeRun(run.id, { notes: "looked at" }, version);
    }
    expect((await viewTrial(trialId)).trial.mendedSince ?? false).toBe(false);
    await us.changeRun(runs.at(-1)!.id, { cacheState: "cold" });
    const view = await viewTrial(trialId);
    expect(view.trial.mendedSince).toBe(true);
    expect((await viewJob(world.jobId)).trials.find(({ id }) => id === trialId)?.mendedSince).toBe(true);
  });

  it("a merge says first what would move, and systems with titles alike aren't merged over them", async () => {
    const { systemId } = (await data.findTitle(otherTitle))!;
    const twin = await us.addTitle({
      systemId: otherSystem,
      name: "The short stair",
      nativeFps: 30,
      tied: true,
      region: "",
      hardness: "hard",
      memoryNeededGb: null,
      notes: "",
      scenes: [],
      patches: [],
    });
    expect(await viewMerge({ what: "system", from: systemId, into: otherSystem })).toMatchObject({
      against: ["The Short Stair"],
    });
    const { status } = await refusal(async () =>
      merge(thisMachine, { what: "system", from: systemId, into: otherSystem }),
    );
    expect(status).toBe(409);
    const { moves } = await viewMerge({ what: "title", from: twin, into: otherTitle });
    expect(moves.find(({ what }) => what === "job")?.count).toBe(0);
    expect(
      (await refusal(async () => merge(thisMachine, { what: "rig", from: otherRig, into: otherRig }))).status,
    ).toBe(409);
  });

  it("a run read again keeps its number, what was said about it and its faults, and its log comes back byte for byte", async () => {
    const { id } = await us.keepRun(
      runOf(world.jobId, { label: "wrong unit", fileName: "a.csv" }),
      frames(60, 91),
    );
    await us.addFault({
      runId: id,
      kind: "sound",
      severity: "slight",
      scene: "",
      atMs: null,
      note: "",
      workaround: "",
    });
    const log = Buffer.from("frame time (s)\n0.02\n0.02\n");
    await keepRunFile(id, "a.csv", new Uint8Array(gzipSync(log)));
    const before = (await data.findRun(id))!;
    const { id: made, number } = await rereadRun(
      thisMachine,
      id,
      packTrace(frames(50, 92), runOf(world.jobId)),
    );
    const after = (await data.findRun(made))!;
    expect([number, after.number, after.label]).toEqual([before.number, before.number, "wrong unit"]);
    expect(after.summary?.averageFps).toBeCloseTo(50, 0);
    expect(after.faults).toEqual(["slight"]);
    expect(await data.findRun(id)).toBeNull();
    const { content } = await readRunFile(made);
    expect(gunzipSync(content as Uint8Array).equals(log)).toBe(true);
    expect((await refusal(async () => keepRunFile(made, "a.csv", new Uint8Array(log)))).status).toBe(422);
  });
});
