import { newTitleSchema } from "@/core/kit";
import { thisMachine as us } from "@/server/actor";
import { changeTitle, viewTitle } from "@/server/kit/changeKit";
import { judgeAnew, yardstickNow } from "./judgeAnew";
import { lendingDesk } from "@/core/verdict";
import { viewJob } from "./viewJob";
import { frames, makeWorld, runOf, type World } from "@/testing/world";
import { keepRun } from "@/server/runs/keepRun";

describe("a title's rate corrected after its runs", () => {
  let world: World;
  beforeAll(async () => (world = await makeWorld()));
  afterAll(async () => world.end());

  it("the job says how many runs were judged otherwise, and judges them by what is so now", async () => {
    await keepRun(us, runOf(world.jobId), frames(50.6));
    await keepRun(us, runOf(world.jobId), frames(50.5));
    const before = await viewJob(world.jobId);
    expect(before).toMatchObject({ otherYardstick: 0 });
    expect(before.runs.map(({ verdict }) => verdict.grade)).toEqual(["dims", "dims"]);
    const { id, version, ...title } = await viewTitle(world.titleId);
    await changeTitle(us, id, newTitleSchema.parse({ ...title, nativeFps: 50 }), version);
    await keepRun(us, runOf(world.jobId), frames(50.6));
    const mixed = await viewJob(world.jobId);
    expect(mixed.otherYardstick).toBe(2);
    expect(mixed.runs.map(({ yardstick }) => yardstick.nativeFps)).toEqual([60, 60, 50]);

    expect(await judgeAnew(us, world.jobId)).toEqual({ changed: 2 });
    const after = await viewJob(world.jobId);
    expect(after.otherYardstick).toBe(0);
    expect(after.runs.map(({ yardstick }) => yardstick.targetFps)).toEqual([50, 50, 50]);
    expect(after.runs.map(({ verdict }) => verdict.grade)).toEqual(["steady", "steady", "steady"]);
    expect(await judgeAnew(us, world.jobId)).toEqual({ changed: 0 });
  });
  it("a place's own rate corrected judges the runs that were there, and no others", async () => {
    const marks = [
      { label: "hall", startMs: 0, endMs: 10_000 },
      { label: "yard", startMs: 10_000, endMs: 20_000 },
    ];
    const { id: there } = await keepRun(us, runOf(world.jobId), { ...frames(50), marks });
    const { id, version, ...title } = await viewTitle(world.titleId);
    const scenes = [{ name: "hall", how: "", seconds: 10, worst: false, fps: 25 }];
    await changeTitle(us, id, newTitleSchema.parse({ ...title, scenes }), version);
    expect((await viewJob(world.jobId)).otherYardstick).toBe(1);
    expect(await judgeAnew(us, world.jobId)).toEqual({ changed: 1 });
    const { runs, otherYardstick } = await viewJob(world.jobId);
    expect(otherYardstick).toBe(0);
    expect(runs.find((run) => run.id === there)!.yardstick.sceneFps).toEqual({ hall: 25 });
  });
  it("a target that was set stays; one that followed from the title follows", () => {
    const yardstick = { nativeFps: 60, tied: true, refreshHz: 60, targetFps: 60 };
    const now = { nativeFps: 50, tied: true, sceneFps: null };
    expect(yardstickNow({ yardstick, rules: lendingDesk }, now).targetFps).toBe(50);
    expect(
      yardstickNow({ yardstick: { ...yardstick, targetFps: 30 }, rules: lendingDesk }, now).targetFps,
    ).toBe(30);
    const free = { ...lendingDesk, freeTargetFps: 40 };
    const of = { ...yardstick, tied: false, targetFps: 40 };
    expect(yardstickNow({ yardstick: of, rules: free }, { nativeFps: 50, tied: false }).targetFps).toBe(40);
    expect(yardstickNow({ yardstick: of, rules: free }, { nativeFps: 50, tied: true }).targetFps).toBe(50);
  });
});
