import { thisMachine } from "@/server/actor";
import { changeBench, changeJob, closeJob, keepRun } from "@/testing/byThisMachine";
import { copyJob, viewJobChoices } from "./changeJob";
import { viewJob } from "./viewJob";
import { viewLook } from "@/server/runs/viewLook";
import { frames, makeWorld, refusal, runOf, type World } from "@/testing/world";

describe("a job before its first run, and after", () => {
  let world: World;
  beforeAll(async () => {
    world = await makeWorld();
  });
  afterAll(async () => world.end());
  const job = async (id = world.jobId) => (await viewJob(id)).job;

  it("may be changed to builds of engines that run its system, and any house rules", async () => {
    const { builds, houseRules } = await viewJobChoices(world.jobId);
    expect(builds.map(({ id, engine }) => [id, engine])).toEqual([[world.buildId, "Spindle"]]);
    expect(houseRules.map(({ id }) => id)).toContain(world.houseRulesId);
    expect(await refusal(async () => viewJobChoices(crypto.randomUUID()))).toMatchObject({ status: 404 });
  });
  it("takes another target, and its first run doesn't yet hold it to one", async () => {
    await changeJob(world.jobId, { targetFps: 40 });
    expect(await job()).toMatchObject({ targetFps: 40 });
    await changeJob(world.jobId, { targetFps: null });
    expect(await job()).toMatchObject({ targetFps: null });
  });
  it("has its title, engine, rules and target fixed by its first run; what it aims at stays free", async () => {
    await keepRun(runOf(world.jobId), frames(50, 1));
    expect(await refusal(async () => changeJob(world.jobId, { targetFps: 30 }))).toMatchObject({
      status: 409,
      title: expect.stringMatching(/^This job has begun/),
    });
    // The same again is no change.
    await changeJob(world.jobId, { targetFps: null, aim: "picture" });
    expect(await job()).toMatchObject({ targetFps: null, aim: "picture" });
  });
  it("is copied as what holds for it, and the copy is free again", async () => {
    const id = await copyJob(thisMachine, world.jobId);
    expect(await job(id)).toMatchObject({ title: "The Long Stair", aim: "picture", targetFps: null });
    expect((await viewJob(id)).runs).toEqual([]);
    await changeJob(id, { targetFps: 30 });
    expect(await job(id)).toMatchObject({ targetFps: 30 });
    expect(await job()).toMatchObject({ targetFps: null });
    expect(await refusal(async () => copyJob(thisMachine, crypto.randomUUID()))).toMatchObject({ status: 404 });
  });
  it("left out leaves the bench too, and is taken back though it isn't changed otherwise", async () => {
    const id = await copyJob(thisMachine, world.jobId);
    await changeBench({ jobId: id });
    expect((await viewLook()).inHand).toMatchObject({
      title: "The Long Stair",
      newRun: `/jobs/${id}/runs/new`,
    });
    await changeJob(id, { deleted: true });
    expect((await viewLook()).inHand).toBeNull();
    await changeJob(id, { deleted: false });
    expect(await job(id)).toMatchObject({ title: "The Long Stair" });
  });
  it("an edit of what somebody else changed meanwhile is refused with both versions", async () => {
    const { version } = await job();
    await changeJob(world.jobId, { aim: "speed" }, version);
    expect(await refusal(async () => changeJob(world.jobId, { aim: "battery" }, version))).toMatchObject({
      status: 409,
    });
    expect(await job()).toMatchObject({ aim: "speed" });
  });
  it("a log that belongs to nothing yet is looked at by what is on the shelf", async () => {
    const { rigs, systems, engines, houseRules, houseRulesId } = await viewLook();
    expect(rigs.map(({ name }) => name)).toEqual(["Lantern"]);
    expect(rigs[0]!.refreshHz).toBeGreaterThan(0);
    expect([systems, engines]).toEqual([["Little Box"], ["Spindle"]]);
    expect(houseRules.map(({ id }) => id)).toContain(houseRulesId);
  });
  it("closed and on the bench is not one to bring a log to", async () => {
    await changeBench({ jobId: world.jobId });
    expect((await viewLook()).inHand).not.toBeNull();
    await closeJob(world.jobId, { note: "" });
    expect((await viewLook()).inHand).toBeNull();
  });
});
