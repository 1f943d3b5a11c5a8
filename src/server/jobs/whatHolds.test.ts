import { armAt } from "@/core/trial";
import { exampleSpec } from "@/testing/exampleTrial";
import { words } from "@/core/words";
import { boardTitles, findRig, listJobs } from "@/data";
import {
  addRig,
  addTrial,
  closeJob,
  decideTrial,
  keepRun,
  reopenJob,
  undecideTrial,
} from "@/testing/byThisMachine";
import { changeBench, viewBench } from "./benchUse";
import { reviseRig } from "@/server/kit/changeKit";
import { thisMachine } from "@/server/actor";
import { viewRecipe } from "@/server/profiles/recipe";
import { viewJob } from "./viewJob";
import { viewNewRun } from "@/server/runs/viewNewRun";
import { viewPlan } from "@/server/trials/planTrial";
import { frames, makeWorld, refusal, runOf, trialOf, type World } from "@/testing/world";

let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(async () => world.end());

const bench = async () => (await viewBench()).conditions!;
const put = async (change: object) => changeBench(thisMachine, change, (await viewBench()).version);
const inMode = (powerMode: string, more = {}) =>
  runOf(world.jobId, { conditions: { ...runOf(world.jobId).conditions, powerMode }, ...more });
const cell = async () => {
  const { rows } = await boardTitles({ search: "", system: "", hardness: "", cursor: "" });
  return rows.find(({ id }) => id === world.titleId)!.cells[0]!;
};

describe("what was kept is what is shown, stamped and passed on", () => {
  let trialId: string;
  it("a sweep of power modes: the kept one is on the bench, in the job, its board cell and its recipe", async () => {
    await put({ rigId: world.rigId });
    await keepRun(inMode("low"), frames(58, 1));
    const arm = (name: string) => ({
      ...armAt(trialOf(world.jobId), 0),
      role: "level" as const,
      name,
      conditions: { powerMode: name },
    });
    const made = await addTrial({
      ...trialOf(world.jobId),
      kind: "power",
      name: "Power",
      arms: [arm("low"), arm("high")],
    });
    trialId = made.id;
    for (const round of [0, 1])
      for (const [at, mode] of ["low", "high"].entries())
        await keepRun(inMode(mode, { trialId, arm: at }), frames(at === 0 ? 40 : 60, 10 + 2 * round + at));
    expect((await bench()).powerMode).toBe("low");
    const { bench: set } = await decideTrial(trialId, { choice: "keep", arm: 1, reason: "for the test" });
    expect(words(set!.sentence)).toBe("The bench is set to what holds: power mode high.");
    expect(set!.before.powerMode).toBe("low");
    expect((await bench()).powerMode).toBe("high");
    const { holds, tellingRunId, runs, standing } = await viewJob(world.jobId);
    expect(holds.conditions.powerMode).toBe("high");
    expect(standing.conditions).toEqual({ powerMode: "high" });
    // The newest run of the kept arm tells, not one of the arm put back.
    expect(runs.find(({ id }) => id === tellingRunId)).toMatchObject({
      arm: 1,
      conditions: { powerMode: "high" },
    });
    expect(await cell()).toMatchObject({ powerMode: "high", runId: tellingRunId });
    expect((await listJobs()).rows[0]!.averageFps).toBeGreaterThan(55);
    const recipe = await viewRecipe(world.jobId);
    expect(JSON.stringify(recipe)).toContain("high");
    expect((await viewNewRun(world.jobId)).bench.conditions!.powerMode).toBe("high");
    expect((await viewPlan(world.jobId)).holds.conditions.powerMode).toBe("high");
  });
  it("a confirmation under another mode confirms nothing, speaks nowhere, and says why", async () => {
    const { tellingRunId } = await viewJob(world.jobId);
    await keepRun(inMode("low"), frames(58, 40));
    const view = await viewJob(world.jobId);
    expect(view.next.action).toBe("confirm");
    expect(view.tellingRunId).toBe(tellingRunId);
    expect((await cell()).powerMode).toBe("high");
    const refused = await refusal(async () => closeJob(world.jobId, { note: "" }));
    expect(refused.fix).toMatch(/Run \d+ doesn't confirm it\..*power mode low instead of high/);
    await keepRun(inMode("high"), frames(60, 41));
    const closing = await closeJob(world.jobId, { note: "" });
    expect(closing.conditions.powerMode).toBe("high");
    expect(await cell()).toMatchObject({ powerMode: "high", confirmed: true });
  });
});

describe("the bench follows", () => {
  it("a decision taken back puts back what held", async () => {
    await reopenJob(world.jobId);
    const { trials } = await viewJob(world.jobId);
    const { bench: set } = await undecideTrial(trials[0]!.id);
    expect(words(set!.sentence)).toBe("The bench is set to what holds: power mode low.");
    expect((await bench()).powerMode).toBe("low");
    expect((await viewJob(world.jobId)).holds.decided).toEqual({});
    expect((await cell()).powerMode).toBe("high");
  });
  it("a rig put back on the bench has its last conditions, in as far as it still has them", async () => {
    const { rig, conditions } = await viewBench();
    await put({ rigId: rig!.id, conditions: { ...conditions!, powerMode: "high", roomC: 27 } });
    const wick = await addRig({ name: "Wick", spec: { ...exampleSpec, powerModes: [] } });
    await put({ rigId: wick });
    expect((await bench()).roomC).toBeNull();
    await put({ rigId: world.rigId });
    expect(await bench()).toMatchObject({ powerMode: "high", roomC: 27 });
    await put({ rigId: wick });
    const { name, spec, version } = (await findRig(world.rigId))!;
    const only = spec.powerModes.filter((mode) => mode.name === "low");
    await reviseRig(thisMachine, world.rigId, { name, spec: { ...spec, powerModes: only }, note: "" }, version);
    await put({ rigId: world.rigId });
    expect(await bench()).toMatchObject({ powerMode: "low", roomC: 27 });
  });
});
