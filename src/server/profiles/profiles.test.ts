import { textOf } from "@/testing/handedOut";
import { readQuery, readBody } from "@/contract";
import { exampleSpec } from "@/testing/exampleTrial";
import { effectiveSettings, type ProfileFile } from "@/core/profile";
import { findJob, standingValues, valuesEverSet } from "@/data";
import {
  addJob,
  addTitle,
  addTrial,
  decideTrial,
  keepRun,
  reviseRig,
  undecideTrial,
} from "@/testing/byThisMachine";
import { thisMachine } from "@/server/actor";
import { loadStory } from "@/server/jobs/loadStory";
import { asProblem } from "@/server/problem";
import { carryProfile, liftValue, planCheck, setProfileValues, undoProfileValue } from "./changeProfile";
import { saveProfile as saveProfileBytes, takeProfile } from "./profileFile";
import { changeRun } from "@/server/runs/changeRun";
import { viewJob } from "@/server/jobs/viewJob";
import { viewProfile } from "./viewProfile";
import { viewRecipe } from "./recipe";
import { addRig } from "@/testing/byThisMachine";
import { viewTitle } from "@/server/kit/changeKit";
import {
  frames,
  makeWorld,
  runArms,
  runOf,
  trialOf,
  worldCatalogue,
  type World,
  refusal,
} from "@/testing/world";

jest.setTimeout(120_000);
let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(async () => world.end());

const saveProfile = async (query: unknown) =>
  JSON.parse(await textOf((await saveProfileBytes(readQuery("saveProfile", query))).content)) as ProfileFile;
const view = async (more: Record<string, string> = {}) =>
  viewProfile(
    readQuery("viewProfile", { rig: world.rigId, engine: world.engineId, title: world.titleId, ...more }),
  );
const row = async (key: string, more: Record<string, string> = {}) =>
  (await view(more)).rows.find((each) => each.key === key)!;
const place = () => ({ rigId: world.rigId, engineId: world.engineId });
const titleLayer = () => ({ ...place(), layer: "title", titleId: world.titleId });

/** A trial of the lighter switch, run and decided for it. */
async function provenLight(jobId: string): Promise<string> {
  const { id } = await addTrial(trialOf(jobId));
  await runArms(jobId, id, [40, 48]);
  await decideTrial(id, { choice: "keep", arm: 1, reason: "for the test" });
  return id;
}

describe("what a job decides lands in the title's layer by itself", () => {
  let trialId: string;
  it("with its trial, what it was measured on and when; proven as the rig is now", async () => {
    await keepRun(runOf(world.jobId), frames(40));
    trialId = await provenLight(world.jobId);
    const light = await row("light");
    expect(light).toMatchObject({ value: true, from: "title", standing: "proven" });
    expect(light.cells.title).toMatchObject({
      origin: { kind: "trial", trialId, number: 1 },
      measuredOn: { revision: 1, buildId: world.buildId },
    });
    expect(light.confirmations.map((each) => each.trialId)).toEqual([trialId]);
    expect((await row("scale")).standing).toBe("default");
  });
  it("beside the light of its telling run, and what somebody says of that light", async () => {
    const { runId, grade } = (await view()).light!;
    expect(grade).toBe("gutters");
    const { version } = (await viewJob(world.jobId)).runs.find(({ id }) => id === runId)!;
    await changeRun(thisMachine, runId, { overruled: { grade: "dims", reason: "playable to me" } }, version);
    expect((await view()).light).toEqual({
      between: null,
      jobId: world.jobId,
      runId,
      grade,
      overruled: { grade: "dims", reason: "playable to me", by: thisMachine.name },
    });
    expect((await view({ title: "" })).light).toBeNull();
  });
  it("and goes when the decision is taken back, and comes again with it", async () => {
    await undecideTrial(trialId);
    expect(await row("light")).toMatchObject({ value: false, from: null });
    await decideTrial(trialId, { choice: "keep", arm: 1, reason: "again" });
    expect(await row("light")).toMatchObject({ value: true, standing: "proven" });
    // Nothing was overwritten: every step is there.
    const past = (await valuesEverSet(place())).map(({ value }) => value).reverse();
    expect(past).toEqual([true, null, true]);
  });
  it("the next job of the title begins with it", async () => {
    const jobId = await addJob({
      rigId: world.rigId,
      titleId: world.titleId,
      buildId: world.buildId,
      houseRulesId: world.houseRulesId,
      aim: "speed",
      targetFps: null,
    });
    const job = (await findJob(jobId))!;
    expect((await loadStory(job)).standing.settings.light).toBe(true);
  });
  it("its recipe says what proved it, on the rig as it was", async () => {
    const recipe = await viewRecipe(world.jobId);
    expect(recipe.settings.map(({ key, after, proven }) => [key, after, proven])).toEqual([
      ["light", true, true],
    ]);
    expect(recipe.device.find(({ name }) => name === "Revision as tuned")?.value).toBe("1");
    expect(JSON.stringify(recipe)).not.toContain("Lantern");
  });
});

describe("values set by hand", () => {
  it("are untested, keep their history, and are taken back", async () => {
    const { saw } = await view();
    await setProfileValues(
      thisMachine,
      readBody("setProfileValues", { ...titleLayer(), values: [{ key: "scale", value: 3 }], saw }),
    );
    expect(await row("scale")).toMatchObject({ value: 3, standing: "untested" });
    const [last] = (await view()).history;
    await undoProfileValue(thisMachine, { ...place(), id: last!.id });
    expect(await row("scale")).toMatchObject({ value: 2, from: null });
  });
  it("outside what the catalogue allows are refused, and change nothing", async () => {
    const { saw } = await view();
    const set = async (key: string, value: unknown) =>
      refusal(async () =>
        setProfileValues(
          thisMachine,
          readBody("setProfileValues", { ...titleLayer(), values: [{ key, value }], saw }),
        ),
      );
    expect((await set("scale", 99)).title).toBe("scale: At most 8.");
    expect((await set("nowhere", 1)).title).toContain("no setting “nowhere”");
    expect((await set("light", "yes")).status).toBe(422);
    expect(
      (
        await refusal(async () =>
          setProfileValues(
            thisMachine,
            readBody("setProfileValues", {
              ...place(),
              layer: "title",
              values: [{ key: "scale", value: 3 }],
              saw,
            }),
          ),
        )
      ).status,
    ).toBe(422);
    expect((await view()).saw).toBe(saw);
  });
  it("of two at once one is kept, and the other is told what it says now", async () => {
    const { saw } = await view();
    const set = async (value: number) =>
      setProfileValues(
        thisMachine,
        readBody("setProfileValues", { ...titleLayer(), values: [{ key: "scale", value }], saw }),
      );
    const done = await Promise.allSettled([set(3), set(4)]);
    const [lost] = done.filter((each): each is PromiseRejectedResult => each.status === "rejected");
    expect(done.filter(({ status }) => status === "fulfilled")).toHaveLength(1);
    const problem = asProblem(lost!.reason);
    expect(problem.status).toBe(409);
    expect(problem.more.value).toBe((await row("scale")).value);
    // Another key's change meanwhile is no conflict.
    await setProfileValues(
      thisMachine,
      readBody("setProfileValues", { ...titleLayer(), values: [{ key: "lean", value: true }], saw }),
    );
    const now = (await view()).saw;
    await setProfileValues(
      thisMachine,
      readBody("setProfileValues", {
        ...titleLayer(),
        values: [
          { key: "scale", value: null },
          { key: "lean", value: null },
        ],
        saw: now,
      }),
    );
  });
});

describe("moved up, stale and checked", () => {
  let other: string;
  it("two titles that share a value have it moved to their system, and stay proven", async () => {
    const {
      id: _id,
      version: _version,
      retired: _retired,
      ...title
    } = (await viewTitle(world.titleId)) as never as Record<string, unknown>;
    other = await addTitle({ ...title, name: "The Short Stair" });
    const jobId = await addJob({
      rigId: world.rigId,
      titleId: other,
      buildId: world.buildId,
      houseRulesId: world.houseRulesId,
      aim: "speed",
      targetFps: null,
    });
    await keepRun(runOf(jobId), frames(40));
    await provenLight(jobId);
    const before = await view();
    expect(before.lifts).toEqual([
      { key: "light", value: true, titleIds: expect.arrayContaining([world.titleId, other]), changes: [] },
    ]);
    await liftValue(thisMachine, {
      ...place(),
      systemId: before.systemId,
      key: "light",
      value: true,
      saw: before.saw,
    });
    expect(await row("light")).toMatchObject({ from: "system", value: true, standing: "proven" });
    expect(await row("light", { title: other })).toMatchObject({ from: "system", standing: "proven" });
    expect(
      (
        await refusal(async () =>
          liftValue(thisMachine, {
            ...place(),
            systemId: before.systemId,
            key: "light",
            value: true,
            saw: (await view()).saw,
          }),
        )
      ).status,
    ).toBe(409);
  });
  it("a third title has it untested, and it is listed to be confirmed", async () => {
    const {
      id: _id,
      version: _version,
      retired: _retired,
      ...title
    } = (await viewTitle(world.titleId)) as never as Record<string, unknown>;
    const third = await addTitle({ ...title, name: "The Blind Stair" });
    await addJob({
      rigId: world.rigId,
      titleId: third,
      buildId: world.buildId,
      houseRulesId: world.houseRulesId,
      aim: "speed",
      targetFps: null,
    });
    expect(await row("light", { title: third })).toMatchObject({ value: true, standing: "untested" });
    const { checks } = await view();
    expect(checks.map(({ titleId, settings }) => [titleId, settings.map(({ key }) => key)])).toEqual([
      [third, ["light"]],
    ]);
  });
  it("another driver makes it stale; one round against the default renews it for its title alone", async () => {
    const driver = { version: "next", date: "2026-11-20" };
    await reviseRig(world.rigId, { name: "Lantern", spec: { ...exampleSpec, driver }, note: "" });
    expect(await row("light")).toMatchObject({ standing: "stale", stale: ["driver"] });
    const { jobId, trialId } = await planCheck(thisMachine, {
      ...place(),
      titleId: world.titleId,
      buildId: world.buildId,
      keys: ["light"],
    });
    await runArms(jobId, trialId, [48, 40], 1);
    await decideTrial(trialId, { choice: "put back", arm: null, reason: "for the test" });
    expect(await row("light")).toMatchObject({ value: true, standing: "proven" });
    expect(await row("light", { title: other })).toMatchObject({ standing: "stale" });
  });
});

describe("taken along", () => {
  it("to another rig nothing reads as proven", async () => {
    const toRigId = await addRig({ name: "Torch", spec: exampleSpec });
    const { systemId } = await view();
    await carryProfile(thisMachine, {
      fromRigId: world.rigId,
      toRigId,
      engineId: world.engineId,
      systemId,
      titleId: world.titleId,
      buildId: null,
    });
    const there = await viewProfile(
      readQuery("viewProfile", { rig: toRigId, engine: world.engineId, title: world.titleId }),
    );
    expect(
      there.rows.filter(({ from }) => from !== null).map(({ key, value, standing }) => [key, value, standing]),
    ).toEqual([["light", true, "untested"]]);
    expect(there.rows.find(({ key }) => key === "light")!.cells.title!.origin).toEqual({
      kind: "carried",
      from: "Lantern",
    });
  });
  it("as a file it comes back as a hypothesis; what isn't here is named and left out", async () => {
    const file = await saveProfile({ rig: world.rigId, engine: world.engineId });
    expect(file.values.map(({ layer, system, key, value }) => [layer, system, key, value])).toEqual([
      ["system", "Little Box", "light", true],
    ]);
    const toRigId = await addRig({ name: "Candle", spec: exampleSpec });
    const values = [
      ...file.values,
      { ...file.values[0]!, layer: "title" as const, system: null, title: "Nowhere" },
      { ...file.values[0]!, key: "lost" },
    ];
    const taken = await takeProfile(thisMachine, {
      rigId: toRigId,
      engineId: world.engineId,
      file: { ...file, values },
      saw: 0,
    });
    expect(taken).toEqual({ changed: 1, unknown: ["title Nowhere", "setting lost"] });
    const held = await standingValues({ rigId: toRigId, engineId: world.engineId });
    const settings = effectiveSettings(worldCatalogue, held, {
      systemId: (await view()).systemId,
      titleId: null,
      buildId: null,
    });
    expect(settings.light).toBe(true);
  });
  it("a file that was taken in already changes nothing; of a place that comes twice the last value holds", async () => {
    const file = await saveProfile({ rig: world.rigId, engine: world.engineId });
    const toRigId = await addRig({ name: "Wick", spec: exampleSpec });
    const there = { rigId: toRigId, engineId: world.engineId };
    const take = async (values: unknown[]) =>
      takeProfile(
        thisMachine,
        readBody("takeProfile", { ...there, file: { ...file, values }, saw: Number.MAX_SAFE_INTEGER }),
      );
    const [value] = file.values;
    expect(await take([value])).toMatchObject({ changed: 1 });
    expect(await take([value])).toMatchObject({ changed: 0 });
    const other = { ...value, value: false };
    expect(await take([other, value])).toMatchObject({ changed: 2 });
    expect((await standingValues(there)).all.map((each) => each.value)).toEqual([true]);
    expect(await take([value, other])).toMatchObject({ changed: 1 });
    expect((await standingValues(there)).all.map((each) => each.value)).toEqual([false]);
  });
  it("while it is being changed, what stands and what was changed last are of one moment", async () => {
    let isChanging = true;
    const changing = (async () => {
      for (let k = 0; k < 40; k++)
        await setProfileValues(
          thisMachine,
          readBody("setProfileValues", {
            ...titleLayer(),
            values: [{ key: "scale", value: 3 + (k % 2) }],
            origin: { kind: "by hand" },
            saw: Number.MAX_SAFE_INTEGER,
          }),
        );
      isChanging = false;
    })();
    const seen = new Set<number>();
    while (isChanging) {
      const { rows, history, saw } = await view();
      const cell = rows.find(({ key }) => key === "scale")?.cells.title;
      expect(history[0]?.id).toBe(saw);
      if (history[0]?.key === "scale") expect(cell?.id).toBe(saw);
      seen.add(saw);
    }
    await changing;
    expect(seen.size).toBeGreaterThan(3);
  });
  it("as it stood on a day before anything was set it holds the defaults", async () => {
    expect((await row("light", { asOf: "2020-01-01T00:00:00Z" })).from).toBeNull();
  });
});
