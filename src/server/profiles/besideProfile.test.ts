import { readQuery, readBody } from "@/contract";
import { armAt } from "@/core/trial";
import { exampleSpec } from "@/testing/exampleTrial";
import { findJob } from "@/data";
import { thisMachine } from "@/server/actor";
import { addJob, addRig, addTrial, decideTrial, keepRun, undecideTrial } from "@/testing/byThisMachine";
import { viewTitle } from "@/server/kit/changeKit";
import { loadStory } from "@/server/jobs/loadStory";
import { carryProfile, planCheck, setProfileValues, undoProfileValue } from "./changeProfile";
import { viewProfile } from "./viewProfile";
import { viewRecipe } from "./recipe";
import { frames, makeWorld, runArms, runOf, trialOf, type World, refusal } from "@/testing/world";

let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(async () => world.end());
const place = () => ({ rigId: world.rigId, engineId: world.engineId });
const titleLayer = () => ({ ...place(), layer: "title", titleId: world.titleId });
const view = async () =>
  viewProfile(readQuery("viewProfile", { rig: world.rigId, engine: world.engineId, title: world.titleId }));
const row = async (key: string) => (await view()).rows.find((each) => each.key === key)!;

describe("what is decided beside the settings lands too", () => {
  /** A sweep of the rig's two power modes, the first of which was decided for. */
  const swept = async (jobId: string, keptArm: number | null) => {
    const arm = (name: string) => ({
      ...armAt(trialOf(jobId), 0),
      role: "level" as const,
      name,
      conditions: { powerMode: name },
    });
    const { id } = await addTrial({
      ...trialOf(jobId),
      kind: "power",
      name: "Power",
      arms: [arm("low"), arm("high")],
    });
    await runArms(jobId, id, [40, 58]);
    const choice = keptArm === null ? ("put back" as const) : ("keep" as const);
    await decideTrial(id, { choice, arm: keptArm, reason: "for the test" });
    return id;
  };
  let trialId: string;
  it("a power mode stands in the title's layer, proven, and the title's next job begins with it", async () => {
    trialId = await swept(world.jobId, 1);
    expect(await row("rig:powerMode")).toMatchObject({
      default: "low",
      value: "high",
      from: "title",
      standing: "proven",
    });
    const job = {
      rigId: world.rigId,
      titleId: world.titleId,
      buildId: world.buildId,
      houseRulesId: world.houseRulesId,
    };
    const jobId = await addJob({ ...job, aim: "speed", targetFps: null });
    expect((await loadStory((await findJob(jobId))!)).standing.conditions).toEqual({ powerMode: "high" });
    // Begun under another mode it is what its first run was made under that counts.
    await keepRun(
      runOf(jobId, { conditions: { ...runOf(jobId).conditions, powerMode: "low" } }),
      frames(41, 5),
    );
    expect((await findJob(jobId))!.baseline).toMatchObject({ conditions: {} });
  });
  it("put back or taken back it goes; the way back to the first arm of a sweep is no decision for it", async () => {
    await undecideTrial(trialId);
    expect((await row("rig:powerMode")).from).toBeNull();
    await swept(world.jobId, null);
    expect((await row("rig:powerMode")).from).toBeNull();
  });
  it("by hand: what the rig hasn't is refused, a check runs it against what the rig comes with, no other rig without it takes it", async () => {
    const set = async (key: string, value: unknown) =>
      setProfileValues(
        thisMachine,
        readBody("setProfileValues", { ...titleLayer(), values: [{ key, value }], saw: (await view()).saw }),
      );
    expect((await refusal(async () => set("rig:powerMode", "ultra"))).title).toBe(
      "Power mode: One of: low, high.",
    );
    await set("rig:powerMode", "high");
    await set("title:rate", 30);
    const { checks } = await view();
    expect(checks.flatMap(({ settings }) => settings.map(({ key }) => key))).toContain("rig:powerMode");
    expect(checks.flatMap(({ settings }) => settings.map(({ key }) => key))).not.toContain("title:rate");
    const planned = await planCheck(thisMachine, {
      ...place(),
      titleId: world.titleId,
      buildId: world.buildId,
      keys: ["rig:powerMode"],
    });
    const trial = (await loadStory((await findJob(planned.jobId))!)).trials.find(
      ({ id }) => id === planned.trialId,
    )!;
    expect(trial.arms.map(({ conditions }) => conditions.powerMode).sort()).toEqual(["high", "low"]);
    expect(trial.arms[0]!.settings).toEqual(trial.arms[1]!.settings);
    const other = await addRig({ name: "Wick", spec: { ...exampleSpec, powerModes: [] } });
    const { systemId } = await viewTitle(world.titleId);
    await carryProfile(thisMachine, {
      fromRigId: world.rigId,
      toRigId: other,
      engineId: world.engineId,
      systemId,
      titleId: world.titleId,
      buildId: null,
    });
    const there = await viewProfile(
      readQuery("viewProfile", { rig: other, engine: world.engineId, title: world.titleId }),
    );
    const carried = there.rows.filter(({ from }) => from !== null).map(({ key, value }) => [key, value]);
    expect(carried).toContainEqual(["title:rate", 30]);
    expect(carried.map(([key]) => key)).not.toContain("rig:powerMode");
    await set("rig:powerMode", null);
    await set("title:rate", null);
  });
});

describe("a recipe of a run in another set-up", () => {
  it("has that set-up's driver, and what the others came to with the same settings", async () => {
    const software = (version: string) => ({ version, date: null });
    const card = { name: "card", system: software("9"), driver: software("24.1") };
    const rigId = await addRig({ name: "Rush", spec: { ...exampleSpec, setUps: [card] } });
    const { titleId, buildId, houseRulesId } = world;
    const jobId = await addJob({ rigId, titleId, buildId, houseRulesId, aim: "speed", targetFps: null });
    await keepRun(runOf(jobId), frames(40));
    const { conditions } = runOf(jobId);
    await keepRun(runOf(jobId, { conditions: { ...conditions, setUp: "card" } }), frames(50, 2));
    await keepRun(
      runOf(jobId, { conditions: { ...conditions, powerMode: "high", setUp: "card" } }),
      frames(60, 3),
    );
    await keepRun(runOf(jobId, { conditions: { ...conditions, setUp: "card" } }), frames(50, 4));
    const { device } = await viewRecipe(jobId);
    const said = (name: string) => device.find((fact) => fact.name === name)?.value;
    expect(said("Graphics driver")).toBe("24.1");
    expect(said("Why this driver")).toMatch(
      /^Driver 24\.1 ran it at 50\.\d fps \(2 runs\), driver 1 ran it at (39|40)\.\d fps \(1 run\)/,
    );
  });
});

describe("values of a run", () => {
  it("say which, are held against nothing, and come from no other rig's", async () => {
    const { id } = await keepRun(runOf(world.jobId, { label: "another scale" }), frames(44, 9));
    await setProfileValues(
      thisMachine,
      readBody("setProfileValues", {
        ...titleLayer(),
        values: [{ key: "scale", value: 3 }],
        origin: { kind: "run", runId: id },
        saw: (await view()).saw,
      }),
    );
    const scale = await row("scale");
    expect(scale).toMatchObject({
      standing: "untested",
      cells: { title: { origin: { kind: "run", runId: id } } },
    });
    const rigId = await addRig({ name: "Taper", spec: exampleSpec });
    const elsewhere = await refusal(async () =>
      setProfileValues(
        thisMachine,
        readBody("setProfileValues", {
          ...titleLayer(),
          rigId,
          values: [{ key: "scale", value: 3 }],
          origin: { kind: "run", runId: id },
          saw: 0,
        }),
      ),
    );
    expect(elsewhere.title).toBe("That run was made on another rig or engine.");
    await undoProfileValue(thisMachine, { ...place(), id: scale.cells.title!.id });
  });
});
