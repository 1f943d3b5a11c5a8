import { packTrace, type FrameTrace, type Trace } from "@/core/trace";
import type { Conditions, NewRun } from "@/core/kit";
import { database, listRuns, findTrace, migrator } from "@/data";
import { scratchDatabase } from "@/data/scratchDatabase";
import { seedDemo } from "./demo/seed";
import {
  Problem, addJob, addPreflight, addTitle, asProblem, changeBench, changeEngine, changeHouseRules, changeRigs, changeRun, changeTitle, changeTitles, duplicateRig, exportCatalogue, importCatalogue, importRun,
  readTrace, rejudge, removePreflight, reviseRig, tallyRun, viewBench, viewEngine, viewHome, viewJob, viewJobs, viewKit, viewNewRun, viewPreflight, viewRig, viewRigs, viewTitle, viewTitles,
} from ".";

let end: () => Promise<void>;
beforeAll(async () => {
  end = await scratchDatabase();
  await seedDemo(new Date("2026-11-24T12:00:00Z"));
}, 60_000);
afterAll(() => end());

const trace = (frameTimes: number[]): FrameTrace => ({ form: "frames", frameTimes: Float64Array.from(frameTimes), channels: [{ role: "watts", times: Float64Array.of(10, 20), values: Float64Array.of(8, 9) }], marks: [{ label: "hall", startMs: 0, endMs: 15 }] });
const conditions: Conditions = { powerMode: "Even", clocks: null, display: "own screen", pluggedIn: false, docked: false, cooler: false, roomC: 21, capturePath: "engine log" };
const particulars = (jobId: string, more: Partial<NewRun> = {}): NewRun => ({ jobId, source: "log", label: "a run", fileName: "log.csv", conditions, settings: { scale: 3 }, cacheState: "warm", crashed: false, skippedRows: 0, preflight: [], notes: "", trialId: null, arm: null, ...more });
const jobOf = async (title: string) => (await viewJobs({ search: title })).rows[0];
const problemOf = (action: Promise<unknown>) => action.then(() => { throw new Error("it was not refused"); }, asProblem);
const send = (sent: Trace, run: NewRun) => importRun(packTrace(sent, run));

describe("the demo", () => {
  it("is added once, and never twice", async () => {
    expect(await seedDemo(new Date())).toBe(false);
    const kit = await viewKit();
    expect(kit.rigs.map(({ name }) => name)).toEqual(["Dovecote", "Pipit", "Shale", "Tansy"]);
    expect([kit.systems.length, kit.titles.length, kit.houseRules[0].name]).toEqual([6, 12, "Lending desk"]);
  });
  it.each([
    ["Paper Lighthouse", ["steady", "steady", "steady", "steady"]],
    ["Basalt Choir", ["gutters", "gutters", "gutters", "steady", "steady", "steady"]],
    ["The Drowned Gallery", ["dims", "steady", "steady"]],
    ["The Orchard Ledger", ["flickers", "flickers", "flickers"]],
  ])("%s tells its story by what was computed", async (title, grades) => {
    const { runs } = await viewJob((await jobOf(title)).id);
    expect(runs.map(({ verdict }) => verdict.grade)).toEqual(grades);
  });
  it("Copper Regatta: the counter says 60 while the engine reports about 71 %, and one of three settings helps", async () => {
    const { runs } = await viewJob((await jobOf("Copper Regatta")).id);
    expect(runs[0].summary).toMatchObject({ averageFps: expect.closeTo(60, 0), counterDisagrees: true });
    expect(Math.abs(runs[0].summary.reportedSpeedPercent! - 71)).toBeLessThan(3);
    expect(runs.map(({ verdict }) => verdict.grade === "steady")).toEqual([...new Array(9).fill(false), true, true, true]);
    expect(runs[3].changes).toEqual([{ key: "back_end", from: "OpenGL", to: "Vulkan" }]);
  });
  it("puts a job in hand with its next step", async () => {
    const { inHand, recent } = await viewHome();
    expect(inHand!.job.title).toBe("The Orchard Ledger");
    expect(inHand!.next.sentence).not.toBe("");
    expect(recent).toHaveLength(5);
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
    expect(kept).toMatchObject({ channels: [{ role: "watts" }], marks: [{ label: "hall", startMs: 0, endMs: 15 }] });
    expect((await readTrace(id)).length).toBeGreaterThan(12_000);
    expect((await viewJob(jobId)).runs.at(-1)).toMatchObject({ id, conditions, settings: { scale: 3 }, yardstick: { refreshHz: 60, nativeFps: 59.94 } });
  });
  it("keeps a trace of several chunks whole", async () => {
    const { id: jobId } = await jobOf("Basalt Choir");
    const { id } = await send({ form: "frames", frameTimes: new Float64Array(600_000).fill(16.5), channels: [], marks: [] }, particulars(jobId));
    expect(((await findTrace(id)) as FrameTrace).frameTimes).toHaveLength(600_000);
    await changeRun(id, { deleted: true });
  });
  it("leaves no half run when anything is refused", async () => {
    const { id: jobId } = await jobOf("Paper Lighthouse");
    const before = (await listRuns(jobId)).length;
    // Two marks at one place can't both be kept: the database refuses the second, and all of it goes.
    const broken = { ...trace([16, 17]), marks: [{ label: "a", startMs: 0, endMs: 5 }, { label: "b", startMs: -1, endMs: 5 }] };
    expect((await problemOf(send(broken, particulars(jobId)))).status).toBe(422);
    expect((await problemOf(importRun(new Uint8Array([1, 2, 3])))).status).toBe(422);
    expect((await problemOf(send(trace([16, 17]), particulars(jobId, { skippedRows: -1 })))).fields).toHaveProperty("skippedRows");
    expect(await listRuns(jobId)).toHaveLength(before);
    const [{ orphans }] = (await database().query("select count(*)::int as orphans from trace_chunks where run_id not in (select id from runs)"))[0] as { orphans: number }[];
    expect(orphans).toBe(0);
  });
  it("numbers runs without gaps or twins when two come at once", async () => {
    const { id: jobId } = await jobOf("The Drowned Gallery");
    const made = await Promise.all(Array.from({ length: 6 }, () => send(trace([50, 50, 50]), particulars(jobId))));
    expect(new Set(made.map(({ number }) => number)).size).toBe(6);
    for (const { id } of made) await changeRun(id, { deleted: true });
  });
  it("names what is not there", async () => {
    expect((await problemOf(send(trace([16, 16]), particulars("00000000-0000-4000-8000-000000000000")))).title).toBe("There is no such job.");
    expect((await problemOf(viewJob("not an id"))).status).toBe(404);
    expect((await problemOf(changeRun("00000000-0000-4000-8000-000000000000", { label: "x" }))).status).toBe(404);
  });
  it("a hand tally is kept as readings and marked with its uncertainty", async () => {
    const { id: jobId } = await jobOf("Paper Lighthouse");
    const { id } = await tallyRun({ run: particulars(jobId), readings: [60, 58, 59, 60, 60].map((fps, index) => ({ fps, second: 5 * index })) });
    const run = (await viewJob(jobId)).runs.find((row) => row.id === id)!;
    expect(run).toMatchObject({ source: "tally", form: "interval", summary: { hitches: null, averageFps: expect.closeTo(59.4, 6) }, tally: { readings: 5, interval: { low: expect.any(Number) } } });
    expect((await problemOf(tallyRun({ run: particulars(jobId), readings: [] }))).status).toBe(422);
  });
  it("makes old figures anew when the method has changed since", async () => {
    const { id: jobId } = await jobOf("Paper Lighthouse");
    const [first] = await listRuns(jobId);
    await database().query("update run_summaries set method_version = 0, average_fps = 1, summary = '{}' where run_id = $1", { bind: [first.id] });
    const [anew] = (await viewJob(jobId)).runs;
    expect(anew.summary.averageFps).toBeCloseTo(first.summary!.averageFps, 9);
    expect((await listRuns(jobId))[0].methodVersion).toBeGreaterThan(0);
  });
  it("a run left out can be brought back", async () => {
    const { id: jobId } = await jobOf("The Orchard Ledger");
    const { runs } = await viewJob(jobId);
    await changeRun(runs[1].id, { deleted: true });
    expect((await viewJob(jobId)).runs.map(({ number }) => number)).toEqual([1, 3]);
    await changeRun(runs[1].id, { deleted: false, label: "kept" });
    expect((await viewJob(jobId)).runs[1]).toMatchObject({ number: 2, label: "kept" });
  });
});

describe("the bench", () => {
  it("puts a rig down with its own first conditions, and remembers what was changed", async () => {
    const { rigs } = await viewBench();
    const shale = rigs.find(({ name }) => name === "Shale")!;
    expect((await changeBench({ rigId: shale.id })).conditions).toMatchObject({ powerMode: "5 V 4 A", clocks: "quiet", pluggedIn: true });
    const { conditions: now } = await viewBench();
    await changeBench({ rigId: shale.id, conditions: { ...now!, clocks: "forced", roomC: 24 } });
    expect((await viewBench()).conditions).toMatchObject({ clocks: "forced", roomC: 24 });
  });
  it("refuses conditions that can't be", async () => {
    const { conditions: now } = await viewBench();
    expect((await problemOf(changeBench({ conditions: { ...now!, roomC: 400 } }))).fields).toHaveProperty(["conditions.roomC"]);
  });
});

describe("kit and jobs", () => {
  it("adds a title and opens a job that is then in hand", async () => {
    const kit = await viewKit();
    const system = kit.systems.find(({ name }) => name === "Satchel")!;
    const titleId = await addTitle({ systemId: system.id, name: "Paper Boats", nativeFps: 60, tied: true, region: "", hardness: "easy", scenes: [{ name: "pond", how: "", seconds: 20, worst: true }], memoryNeededGb: null, patches: [], notes: "" });
    const build = kit.builds.find(({ engine }) => engine === "Tender")!;
    const jobId = await addJob({ rigId: kit.rigs[0].id, titleId, buildId: build.id, houseRulesId: kit.houseRules[0].id, aim: "picture", targetFps: null, strategy: "climb" });
    expect((await viewHome()).inHand).toMatchObject({ job: { title: "Paper Boats" }, runs: [], next: { action: "baseline" } });
    expect((await viewNewRun(jobId)).settings).toEqual({ scale: 2, back_end: "OpenGL", smoothing: "bilinear" });
  });
  it("refuses a second of the same name, in words", async () => {
    const kit = await viewKit();
    const { id: systemId } = kit.systems[0];
    const twin = { systemId, name: "Twin", nativeFps: 60, tied: true, region: "", hardness: "easy", scenes: [], memoryNeededGb: null, patches: [], notes: "" };
    await addTitle(twin);
    expect(await problemOf(addTitle({ ...twin, name: "TWIN" }))).toMatchObject({ status: 409, fields: { name: expect.stringContaining("already") } });
    expect((await problemOf(addTitle({ ...twin, name: "Other", systemId: "00000000-0000-4000-8000-000000000000" }))).status).toBe(409);
    expect((await problemOf(addTitle({ ...twin, name: "Fast", nativeFps: -1 }))).fields).toHaveProperty("nativeFps");
  });
  it("finds jobs by any of their names, and nothing by wildcards", async () => {
    expect((await viewJobs({ search: "basalt" })).total).toBe(1);
    expect((await viewJobs({ search: "pipit" })).total).toBe(3);
    expect((await viewJobs({ search: "%" })).total).toBe(0);
    expect((await viewJobs({ search: "'; drop table jobs; --" })).total).toBe(0);
    expect((await viewJobs({ page: 99 })).rows).toEqual([]);
  });
});

describe("the database itself", () => {
  it("holds its constraints without the code", async () => {
    const refuse = (statement: string) => expect(database().query(statement)).rejects.toThrow();
    await refuse("update titles set native_fps = -1");
    await refuse("update titles set hardness = 'odd'");
    await refuse("insert into trace_chunks select id, 99, '\\x010203' from runs limit 1");
    await refuse("update run_summaries set grade = 'bright'");
    await refuse("delete from titles where id in (select title_id from jobs)");
    await refuse("insert into bench_state (id) values (2)");
  });
  it("goes back and forth over every migration", async () => {
    const other = await downAndUp();
    expect(other).toEqual([]);
  });
  it("unknown errors are not dressed up as refusals", () => expect(() => asProblem(new Error("a bug"))).toThrow("a bug"));
  it("an unreachable database is said to be one", () => expect(asProblem(Object.assign(new Error("x"), { name: "SequelizeConnectionRefusedError" }))).toBeInstanceOf(Problem));
});

/** Undoes all migrations and does them again; what is left in between. */
async function downAndUp(): Promise<unknown[]> {
  const all = migrator();
  await all.down({ to: 0 });
  const [left] = await database().query("select tablename from pg_tables where schemaname = 'public' and tablename <> 'migrations'");
  await all.up();
  return left;
}

describe("setting the bench", () => {
  beforeAll(async () => void (await seedDemo(new Date("2026-11-24T12:00:00Z"))));

  it("an update makes a new revision, and runs keep theirs", async () => {
    const rig = (await viewKit()).rigs.find(({ name }) => name === "Tansy")!;
    const { runs: before } = await viewJob((await jobOf("Basalt Choir")).id);
    const spec = { ...rig.spec, driver: { version: "3.5", date: "2026-11-01" } };
    expect(await reviseRig(rig.id, { name: "Tansy", spec, note: "driver 3.5" })).toEqual({ revision: 2 });
    expect(await reviseRig(rig.id, { name: "Tansy", spec, note: "nothing new" })).toEqual({ revision: 2 });
    expect((await viewRig(rig.id)).revisions).toMatchObject([{ number: 2, note: "driver 3.5", runs: 0 }, { number: 1, runs: expect.any(Number) }]);
    const { id: jobId } = await jobOf("Basalt Choir");
    await send(trace(new Array(200).fill(16.6)), particulars(jobId));
    expect((await viewRig(rig.id)).revisions.map(({ runs }) => runs)).toEqual([1, before.length + 4]);
  });
  it("a rig is duplicated under a name of its own, and retired without losing its runs", async () => {
    const rig = (await viewKit()).rigs.find(({ name }) => name === "Pipit")!;
    const copy = await viewRig(await duplicateRig(rig.id));
    expect([copy.name, copy.spec]).toEqual(["Pipit 2", rig.spec]);
    await changeRigs({ ids: [rig.id, copy.id], retired: true });
    expect((await viewRigs({})).rows.map(({ name }) => name)).not.toContain("Pipit");
    expect((await viewRigs({ filter: "retired" })).total).toBe(2);
    expect((await viewJob((await jobOf("Copper Regatta")).id)).runs).toHaveLength(12);
    await changeRigs({ ids: [rig.id], retired: false });
  });
  it("lists are searched, sorted, filtered and paged by the database", async () => {
    const names = async (query: Record<string, unknown>) => (await viewTitles(query)).rows.map(({ name }) => name);
    expect(await names({ search: "gallery" })).toEqual(["Basalt Choir", "Marsh Rally 3", "Paper Lighthouse", "The Drowned Gallery"]);
    expect((await names({ sort: "rate" }))[0]).toBe("The Drowned Gallery");
    expect((await names({ sort: "hardness", descending: "true", filter: "hard" })).length).toBe(4);
    expect(await names({ sort: "name; drop table titles" })).toHaveLength(12);
    expect(await names({ page: "nonsense", search: "%" })).toEqual([]);
  });
  it("many titles are changed at once, and put back", async () => {
    const { rows } = await viewTitles({ filter: "easy" });
    expect(await changeTitles({ ids: rows.map(({ id }) => id), hardness: "typical" })).toEqual({ changed: rows.length });
    expect((await viewTitles({ filter: "easy" })).total).toBe(0);
    await changeTitles({ ids: rows.map(({ id }) => id), hardness: "easy" });
    expect((await problemOf(changeTitles({ ids: [] }))).status).toBe(422);
  });
  it("a title keeps its scenes and patches through a change", async () => {
    const [{ id }] = (await viewTitles({ search: "Kite Weather" })).rows;
    const { id: _id, retired: _retired, ...title } = await viewTitle(id);
    await changeTitle(id, { ...title, patches: [{ name: "double rate", fps: 120, sideEffects: "crowds move at double pace", fitsVersion: "1.1" }] });
    expect(await viewTitle(id)).toMatchObject({ patches: [{ fps: 120 }], scenes: [{ name: "opening" }, { name: "the squall", worst: true }] });
  });
  it("a catalogue goes out and comes back in; a faulty one changes nothing", async () => {
    const { builds } = await viewKit();
    const { engineId } = builds.find(({ engine }) => engine === "Harrow")!;
    const out = await exportCatalogue(engineId);
    expect(out.settings).toHaveLength(6);
    expect(await importCatalogue(engineId, JSON.stringify({ ...out, settings: out.settings.slice(0, 4) }))).toEqual({ settings: 4 });
    const problem = await problemOf(importCatalogue(engineId, JSON.stringify({ ...out, settings: [{ ...out.settings[0], default: "much" }] })));
    expect(problem).toMatchObject({ status: 422, fields: { "settings.0.default": "This setting takes a number." } });
    expect((await exportCatalogue(engineId)).settings).toHaveLength(4);
  });
  it("an engine changed keeps the builds its jobs hang from", async () => {
    const { builds } = await viewKit();
    const { engineId } = builds.find(({ engine }) => engine === "Sallow")!;
    const engine = await viewEngine(engineId);
    await changeEngine(engineId, { ...engine, builds: [{ version: "8.0", branch: "experimental", date: null, notes: "" }] });
    expect((await viewEngine(engineId)).builds.map(({ version }) => version)).toEqual(["7.2", "8.0"]);
  });
  it("other thresholds: first what would change, then, on demand, the change", async () => {
    const { id, name, rules } = (await viewKit()).houseRules.find((row) => row.isDefault)!;
    const strict = { ...rules, steady: { ...rules.steady, speedPercent: 99.95 } };
    const shown = await rejudge(id, { rules: strict, apply: false });
    expect(shown.changes.length).toBeGreaterThan(0);
    expect(shown.changes.every(({ from, to }) => from === "steady" && to === "flickers")).toBe(true);
    const gradeOf = async () => (await listRuns(shown.changes[0].jobId)).find((row) => row.id === shown.changes[0].runId)!.verdict!.grade;
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
    expect((await problemOf(addPreflight({ label: "", why: "", when: "always" }))).fields).toHaveProperty("label");
  });
  it("ticks are kept with the run", async () => {
    const { id: jobId } = await jobOf("Basalt Choir");
    const preflight = [{ label: "Firmware present", ticked: true }, { label: "Power saver off", ticked: false }];
    const { id } = await send(trace(new Array(200).fill(16.6)), particulars(jobId, { preflight }));
    expect((await viewJob(jobId)).runs.find((run) => run.id === id)!.preflight).toEqual(preflight);
  });
});
