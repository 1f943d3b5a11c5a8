import { readBody, readQuery } from "@/contract";
import { newTitleSchema, type NewRun } from "@/core/kit";
import { recipeSchema } from "@/core/recipe";
import { exampleSpec } from "@/testing/exampleTrial";
import { thisMachine } from "@/server/actor";
import { addFault, addTrial, changeTitle, decideTrial, keepRun, reviseRig } from "@/testing/byThisMachine";
import { viewTitle } from "@/server/kit/changeKit";
import { setProfileValues } from "./changeProfile";
import { viewProfile } from "./viewProfile";
import { viewProfileRecipe, viewRecipe } from "./recipe";
import { frames, makeWorld, refusal, runArms, runOf, trialOf, type World } from "@/testing/world";

describe("a recipe is what the store holds of a job, and nothing else", () => {
  let world: World;
  const run = async (more: Partial<NewRun>, fps: number, seed: number) =>
    keepRun(runOf(world.jobId, more), frames(fps, seed, 60));
  beforeAll(async () => {
    world = await makeWorld();
    const { id, version, ...title } = await viewTitle(world.titleId);
    const patches = [
      { name: "Steady camera", fps: 60, sideEffects: "menus blink", fitsVersion: "1.02" },
      { name: "No film grain", fps: null, sideEffects: "", fitsVersion: "" },
    ];
    await changeTitle(id, newTitleSchema.parse({ ...title, region: "North", patches }), version);
    await run({ label: "baseline" }, 50, 1);
    const { id: trialId } = await addTrial(trialOf(world.jobId));
    await runArms(world.jobId, trialId, [50, 58]);
    await decideTrial(trialId, { choice: "keep", arm: 1, reason: "It is faster." });
  });
  afterAll(async () => world.end());

  it("has what was decided, as it was before and is now; what was only tried stays out", async () => {
    const { settings, engine, title, targetFps } = await viewRecipe(world.jobId);
    expect(settings.map(({ key, before, after }) => [key, before, after])).toEqual([["light", false, true]]);
    expect(settings[0]).toMatchObject({ proven: true, effect: expect.stringMatching(/%/) });
    expect(engine).toMatchObject({ name: "Spindle", build: "1", branch: "stable" });
    expect(title).toMatchObject({
      name: "The Long Stair",
      system: "Little Box",
      region: "North",
      nativeFps: 60,
    });
    expect(targetFps).toBe(60);
  });
  it("names patches with what they give, fit and break", async () =>
    expect((await viewRecipe(world.jobId)).patches).toEqual([
      "Steady camera: 60 fps; fits version 1.02; menus blink",
      "No film grain",
    ]));
  it("tells the newest run under what was kept: its light, its ticks; crashes against all that was played", async () => {
    const preflight = [
      { label: "Firmware present", ticked: true },
      { label: "Power saver off", ticked: false },
    ];
    const settings = { ...runOf(world.jobId).settings, light: true };
    const { id } = await run({ label: "after", settings, preflight }, 59.9, 9);
    // Of the arm put back, and of a crash, nobody is told what to expect.
    await run({ label: "as it was" }, 50, 10);
    await run({ label: "crashed", settings, crashed: true }, 20, 11);
    const at = { scene: "the stair", atMs: 4000, workaround: "save before it" };
    await addFault({ runId: id, kind: "sound", severity: "slight", note: "crackles", ...at });
    const { before, verdict, crashes, faults } = await viewRecipe(world.jobId);
    expect(before).toEqual(["Firmware present"]);
    expect(verdict).toMatch(/59\.9 fps on average\.$/);
    // A minute of the baseline and of each of these, and four arms of twenty seconds.
    expect(crashes).toMatch(/^1 in 5 min: /);
    expect(faults).toEqual([
      { what: "sound, slight: crackles", where: "the stair", workaround: "save before it" },
    ]);
  });
  it("is of the device as it was tuned, though its driver is another by now", async () => {
    const driver = { version: "2", date: null };
    await reviseRig(world.rigId, { name: "Lantern", spec: { ...exampleSpec, driver }, note: "" });
    const { device } = await viewRecipe(world.jobId);
    expect(device).toContainEqual({ name: "Revision as tuned", value: "1" });
    expect(device).toContainEqual({ name: "Graphics driver", value: exampleSpec.driver.version });
  });
  it("keeps the rig's name and the people's notes to itself, and holds to its published form", async () => {
    const recipe = await viewRecipe(world.jobId);
    expect(JSON.stringify(recipe)).not.toMatch(/Lantern|It is faster/);
    expect(recipeSchema.parse(recipe)).toEqual(recipe);
  });
  it("of a profile has its values, proven where a trial proved them, and says that nothing was measured as a whole", async () => {
    const place = { rig: world.rigId, engine: world.engineId, title: world.titleId };
    await setProfileValues(
      thisMachine,
      readBody("setProfileValues", {
        ...{ rigId: world.rigId, engineId: world.engineId, layer: "title", titleId: world.titleId },
        values: [{ key: "scale", value: 3 }],
        saw: (await viewProfile(readQuery("viewProfile", place))).saw,
      }),
    );
    const {
      settings,
      verdict,
      expect: scenes,
      crashes,
      faults,
      patches,
      device,
    } = await viewProfileRecipe(readQuery("viewProfileRecipe", place));
    const bySetting = Object.fromEntries(settings.map(({ key, after, proven }) => [key, [after, proven]]));
    expect(bySetting).toEqual({ light: [true, true], scale: [3, false] });
    expect([verdict, crashes, scenes, faults]).toEqual([
      "What it comes to wasn't measured as a whole.",
      "",
      [],
      [],
    ]);
    expect(patches).toHaveLength(2);
    expect(device).toContainEqual({ name: "Revision as tuned", value: "2" });
  });
  it("of what isn't there isn't there", async () => {
    const gone = crypto.randomUUID();
    expect(await refusal(async () => viewRecipe(gone))).toMatchObject({ status: 404 });
    expect(
      await refusal(async () =>
        viewProfileRecipe(readQuery("viewProfileRecipe", { rig: gone, engine: world.engineId })),
      ),
    ).toMatchObject({
      status: 404,
    });
  });
});
