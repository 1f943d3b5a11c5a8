import { readBody } from "@/contract";
import { viewEngine, viewRig } from "@/server/kit/changeKit";
import { keepRun } from "@/server/runs/keepRun";
import { nameJob as nameJobBy } from "./nameJob";
import { viewJob } from "./viewJob";
import { viewKit } from "@/server/kit/viewKit";
import { viewNewRun } from "@/server/runs/viewNewRun";
import { thisMachine as us } from "@/server/actor";
import { makeWorld, type World } from "@/testing/world";

const nameJob = async (named: object) =>
  nameJobBy(
    us,
    readBody("nameJob", {
      rig: "Fern",
      nativeFps: 50,
      refreshHz: 100,
      title: "",
      system: "",
      engine: "",
      ...named,
    }),
  );

describe("a job by its names", () => {
  let world: World;
  beforeAll(async () => (world = await makeWorld()));
  afterAll(async () => world.end());

  it("what is on the shelf is taken as it stands, whatever was assumed", async () => {
    const before = await viewKit();
    const { id, settings } = await nameJob({ rig: "lantern", title: "the long stair", engine: "spindle" });
    const { job } = await viewJob(id);
    expect(job).toMatchObject({
      rig: "Lantern",
      title: "The Long Stair",
      nativeFps: 60,
      engine: "Spindle",
      build: "1",
    });
    expect(settings).toMatchObject({ scale: 2 });
    const after = await viewKit();
    expect([after.rigs, after.titles, after.systems, after.builds].map(({ length }) => length)).toEqual(
      [before.rigs, before.titles, before.systems, before.builds].map(({ length }) => length),
    );
  });
  it("what isn't is made, with what is known of it and nothing else", async () => {
    const { id, conditions } = await nameJob({
      rig: "Fern",
      title: "Kites",
      system: "Ovals",
      engine: "Oriel",
      build: "7",
    });
    const { job } = await viewJob(id);
    expect(job).toMatchObject({ title: "Kites", nativeFps: 50, tied: true, system: "Ovals", build: "7" });
    const rig = await viewRig(job.rigId);
    expect(rig.spec.displays).toMatchObject([{ refreshHz: [100], width: null }]);
    expect(rig.spec.memoryGb).toBeNull();
    expect(conditions).toMatchObject({ powerMode: null, pluggedIn: null, display: "Screen" });
    expect((await viewEngine(job.engineId)).catalogue).toEqual([]);
  });
  it("a name is enough; a second title without one is another title", async () => {
    const first = await viewJob((await nameJob({})).id);
    expect(first.job).toMatchObject({ title: "Title without a name", engine: "Engine without a name" });
    const second = await viewJob((await nameJob({})).id);
    expect(second.job.title).toBe("Title without a name 2");
    expect(second.job.engineId).toBe(first.job.engineId);
  });
  it("the same again goes on with the job that is open", async () => {
    const same = { rig: "Fern", title: "Kites", engine: "Oriel" };
    expect((await nameJob(same)).id).toBe((await nameJob(same)).id);
    expect((await nameJob({ ...same, targetFps: 30 })).id).not.toBe((await nameJob(same)).id);
  });
  it("a shape by size and rate is a system; a known engine runs it from then on", async () => {
    const { id } = await nameJob({ title: "Lanes", system: "320×240, 60 Hz", engine: "Spindle" });
    const { job } = await viewJob(id);
    const kit = await viewKit();
    const system = kit.systems.find(({ name }) => name === "320×240, 60 Hz")!;
    expect(system.screens).toEqual([{ width: 320, height: 240, pixelAspect: 1 }]);
    expect((await viewEngine(job.engineId)).systemIds).toContain(system.id);
  });
  it("a title that two systems have needs its system named", async () => {
    await nameJob({ title: "Lanes", system: "Ovals" });
    await expect(nameJob({ title: "Lanes" })).rejects.toMatchObject({
      status: 422,
      fields: { system: "Which of them?" },
    });
  });
  it("a rig without a name is refused, and nothing is made", async () => {
    const before = await viewKit();
    await expect(nameJob({ rig: " ", title: "Nowhere" })).rejects.toThrow("Give the rig a name.");
    expect((await viewKit()).titles).toEqual(before.titles);
  });

  it("the same file is no second run, unless it is meant", async () => {
    const { bench, settings } = await viewNewRun(world.jobId);
    const run = {
      jobId: world.jobId,
      source: "log" as const,
      label: "",
      fileName: "a.csv",
      fileHash: "ab".repeat(32),
      conditions: bench.conditions!,
      settings,
      cacheState: "warm" as const,
      crashed: false,
      skippedRows: 0,
      preflight: [
        { label: "Firmware present", ticked: true },
        { label: "Power saver off", ticked: false },
      ],
      notes: "",
      trialId: null,
      arm: null,
    };
    const trace = {
      form: "frames" as const,
      frameTimes: Float64Array.from({ length: 900 }, () => 16.7),
      channels: [],
      marks: [],
    };
    const { number } = await keepRun(us, run, trace);
    await expect(keepRun(us, run, trace)).rejects.toMatchObject({ status: 409, more: { keptAs: number } });
    expect((await keepRun(us, { ...run, again: true }, trace)).number).toBe(number + 1);
    expect((await viewJob(world.jobId)).runs).toHaveLength(2);
    // What was ticked before the last run of this sitting still stands; what wasn't is asked again.
    expect((await viewNewRun(world.jobId)).ticked).toEqual({ run: number + 1, labels: ["Firmware present"] });
  });
});
