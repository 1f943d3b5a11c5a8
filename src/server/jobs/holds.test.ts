import { lendingDesk } from "@/core/verdict";
import { database, findJob, findTrial, listRuns } from "@/data";
import {
  addFault,
  addTrial,
  changeFault,
  changeJob,
  changeRun,
  changeTrial,
  closeJob,
  decideTrial,
  keepRun,
  openRun,
  rejudge,
  reopenJob,
  tallyRun,
  undecideTrial,
} from "@/testing/byThisMachine";
import { viewJob } from "./viewJob";
import { viewTrial } from "@/server/trials/viewTrial";
import { frames, makeWorld, runArms, runOf, trialOf, type World, refusal } from "@/testing/world";

jest.setTimeout(60_000);
let world: World;
beforeAll(async () => {
  world = await makeWorld({ tied: false });
});
afterAll(async () => world.end());

describe("what a job begins from is fixed when it begins", () => {
  it("is its first run's settings; leaving that run out rewrites nothing", async () => {
    const base = runOf(world.jobId);
    const first = await keepRun({ ...base, settings: { ...base.settings, scale: 3 } }, frames(40));
    await keepRun({ ...base, settings: { ...base.settings, scale: 5 } }, frames(40, 1));
    const scale = async () => (await viewJob(world.jobId)).standing.settings.scale;
    expect(await scale()).toBe(3);
    await changeRun(first.id, { deleted: true });
    expect(await scale()).toBe(3);
    await changeRun(first.id, { deleted: false });
    expect((await findJob(world.jobId))!.baseline!.settings.scale).toBe(3);
  });
});

describe("rates that were decided", () => {
  const rate = async (name: string, level: number) => {
    const { settings } = (await viewJob(world.jobId)).standing;
    const arm = { conditions: {}, buildId: null };
    const { id } = await addTrial(
      trialOf(world.jobId, {
        kind: "rate",
        name,
        rounds: 1,
        plan: { minutes: null, soakMinutes: null, elsewhereWatts: null, keys: ["most_per_second"] },
        arms: [
          { ...arm, name: "free", role: "free", settings, level: null },
          { ...arm, name: "cap", role: "capped", settings: { ...settings, most_per_second: level }, level },
        ],
      }),
    );
    await keepRun(runOf(world.jobId, { trialId: id, arm: 0 }), frames(45, level));
    await decideTrial(id, { choice: "keep", arm: 1, reason: "for the test" });
    return id;
  };
  it("undoing the first of two leaves the second's rate standing", async () => {
    const first = await rate("thirty", 30);
    const target = async () => (await viewJob(world.jobId)).standing.targetFps;
    expect(await target()).toBe(30);
    const second = await rate("twenty", 20);
    expect(await target()).toBe(20);
    await undecideTrial(first);
    expect(await target()).toBe(20);
    await undecideTrial(second);
    expect(await target()).toBeNull();
    await decideTrial(second, { choice: "keep", arm: 1, reason: "for the test" });
    // Runs made from now on are judged against what was decided.
    const made = await keepRun(runOf(world.jobId), frames(20, 3));
    expect((await listRuns(world.jobId)).find(({ id }) => id === made.id)!.yardstick.targetFps).toBe(20);
    await undecideTrial(second);
    for (const id of [first, second]) await changeTrial(id, { deleted: true });
  });
});

describe("a trial taken back in", () => {
  it("brings back the runs that went with it, and none that was left out by itself", async () => {
    const { id } = await addTrial(trialOf(world.jobId));
    await runArms(world.jobId, id, [40, 48]);
    const runs = async () => listRuns(world.jobId).then((all) => all.filter(({ trialId }) => trialId === id));
    const [single] = await runs();
    await changeRun(single!.id, { deleted: true });
    await changeTrial(id, { deleted: true });
    expect(await runs()).toEqual([]);
    expect((await refusal(async () => changeRun(single!.id, { deleted: false }))).title).toMatch(
      /trial of this run is left out/,
    );
    await changeTrial(id, { deleted: false });
    const back = await runs();
    expect(back).toHaveLength(3);
    expect(back.some((run) => run.id === single!.id)).toBe(false);
    await changeTrial(id, { deleted: true });
  });
});

describe("a closed job refuses changes at every endpoint", () => {
  it("runs, tallies, growing runs, faults, trials, decisions, how it begins; and opens again", async () => {
    const { jobId } = world;
    const { id: trialId } = await addTrial(trialOf(jobId, { name: "The last" }));
    await runArms(jobId, trialId, [40, 48]);
    // The rig's repeats of the tests above differ widely, so its runs alone don't decide.
    await decideTrial(trialId, { choice: "keep", arm: 1, reason: "The endpoint is what is tested." });
    const { settings } = (await viewJob(jobId)).standing;
    const { id: runId } = await keepRun(runOf(jobId, { settings }), frames(48, 5));
    const fault = { runId, kind: "sound", severity: "slight", scene: "", atMs: null, note: "", workaround: "" };
    const faultId = await addFault(fault);
    await closeJob(jobId, { note: "" });
    const before = JSON.stringify(await viewJob(jobId));
    const run = runOf(jobId);
    const endpoints: [string, () => Promise<unknown>][] = [
      ["a run", async () => keepRun(run, frames(40))],
      ["a run for an arm", async () => keepRun({ ...run, trialId, arm: 0 }, frames(40))],
      ["a tally", async () => tallyRun({ run, readings: [{ fps: 40, second: 1 }] })],
      ["a growing run", async () => openRun({ run, form: "frames" })],
      ["a label", async () => changeRun(runId, { label: "x" })],
      ["leaving a run out", async () => changeRun(runId, { deleted: true })],
      ["a fault", async () => addFault(fault)],
      ["taking a fault back", async () => changeFault(faultId, true)],
      ["a trial", async () => addTrial(trialOf(jobId))],
      ["more rounds", async () => changeTrial(trialId, { rounds: 9 })],
      ["leaving a trial out", async () => changeTrial(trialId, { deleted: true })],
      ["a decision", async () => decideTrial(trialId, { choice: "keep", arm: 1, reason: "" })],
      ["undoing one", async () => undecideTrial(trialId)],
      ["how it begins", async () => changeJob(jobId, { strategy: "screen" })],
      ["closing it again", async () => closeJob(jobId, { note: "" })],
    ];
    for (const [what, endpoint] of endpoints)
      expect([what, (await refusal(endpoint)).status]).toEqual([what, 409]);
    expect(JSON.stringify(await viewJob(jobId))).toBe(before);
    // Judging anew passes it over, and says so.
    const strict = { ...lendingDesk, freeTargetFps: 240 };
    expect(await rejudge(world.houseRulesId, { rules: strict, apply: true })).toMatchObject({
      judged: 0,
      closed: expect.any(Number),
    });
    expect(JSON.stringify(await viewJob(jobId))).toBe(before);
    await reopenJob(jobId);
  });
});

describe("judging anew", () => {
  it("doesn't measure again for rules whose keys stand in another order", async () => {
    const { rules } = (await findJob(world.jobId))!;
    const reversed = Object.fromEntries(Object.entries(rules.measuring).reverse());
    const [run] = await listRuns(world.jobId);
    // A trace that is gone can't be measured again; a figure that needs none stays.
    await database().query("create table away as select * from trace_chunks where run_id = $1", {
      bind: [run!.id],
    });
    await database().query("delete from trace_chunks where run_id = $1", { bind: [run!.id] });
    const shown = await rejudge(world.houseRulesId, { rules: { ...rules, measuring: reversed }, apply: false });
    expect(shown.changes).toEqual([]);
    await database().query("insert into trace_chunks select * from away");
  });
  it("takes the new rules' target for a title free of its rate, and leaves one that was decided", async () => {
    const { rules } = (await findJob(world.jobId))!;
    const own = (await listRuns(world.jobId)).filter(({ yardstick }) => yardstick.targetFps === 60);
    await rejudge(world.houseRulesId, { rules: { ...rules, freeTargetFps: 30 }, apply: true });
    const after = await listRuns(world.jobId);
    const targets = own.map(({ id }) => after.find((run) => run.id === id)!);
    expect(new Set(targets.map(({ yardstick }) => yardstick.targetFps))).toEqual(new Set([30]));
    expect(targets.every(({ summary }) => summary!.targetFps === 30)).toBe(true);
    expect(after.filter(({ yardstick }) => yardstick.targetFps === 20).length).toBeGreaterThan(0);
  });
});

describe("a comparison is made once for the runs there are", () => {
  it("kept, found again while nothing changed, and asked for anew when a run comes", async () => {
    const { id } = await addTrial(trialOf(world.jobId, { name: "Once" }));
    await runArms(world.jobId, id, [40, 48]);
    expect(await viewTrial(id)).toMatchObject({ pending: expect.any(String), advice: null });
    const { reckonTrial } = await import("@/server/trials/viewTrial");
    const made = await reckonTrial(id);
    const stamp = async () =>
      (await database().query("select made_at from trial_outcomes where trial_id = $1", { bind: [id] }))[0];
    const first = await stamp();
    expect(await viewTrial(id)).toMatchObject({ pending: null, advice: { arm: made.advice.arm } });
    expect(await reckonTrial(id)).toEqual(made);
    await decideTrial(id, { choice: made.advice.choice, arm: made.advice.arm, reason: "" });
    expect(await stamp()).toEqual(first);
    expect((await findTrial(id))!.outcome).toEqual(made);
    await undecideTrial(id);
    await keepRun(runOf(world.jobId, { trialId: id, arm: 0 }), frames(40, 11));
    expect((await viewTrial(id)).pending).not.toBeNull();
  });
});
