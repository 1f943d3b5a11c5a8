import type { Catalogue } from "@/core/kit";
import { textOf } from "@/testing/handedOut";
import { readQuery } from "@/contract";
import { packTrace, unpackTrace, type FrameTrace, type Trace } from "@/core/trace";
import { type Conditions, type NewRun } from "@/core/kit";
import { exampleRun } from "@/testing/exampleKit";
import { emptyPlan, type NewTrial, type ScreeningReading } from "@/core/trial";
import { words, type Said } from "@/core/words";
import { database, findTrace, lastConditions, listRuns } from "@/data";
import { scratchDatabase } from "@/testing/scratchDatabase";
import { seedDemo } from "./demo/seed";
import {
  Problem,
  asProblem,
  viewBench,
  viewEngine,
  viewHome,
  viewJob,
  viewJobs,
  viewKit,
  viewNewRun,
  viewPlan,
  viewPreflight,
  viewRig,
  viewRigs,
  viewTitle,
  viewTitles,
  viewTrial,
} from ".";
import {
  addFault,
  addJob,
  addPreflight,
  addTitle,
  addTrial,
  changeBench,
  changeEngine,
  changeFault,
  changeHouseRules,
  changeJob,
  changeRigs,
  changeRun,
  changeTitle,
  changeTitles,
  changeTrial,
  closeJob,
  decideTrial,
  duplicateRig,
  importCatalogue,
  importRun,
  rejudge,
  removePreflight,
  reopenJob,
  reviseRig,
  tallyRun,
  undecideTrial,
} from "@/testing/byThisMachine";
import { exportCatalogue } from "@/server/kit/changeKit";
import { measureAnew } from "@/server/runs/measureAnew";
import { readTrace } from "@/server/runs/readTrace";
import { viewDiagnosis } from "@/server/jobs/viewJob";
import { reckonTrial as adviseTrial } from "@/server/trials/viewTrial";

jest.setTimeout(60_000);
let end: () => Promise<void>;
beforeAll(async () => {
  end = await scratchDatabase();
  await seedDemo(new Date("2026-11-24T12:00:00Z"));
}, 400_000);
afterAll(async () => end());

const trace = (frameTimes: number[]): FrameTrace => ({
  form: "frames",
  frameTimes: Float64Array.from(frameTimes),
  channels: [{ role: "watts", times: Float64Array.of(10, 20), values: Float64Array.of(8, 9) }],
  marks: [{ label: "hall", startMs: 0, endMs: 15 }],
});
const conditions: Conditions = {
  powerMode: "Even",
  clocks: null,
  display: "own screen",
  pluggedIn: false,
  docked: false,
  cooler: false,
  roomC: 21,
  capturePath: "engine log",
};
const particulars = (jobId: string, more: Partial<NewRun> = {}): NewRun =>
  exampleRun(jobId, { conditions, settings: { scale: 3 } }, more);
const jobOf = async (title: string, rig = "") =>
  (await viewJobs(readQuery("listJobs", { search: title }))).rows.find((row) => rig === "" || row.rig === rig)!;
/** Matches a sentence by its words. */
const saying = (pattern: RegExp) => ({
  asymmetricMatch: (sentence: Said) => pattern.test(words(sentence)),
});
const problemOf = async (action: Promise<unknown>) =>
  action.then(() => {
    throw new Error("it was not refused");
  }, asProblem);
const send = async (sent: Trace, run: NewRun) => importRun(packTrace(sent, run));

describe("the demo", () => {
  it("is added once, and never twice", async () => {
    expect(await seedDemo(new Date())).toBe(false);
    const kit = await viewKit();
    expect(kit.rigs.map(({ name }) => name)).toEqual(["Dovecote", "Pipit", "Shale", "Tansy"]);
    expect([kit.systems.length, kit.titles.length, kit.houseRules[0].name]).toEqual([6, 22, "Lending desk"]);
  });
  const gradesOf = async (title: string, rig?: string) =>
    (await viewJob((await jobOf(title, rig)).id)).runs.map(({ verdict }) => verdict.grade);
  const trialsOf = async (title: string, rig?: string) =>
    (await viewJob((await jobOf(title, rig)).id)).trials.map(({ name, choice, keptArm, arms, outcome }) => ({
      name,
      choice,
      arm: keptArm === null ? null : arms[keptArm].name,
      sentence: outcome ? words(outcome.advice.sentence) : "",
    }));
  it("1, Paper Lighthouse on Tansy: steady at ×3 in Even, and ×4 is past the screen", async () => {
    expect((await gradesOf("Paper Lighthouse")).slice(0, 3)).toEqual(["steady", "steady", "steady"]);
    expect(await trialsOf("Paper Lighthouse")).toMatchObject([
      { choice: "keep", arm: "×3", sentence: expect.stringMatching(/past ×3 is past the screen/) },
    ]);
  });
  it("2, Basalt Choir on Tansy: graphics-bound at ×4, the law says ×3, kept, confirmed and closed with its profile", async () => {
    const job = await viewJob((await jobOf("Basalt Choir")).id);
    expect(job.runs.slice(0, 3).every(({ verdict }) => verdict.grade === "gutters")).toBe(true);
    expect((await viewDiagnosis(job.job.id, job.runs[0].id)).causes[0].cause).toBe("graphics");
    expect(await trialsOf("Basalt Choir")).toMatchObject([{ choice: "keep", arm: "×3" }]);
    expect(job.job.closing).toMatchObject({
      grade: "steady",
      overrides: [{ key: "scale", from: 2, to: 3, trial: 1, proof: saying(/law says ×3/) }],
    });
  });
  it("3, Ninth Parallel on Tansy: Full is slower than Brisk, Brisk is the sweet spot; free about 43, locked at 30", async () => {
    const [power, rate] = await trialsOf("Ninth Parallel", "Tansy");
    expect(power).toMatchObject({
      arm: "Brisk",
      sentence: expect.stringMatching(/More power made it slower: Full/),
    });
    expect(rate).toMatchObject({ arm: "30 fps", sentence: expect.stringMatching(/Free it averages 4[2-5]/) });
    const { standing, runs, overrides } = await viewJob((await jobOf("Ninth Parallel", "Tansy")).id);
    expect([standing.targetFps, runs.at(-1)!.verdict.grade]).toEqual([30, "steady"]);
    expect(overrides).toMatchObject([{ key: "rate_limit", to: 60, trial: 2 }]);
  });
  it("4, Marsh Rally 3 on Shale: the governor leaves half the rate, forcing more than doubles it, heat settles under the limit", async () => {
    const job = await viewJob((await jobOf("Marsh Rally 3")).id);
    expect((await viewDiagnosis(job.job.id, job.runs[0].id)).causes[0].cause).toBe("governor");
    expect(job.trials[0].outcome!.pairs[0].ratio).toBeGreaterThan(2);
    expect(await trialsOf("Marsh Rally 3")).toMatchObject([
      { arm: "forced" },
      { arm: "forced", sentence: expect.stringMatching(/confirmed: 2\d min clean/) },
      { choice: "put back", sentence: expect.stringMatching(/under the limit of 85 °C: never at this load/) },
    ]);
  });
  it("5, Glasshouse Duel on Pipit: one engine wins, two tie inside the noise, one has a missing control", async () => {
    const {
      trials: [trial],
      faults,
      runs,
    } = await viewJob((await jobOf("Glasshouse Duel")).id);
    expect(trial).toMatchObject({
      choice: "keep",
      keptArm: 1,
      outcome: { best: [1], notes: expect.arrayContaining([saying(/Holm/)]) },
    });
    expect(trial.outcome!.pairs.find(({ a, b }) => a === 0 && b === 2)!.decision).toMatch(
      /undecided|no difference/,
    );
    expect(faults).toMatchObject([{ kind: "control", severity: "severe" }]);
    expect(runs.find(({ id }) => id === faults[0].runId)!.verdict).toMatchObject({ grade: "gutters" });
  });
  it("6, The Drowned Gallery on Pipit: the first pass freezes on new rooms, the second is smooth", async () => {
    const job = await viewJob((await jobOf("The Drowned Gallery")).id);
    expect(job.runs.slice(0, 4).map(({ verdict }) => verdict.grade)).toEqual([
      "dims",
      "steady",
      "steady",
      "steady",
    ]);
    expect((await viewDiagnosis(job.job.id, job.runs[0].id)).causes[0].cause).toBe("shaders");
    const { visits } = await viewTrial(job.trials[0].id);
    expect(
      visits
        .filter(({ arm }) => arm === 0)
        .every(({ firstLostMs, laterLostMs }) => firstLostMs > 10 * Math.max(1, laterLostMs)),
    ).toBe(true);
    expect(await trialsOf("The Drowned Gallery")).toMatchObject([{ arm: "compiled ahead" }]);
  });
  it("7, Copper Regatta on Pipit: the counter says 60, the engine about 71 %; two settings put back, one kept", async () => {
    const { runs, trials } = await viewJob((await jobOf("Copper Regatta")).id);
    expect(runs[0].summary).toMatchObject({ averageFps: expect.closeTo(60, 0), counterDisagrees: true });
    expect(Math.abs(runs[0].summary.reportedSpeedPercent! - 71)).toBeLessThan(3);
    expect(trials.map(({ choice }) => choice)).toEqual(["put back", "put back", "keep"]);
    expect(trials.every(({ outcome }) => outcome!.pairs[0].by === "engine speed")).toBe(true);
  });
  it("8, Ninth Parallel on Pipit: without a cooler it throttles, with one memory ends it after about a quarter of an hour", async () => {
    const job = await viewJob((await jobOf("Ninth Parallel", "Pipit")).id);
    expect(await trialsOf("Ninth Parallel", "Pipit")).toMatchObject([
      { arm: "cooler on", sentence: expect.stringMatching(/Bare throttles after [5-7]\.\d min/) },
      { choice: "put back", sentence: expect.stringMatching(/died after 1[45]\.\d min/) },
    ]);
    const died = job.runs.at(-1)!;
    expect(died).toMatchObject({ crashed: true, verdict: { grade: "dark" } });
    expect((await viewDiagnosis(job.job.id, died.id)).causes[0].cause).toBe("memory");
  });
  it("9, Kite Weather on Dovecote: ×8 for the television, ×9 costs full speed", async () => {
    expect(await trialsOf("Kite Weather")).toMatchObject([{ arm: "×8" }]);
    const { runs } = await viewJob((await jobOf("Kite Weather")).id);
    expect(runs.find(({ label }) => label.endsWith("×9"))!.summary.averageFps).toBeLessThan(58);
  });
  it("10, The Orchard Ledger on Pipit: full speed on average, 16 and 50 ms by turns; held to the display it is steady", async () => {
    const { runs } = await viewJob((await jobOf("The Orchard Ledger")).id);
    expect(runs[0].summary).toMatchObject({
      averageFps: expect.closeTo(30, 0),
      maxFrameTimeMs: expect.closeTo(50, 0),
      pacing: { lag1: expect.closeTo(-1, 1) },
    });
    expect(await trialsOf("The Orchard Ledger")).toMatchObject([
      { arm: "held", sentence: expect.stringMatching(/Flickers → Steady/) },
      // The short check on a newer driver: one run a side, back to the engine's default and worse.
      {
        arm: null,
        name: "Check: Hold frames to the display",
        sentence: expect.stringMatching(/Steady → Flickers/),
      },
    ]);
  });
  it("puts a job in hand with its next step", async () => {
    const { inHand, recent } = await viewHome();
    expect(inHand!.job.title).toBe("Quiet Machines");
    expect(inHand!.next).toMatchObject({ action: "trial", sentence: saying(/3 to go/) });
    expect(recent).toHaveLength(8);
    expect((await viewHome()).unfinished).toMatchObject([{ title: "Quiet Machines", runs: 3, planned: 6 }]);
  });
});

describe("bringing in a run", () => {
  it("keeps the trace, its channels and marks, and the figures made from it", async () => {
    const { id: jobId } = await jobOf("Paper Lighthouse");
    const frames = Array.from({ length: 3000 }, (_, i) => 16 + (i % 3) * 0.5);
    const { id, grade } = await send(trace(frames), particulars(jobId));
    expect(grade).toBe("steady");
    const kept = (await findTrace(id)) as FrameTrace;
    expect(kept.frameTimes).toHaveLength(3000);
    expect(kept.frameTimes[1]).toBeCloseTo(16.5, 5);
    expect(kept).toMatchObject({
      channels: [{ role: "watts" }],
      marks: [{ label: "hall", startMs: 0, endMs: 15 }],
    });
    const { content, length } = await readTrace(id);
    const packed = new Uint8Array(await new Response(content).arrayBuffer());
    expect(packed.length).toBe(length);
    expect(unpackTrace(packed)).toEqual({ trace: kept, meta: { runId: id } });
    expect((await viewJob(jobId)).runs.at(-1)).toMatchObject({
      id,
      conditions,
      settings: { scale: 3 },
      yardstick: { refreshHz: 60, nativeFps: 59.94 },
    });
  });
  it("keeps a trace of several chunks whole", async () => {
    const { id: jobId } = await jobOf("Paper Lighthouse");
    const { id } = await send(
      { form: "frames", frameTimes: new Float64Array(600_000).fill(16.5), channels: [], marks: [] },
      particulars(jobId),
    );
    expect(((await findTrace(id)) as FrameTrace).frameTimes).toHaveLength(600_000);
    await changeRun(id, { deleted: true });
  });
  it("leaves no half run when anything is refused", async () => {
    const { id: jobId } = await jobOf("Paper Lighthouse");
    const before = (await listRuns(jobId)).length;
    // Two marks at one place can't both be kept: the database refuses the second, and all of it goes.
    const broken = {
      ...trace([16, 17]),
      marks: [
        { label: "a", startMs: 0, endMs: 5 },
        { label: "b", startMs: -1, endMs: 5 },
      ],
    };
    expect((await problemOf(send(broken, particulars(jobId)))).status).toBe(422);
    expect((await problemOf(importRun(new Uint8Array([1, 2, 3])))).status).toBe(422);
    expect(
      (await problemOf(send(trace([16, 17]), particulars(jobId, { skippedRows: -1 })))).fields,
    ).toHaveProperty("skippedRows");
    expect(await listRuns(jobId)).toHaveLength(before);
    const [{ orphans }] = (
      await database().query(
        "select count(*)::int as orphans from trace_chunks where run_id not in (select id from runs)",
      )
    )[0] as { orphans: number }[];
    expect(orphans).toBe(0);
  });
  it("numbers runs without gaps or twins when two come at once", async () => {
    const { id: jobId } = await jobOf("The Drowned Gallery");
    const made = await Promise.all(
      Array.from({ length: 6 }, async () => send(trace([50, 50, 50]), particulars(jobId))),
    );
    expect(new Set(made.map(({ number }) => number)).size).toBe(6);
    for (const { id } of made) await changeRun(id, { deleted: true });
  });
  it("names what is not there", async () => {
    expect(
      (await problemOf(send(trace([16, 16]), particulars("00000000-0000-4000-8000-000000000000")))).title,
    ).toBe("There is no such job.");
    expect((await problemOf(viewJob("not an id"))).status).toBe(404);
    expect((await problemOf(changeRun("00000000-0000-4000-8000-000000000000", { label: "x" }))).status).toBe(
      404,
    );
  });
  it("a hand tally is kept as readings and marked with its uncertainty", async () => {
    const { id: jobId } = await jobOf("Paper Lighthouse");
    const { id } = await tallyRun({
      run: particulars(jobId),
      readings: [60, 58, 59, 60, 60].map((fps, index) => ({ fps, second: 5 * index })),
    });
    const run = (await viewJob(jobId)).runs.find((row) => row.id === id)!;
    expect(run).toMatchObject({
      source: "tally",
      form: "interval",
      summary: { hitches: null, averageFps: expect.closeTo(59.4, 6) },
      tally: { readings: 5, interval: { low: expect.any(Number) } },
    });
    expect((await problemOf(tallyRun({ run: particulars(jobId), readings: [] }))).status).toBe(422);
  });
  it("figures of an older method stay marked as such until they are made anew, and no look makes them", async () => {
    const { id: jobId } = await jobOf("Paper Lighthouse");
    const [first] = await listRuns(jobId);
    await database().query(
      `update run_summaries set method_version = 1, average_fps = 1, summary = jsonb_set(jsonb_set(summary, '{version}', '1'), '{averageFps}', '1') where run_id = $1`,
      { bind: [first.id] },
    );
    const old = (await viewJob(jobId)).runs[0];
    expect([old.summary.averageFps, old.outdated]).toEqual([1, true]);
    // A fault judges anew; it doesn't pass the old figures off as new ones.
    const fault = await addFault({
      runId: first.id,
      kind: "sound",
      severity: "slight",
      scene: "",
      atMs: null,
      note: "",
      workaround: "",
    });
    await changeFault(fault, true);
    expect((await viewJob(jobId)).runs[0].outdated).toBe(true);
    expect((await measureAnew()).left).toBe(0);
    const anew = (await viewJob(jobId)).runs[0];
    expect([anew.outdated, anew.summary.averageFps]).toEqual([false, first.summary!.averageFps]);
  });
  it("a run left out can be brought back", async () => {
    const { id: jobId } = await jobOf("The Orchard Ledger");
    const { runs } = await viewJob(jobId);
    await changeRun(runs[1].id, { deleted: true });
    expect((await viewJob(jobId)).runs.map(({ number }) => number)).toEqual([1, 3, 4, 5, 6, 7, 8, 9, 10]);
    await changeRun(runs[1].id, { deleted: false, label: "kept" });
    expect((await viewJob(jobId)).runs[1]).toMatchObject({ number: 2, label: "kept" });
  });
});

describe("the bench", () => {
  it("puts a rig down with the conditions it had there last, and remembers what was changed", async () => {
    const { rigs } = await viewBench();
    const shale = rigs.find(({ name }) => name === "Shale")!;
    const last = await lastConditions(shale.id);
    expect(last).toMatchObject({ powerMode: "5 V 4 A", pluggedIn: true });
    expect((await changeBench({ rigId: shale.id })).conditions).toEqual(last);
    const { conditions: now } = await viewBench();
    await changeBench({ rigId: shale.id, conditions: { ...now!, clocks: "forced", roomC: 24 } });
    expect((await viewBench()).conditions).toMatchObject({ clocks: "forced", roomC: 24 });
  });
  it("refuses conditions that can't be", async () => {
    const { conditions: now } = await viewBench();
    expect((await problemOf(changeBench({ conditions: { ...now!, roomC: 400 } }))).fields).toHaveProperty([
      "conditions.roomC",
    ]);
  });
});

describe("kit and jobs", () => {
  it("adds a title and opens a job that is then in hand", async () => {
    const kit = await viewKit();
    const system = kit.systems.find(({ name }) => name === "Satchel")!;
    const titleId = await addTitle({
      systemId: system.id,
      name: "Paper Boats",
      nativeFps: 60,
      tied: true,
      region: "",
      hardness: "easy",
      scenes: [{ name: "pond", how: "", seconds: 20, worst: true }],
      memoryNeededGb: null,
      patches: [],
      notes: "",
    });
    const build = kit.builds.find(({ engine }) => engine === "Tender")!;
    const jobId = await addJob({
      rigId: kit.rigs[0].id,
      titleId,
      buildId: build.id,
      houseRulesId: kit.houseRules[0].id,
      aim: "picture",
      targetFps: null,
      strategy: "climb",
    });
    expect((await viewHome()).inHand).toMatchObject({
      job: { title: "Paper Boats" },
      runs: [],
      next: { action: "baseline" },
    });
    expect((await viewNewRun(jobId)).settings).toEqual({
      scale: 2,
      back_end: "OpenGL",
      smoothing: "bilinear",
      hold_rate: true,
    });
  });
  it("refuses a second of the same name, in words", async () => {
    const kit = await viewKit();
    const { id: systemId } = kit.systems[0];
    const twin = {
      systemId,
      name: "Twin",
      nativeFps: 60,
      tied: true,
      region: "",
      hardness: "easy",
      scenes: [],
      memoryNeededGb: null,
      patches: [],
      notes: "",
    };
    await addTitle(twin);
    expect(await problemOf(addTitle({ ...twin, name: "TWIN" }))).toMatchObject({
      status: 409,
      fields: { name: expect.stringContaining("already") },
    });
    expect(
      (await problemOf(addTitle({ ...twin, name: "Other", systemId: "00000000-0000-4000-8000-000000000000" })))
        .status,
    ).toBe(409);
    expect((await problemOf(addTitle({ ...twin, name: "Fast", nativeFps: -1 }))).fields).toHaveProperty(
      "nativeFps",
    );
  });
  it("finds jobs by any of their names, and nothing by wildcards", async () => {
    expect((await viewJobs(readQuery("listJobs", { search: "basalt" }))).total).toBe(1);
    expect((await viewJobs(readQuery("listJobs", { search: "pipit" }))).total).toBe(9);
    expect((await viewJobs(readQuery("listJobs", { search: "%" }))).total).toBe(0);
    expect((await viewJobs(readQuery("listJobs", { search: "'; drop table jobs; --" }))).total).toBe(0);
  });
  it("walks a long list by cursor, every job once, the last worked on first; an odd cursor is refused", async () => {
    const seen: string[] = [];
    for (let cursor = "", pages = 0; pages < 20; pages++) {
      const { rows, next, total } = await viewJobs(readQuery("listJobs", { cursor, limit: 3 }));
      expect(total).toBeGreaterThan(10);
      seen.push(...rows.map(({ id }) => id));
      if (next === null) break;
      cursor = next;
    }
    const whole = (await viewJobs(readQuery("listJobs", { limit: 200 }))).rows.map(({ id }) => id);
    expect(seen).toEqual(whole);
    expect(() => readQuery("listJobs", { cursor: "no cursor of ours", limit: 3 })).toThrow(
      "no cursor of this list",
    );
  });
});

describe("the database itself", () => {
  it("holds its constraints without the code", async () => {
    const refuse = async (statement: string) => expect(database().query(statement)).rejects.toThrow();
    await refuse("update titles set native_fps = -1");
    await refuse("update titles set hardness = 'odd'");
    await refuse(
      "insert into trace_chunks (run_id, role, sequence, bytes) select id, 'trace', 99, '\\x010203' from runs limit 1",
    );
    await refuse("update run_summaries set grade = 'bright'");
    await refuse("delete from titles where id in (select title_id from jobs)");
    await refuse("insert into bench_state (id) values (2)");
  });
  it("unknown errors are not dressed up as refusals", () =>
    expect(() => asProblem(new Error("a bug"))).toThrow("a bug"));
  it("an unreachable database is said to be one", () =>
    expect(
      asProblem(Object.assign(new Error("x"), { name: "SequelizeConnectionRefusedError" })),
    ).toBeInstanceOf(Problem));
});

describe("setting the bench", () => {
  it("an update makes a new revision, and runs keep theirs", async () => {
    const rig = (await viewKit()).rigs.find(({ name }) => name === "Tansy")!;
    const [{ runs: before }] = (await viewRig(rig.id)).revisions;
    const spec = { ...rig.spec, driver: { version: "3.5", date: "2026-11-01" } };
    expect(await reviseRig(rig.id, { name: "Tansy", spec, note: "driver 3.5" })).toEqual({ revision: 2 });
    expect(await reviseRig(rig.id, { name: "Tansy", spec, note: "nothing new" })).toEqual({ revision: 2 });
    expect((await viewRig(rig.id)).revisions).toMatchObject([
      { number: 2, note: "driver 3.5", runs: 0 },
      { number: 1, runs: expect.any(Number) },
    ]);
    const { id: jobId } = await jobOf("Paper Lighthouse");
    await send(trace(new Array(200).fill(16.6)), particulars(jobId));
    expect((await viewRig(rig.id)).revisions.map(({ runs }) => runs)).toEqual([1, before]);
  });
  it("a rig is duplicated under a name of its own, and retired without losing its runs", async () => {
    const rig = (await viewKit()).rigs.find(({ name }) => name === "Pipit")!;
    const copy = await viewRig(await duplicateRig(rig.id));
    expect([copy.name, copy.spec]).toEqual(["Pipit 2", rig.spec]);
    await changeRigs({ ids: [rig.id, copy.id], retired: true });
    expect((await viewRigs(readQuery("listRigs", {}))).rows.map(({ name }) => name)).not.toContain("Pipit");
    expect((await viewRigs(readQuery("listRigs", { filter: "retired" }))).total).toBe(2);
    expect((await viewJob((await jobOf("Copper Regatta")).id)).runs).toHaveLength(22);
    await changeRigs({ ids: [rig.id], retired: false });
  });
  it("lists are searched, sorted, filtered and paged by the database", async () => {
    const names = async (query: Record<string, unknown>) =>
      (await viewTitles(readQuery("listTitles", query))).rows.map(({ name }) => name);
    expect(await names({ search: "gallery" })).toEqual([
      "Basalt Choir",
      "Marsh Rally 3",
      "Paper Lighthouse",
      "The Drowned Gallery",
      "Winter Ferry",
    ]);
    expect((await names({ sort: "rate" }))[0]).toBe("The Drowned Gallery");
    expect((await names({ sort: "hardness", descending: "true", filter: "hard" })).length).toBe(6);
    expect((await names({ sort: "name; drop table titles" })).length).toBeGreaterThanOrEqual(12);
    expect(await names({ page: "nonsense", search: "%" })).toEqual([]);
  });
  it("many titles are changed at once, and put back", async () => {
    const { rows } = await viewTitles(readQuery("listTitles", { filter: "easy" }));
    expect(await changeTitles({ ids: rows.map(({ id }) => id), hardness: "typical" })).toEqual({
      changed: rows.length,
    });
    expect((await viewTitles(readQuery("listTitles", { filter: "easy" }))).total).toBe(0);
    await changeTitles({ ids: rows.map(({ id }) => id), hardness: "easy" });
    expect((await problemOf(changeTitles({ ids: [] }))).status).toBe(422);
  });
  it("a title keeps its scenes and patches through a change", async () => {
    const [{ id }] = (await viewTitles(readQuery("listTitles", { search: "Kite Weather" }))).rows;
    const { id: _id, retired: _retired, ...title } = await viewTitle(id);
    await changeTitle(id, {
      ...title,
      patches: [
        { name: "double rate", fps: 120, sideEffects: "crowds move at double pace", fitsVersion: "1.1" },
      ],
    });
    expect(await viewTitle(id)).toMatchObject({
      patches: [{ fps: 120 }],
      scenes: [{ name: "opening" }, { name: "the squall", worst: true }],
    });
  });
  it("a catalogue goes out and comes back in; a faulty one changes nothing", async () => {
    const { builds } = await viewKit();
    const { engineId } = builds.find(({ engine }) => engine === "Harrow")!;
    const catalogue = async () =>
      JSON.parse(await textOf((await exportCatalogue(engineId)).content)) as Catalogue;
    const bytes = (file: object) => new TextEncoder().encode(JSON.stringify(file));
    const out = await catalogue();
    expect(out.settings).toHaveLength(6);
    expect(await importCatalogue(engineId, bytes({ ...out, settings: out.settings.slice(0, 4) }))).toEqual({
      settings: 4,
    });
    const problem = await problemOf(
      importCatalogue(engineId, bytes({ ...out, settings: [{ ...out.settings[0], default: "much" }] })),
    );
    expect(problem).toMatchObject({
      status: 422,
      fields: { "settings.0.default": "This setting takes a number." },
    });
    expect((await catalogue()).settings).toHaveLength(4);
  });
  it("an engine changed keeps the builds its jobs hang from", async () => {
    const { builds } = await viewKit();
    const { engineId } = builds.find(({ engine }) => engine === "Sallow")!;
    const engine = await viewEngine(engineId);
    await changeEngine(engineId, {
      ...engine,
      builds: [{ version: "8.0", branch: "experimental", date: null, notes: "" }],
    });
    expect((await viewEngine(engineId)).builds.map(({ version }) => version)).toEqual(["7.2", "8.0"]);
  });
  it("other thresholds: first what would change, then, on demand, the change", async () => {
    const { id, name, rules } = (await viewKit()).houseRules.find((row) => row.isDefault)!;
    const strict = { ...rules, steady: { ...rules.steady, speedPercent: 99.95 } };
    const shown = await rejudge(id, { rules: strict, apply: false });
    expect(shown.changes.length).toBeGreaterThan(0);
    expect(shown.changes.every(({ from, to }) => from === "steady" && to === "flickers")).toBe(true);
    const gradeOf = async () =>
      (await listRuns(shown.changes[0].jobId)).find((row) => row.id === shown.changes[0].runId)!.verdict!.grade;
    expect(await gradeOf()).toBe("steady");
    await changeHouseRules(id, { name, rules: strict });
    expect(await gradeOf()).toBe("steady");
    await rejudge(id, { rules: strict, apply: true });
    expect(await gradeOf()).toBe("flickers");
    expect((await rejudge(id, { rules: strict, apply: false })).changes).toEqual([]);
    // Measuring itself changed: the figures are made anew from the traces.
    const wide = { ...rules, measuring: { ...rules.measuring, tolerance: 0.2 } };
    expect((await rejudge(id, { rules: wide, apply: false })).changes.length).toBeGreaterThan(0);
    await changeHouseRules(id, { name, rules });
    await rejudge(id, { rules, apply: true });
  });
  it("pre-flight items are data: one's own is added and taken off", async () => {
    const before = await viewPreflight();
    expect(before).toHaveLength(13);
    await addPreflight({ label: "Stylus put away", why: "It wakes the screen.", when: "always" });
    const added = (await viewPreflight()).find(({ own }) => own)!;
    expect(added.label).toBe("Stylus put away");
    await removePreflight(added.id);
    expect(await viewPreflight()).toEqual(before);
    expect((await problemOf(addPreflight({ label: "", why: "", when: "always" }))).fields).toHaveProperty(
      "label",
    );
  });
  it("ticks are kept with the run", async () => {
    const { id: jobId } = await jobOf("Paper Lighthouse");
    const preflight = [
      { label: "Firmware present", ticked: true },
      { label: "Power saver off", ticked: false },
    ];
    const { id } = await send(trace(new Array(200).fill(16.6)), particulars(jobId, { preflight }));
    expect((await viewJob(jobId)).runs.find((run) => run.id === id)!.preflight).toEqual(preflight);
  });
});

describe("the tuning loop", () => {
  const steady = (fps: number, seed: number): FrameTrace => ({
    form: "frames",
    frameTimes: Float64Array.from(
      { length: 1200 },
      (_, i) => (1000 / fps) * (1 + 0.02 * Math.sin(i * 0.7 + seed) + 0.003 * seed),
    ),
    channels: [],
    marks: [],
  });
  let jobId: string, baseline: NewRun;
  beforeAll(async () => {
    const like = await jobOf("Marsh Rally 3");
    jobId = await addJob({
      rigId: like.rigId,
      titleId: like.titleId,
      buildId: like.buildId,
      houseRulesId: like.houseRulesId,
      aim: "speed",
      targetFps: null,
      strategy: "climb",
    });
    baseline = particulars(jobId, { settings: { scale: 2, back_end: "OpenGL" } });
    for (let k = 0; k < 3; k++) await send(steady(40, k), baseline);
  });
  const arm = (
    name: string,
    settings: NewTrial["arms"][number]["settings"],
    more: Partial<NewTrial["arms"][number]> = {},
  ): NewTrial["arms"][number] => ({
    name,
    role: "changed",
    settings,
    conditions: {},
    buildId: null,
    level: null,
    ...more,
  });
  const trial = async (more: Partial<NewTrial> = {}) => {
    const { standing } = await viewJob(jobId);
    return {
      jobId,
      kind: "compare",
      name: "Other back end",
      rounds: 2,
      cold: false,
      plan: emptyPlan,
      arms: [arm("as it is", standing.settings), arm("Vulkan", { ...standing.settings, back_end: "Vulkan" })],
      ...more,
    } satisfies NewTrial;
  };
  const bring = async (trialId: string, place: number, fps: number, seed: number, more: Partial<NewRun> = {}) =>
    send(steady(fps, seed), particulars(jobId, { trialId, arm: place, ...more }));

  it("a trial is begun, run in turns, left half done, decided by its runs, and undone", async () => {
    const { id } = await addTrial(await trial());
    await bring(id, 0, 40, 0);
    await bring(id, 1, 48, 1);
    expect((await viewJob(jobId)).next).toMatchObject({
      action: "trial",
      sentence: saying(/run Vulkan next, then things as they are; 2 to go/),
    });
    await bring(id, 1, 48, 2);
    await bring(id, 0, 40, 3);
    expect((await viewJob(jobId)).next.action).toBe("decide");
    expect((await adviseTrial(id)).advice).toMatchObject({ choice: "keep", arm: 1 });
    await decideTrial(id, { choice: "keep", arm: 1, reason: "" });
    const after = await viewJob(jobId);
    expect(after.standing.settings.back_end).toBe("Vulkan");
    expect(after.overrides).toEqual(
      expect.arrayContaining([
        expect.objectContaining({ key: "back_end", to: "Vulkan", proof: saying(/^\+\d/) }),
      ]),
    );
    expect((await problemOf(decideTrial(id, { choice: "keep", arm: 1, reason: "" }))).status).toBe(409);
    expect((await problemOf(bring(id, 0, 40, 4))).title).toMatch(/decided/);
    await undecideTrial(id);
    expect((await viewJob(jobId)).standing.settings.back_end).toBe("OpenGL");
    await decideTrial(id, { choice: "keep", arm: 1, reason: "" });
  });
  it("deciding against the advice takes a reason, which is kept", async () => {
    const { id } = await addTrial(
      await trial({
        name: "Sound",
        arms: [
          arm("as it is", (await viewJob(jobId)).standing.settings),
          arm("on its own", { ...(await viewJob(jobId)).standing.settings, async_sound: true }),
        ],
      }),
    );
    await bring(id, 0, 48, 0);
    await bring(id, 1, 40, 1);
    await bring(id, 1, 40, 2);
    await bring(id, 0, 48, 3);
    const refused = await problemOf(decideTrial(id, { choice: "keep", arm: 1, reason: "" }));
    expect([refused.status, refused.title]).toEqual([
      422,
      expect.stringMatching(/The runs say otherwise: Put back/),
    ]);
    await decideTrial(id, { choice: "keep", arm: 1, reason: "It sounds better." });
    expect((await viewTrial(id)).trial).toMatchObject({
      choice: "keep",
      reason: "It sounds better.",
      outcome: { advice: { choice: "put back" } },
    });
    await undecideTrial(id);
    await changeTrial(id, { deleted: true });
    expect((await viewJob(jobId)).runs.some(({ trialId }) => trialId === id)).toBe(false);
    await changeTrial(id, { deleted: false, rounds: 3 });
    expect((await viewTrial(id)).trial.left).toHaveLength(2);
    await changeTrial(id, { deleted: true });
  });
  it("refuses what can't be: an arm without runs, arms of one name, a foreign arm, what the rules forbid", async () => {
    const { id } = await addTrial(await trial({ name: "Nothing run" }));
    expect((await problemOf(decideTrial(id, { choice: "put back", arm: null, reason: "" }))).title).toMatch(
      /no warm, whole run yet/,
    );
    expect((await problemOf(decideTrial(id, { choice: "keep", arm: null, reason: "" }))).fields).toHaveProperty(
      "arm",
    );
    expect((await problemOf(decideTrial(id, { choice: "keep", arm: 7, reason: "" }))).fields).toHaveProperty(
      "arm",
    );
    expect((await problemOf(send(steady(40, 1), particulars(jobId, { trialId: id, arm: 9 })))).status).toBe(
      404,
    );
    expect(
      (await problemOf(send(steady(40, 1), particulars(jobId, { trialId: id, arm: null })))).fields,
    ).toHaveProperty("arm");
    const base = await trial();
    expect((await problemOf(addTrial({ ...base, arms: [base.arms[0], base.arms[0]] }))).fields).toHaveProperty(
      "arms",
    );
    expect((await problemOf(addTrial({ ...base, arms: [base.arms[0]] }))).fields).toHaveProperty("arms");
    const desk = (await viewKit()).houseRules.find(({ name }) => name === "Lending desk")!;
    const like = await jobOf("Marsh Rally 3");
    const strict = await addJob({
      rigId: like.rigId,
      titleId: like.titleId,
      buildId: like.buildId,
      houseRulesId: desk.id,
      aim: "speed",
      targetFps: null,
      strategy: "climb",
    });
    expect(
      (
        await problemOf(
          addTrial({
            ...base,
            jobId: strict,
            kind: "clocks",
            arms: [
              arm("quiet", {}, { conditions: { clocks: "quiet" } }),
              arm("forced", {}, { conditions: { clocks: "forced" } }),
            ],
          }),
        )
      ).title,
    ).toMatch(/don't allow clocks/);
    await changeTrial(id, { deleted: true });
  });
  it("a fault outweighs speed, its verdict follows, and it can be taken back", async () => {
    const { id: runId } = await send(steady(60, 0), baseline);
    expect((await viewJob(jobId)).runs.at(-1)!.verdict.grade).toBe("steady");
    const fault = await addFault({
      runId,
      kind: "picture",
      severity: "blocking",
      scene: "the ford",
      atMs: 2000,
      note: "black",
      workaround: "",
    });
    expect((await viewJob(jobId)).runs.at(-1)!.verdict).toMatchObject({
      grade: "dark",
      reasons: [{ rule: "blockingFaults" }],
    });
    await changeFault(fault, true);
    expect((await viewJob(jobId)).runs.at(-1)!.verdict.grade).toBe("steady");
    await changeFault(fault, false);
    expect((await viewJob(jobId)).faults).toHaveLength(1);
    await changeFault(fault, true);
    await changeRun(runId, { deleted: true });
    expect(
      (
        await problemOf(
          addFault({
            runId: "00000000-0000-4000-8000-000000000000",
            kind: "sound",
            severity: "slight",
            scene: "",
            atMs: null,
            note: "",
            workaround: "",
          }),
        )
      ).status,
    ).toBe(404);
  });
  it("a screening finds the switch that matters", async () => {
    const plan = await viewPlan(jobId);
    expect(plan.catalogue.length).toBeGreaterThan(3);
    const keys = ["back_end", "smoothing", "async_sound"],
      signs = [
        [1, 1, 1],
        [-1, 1, 1],
        [-1, -1, 1],
        [1, -1, -1],
        [-1, 1, -1],
        [1, -1, 1],
        [1, 1, -1],
        [-1, -1, -1],
      ];
    const { settings } = plan.standing;
    const other = { back_end: "OpenGL", smoothing: "none", async_sound: true } as Record<
      string,
      string | boolean
    >;
    const arms = signs.map((row, k) =>
      arm(
        `row ${k + 1}`,
        keys.reduce((made, key, i) => (row[i] > 0 ? { ...made, [key]: other[key] } : made), settings),
      ),
    );
    const { id } = await addTrial(
      await trial({ kind: "screen", name: "Screening", rounds: 1, plan: { ...emptyPlan, keys }, arms }),
    );
    expect((await problemOf(decideTrial(id, { choice: "put back", arm: null, reason: "" }))).title).toMatch(
      /Fewer than half/,
    );
    for (const [k, row] of signs.entries()) await bring(id, k, row[1] > 0 ? 50 : 40, k % 3);
    const { reading, advice } = await viewTrial(id);
    const { effects } = reading as ScreeningReading;
    expect(advice).toMatchObject({ choice: "keep" });
    expect(effects.find(({ key }) => key === "smoothing")).toMatchObject({ matters: true });
    expect(Math.exp(effects.find(({ key }) => key === "smoothing")!.logGain)).toBeCloseTo(1.25, 1);
    expect(effects.filter(({ matters }) => matters)).toHaveLength(1);
    await changeTrial(id, { deleted: true });
  });
  it("points out conditions that drifted since", async () => {
    const { id } = await addTrial(await trial({ name: "Drifting" }));
    await bring(id, 0, 40, 0);
    await bring(id, 1, 40, 1, {
      conditions: { ...conditions, roomC: 30, pluggedIn: true, capturePath: "camera" },
    });
    expect((await viewTrial(id)).drifted.map(words).join(" ")).toMatch(
      /between 21 and 30 °C.*capture path.*plugged in/,
    );
    await changeTrial(id, { deleted: true });
  });
  it("closes on a confirmation run only, keeps the profile with its proofs, refuses runs, and opens again", async () => {
    expect((await problemOf(closeJob(jobId, {}))).title).toMatch(/confirmation run is missing/);
    await send(steady(48, 1), particulars(jobId, { settings: (await viewJob(jobId)).standing.settings }));
    const closing = await closeJob(jobId, { note: "done" });
    expect(closing).toMatchObject({
      note: "done",
      overrides: [{ key: "back_end", trial: 1, proof: saying(/95 %/) }],
    });
    expect(closing.runningMinutes).toBeGreaterThan(1);
    expect((await problemOf(send(steady(40, 1), baseline))).title).toBe("This job is closed.");
    expect((await problemOf(addTrial(await trial()))).status).toBe(409);
    expect((await viewJob(jobId)).next.action).toBe("closed");
    await reopenJob(jobId);
    await changeJob(jobId, { strategy: "screen" });
    expect((await viewJob(jobId)).job).toMatchObject({ closedAt: null, strategy: "screen" });
  });
  it("tally readings that name a scene become marks", async () => {
    const { id } = await tallyRun({
      run: { ...particulars(jobId), source: "tally" },
      readings: ["ford", "ford", "", "hill"].map((scene, k) => ({ fps: 40 + k, second: 5 * k, scene })),
    });
    expect((await findTrace(id))!.marks.map(({ label }) => label)).toEqual(["ford", "hill"]);
  });
});
