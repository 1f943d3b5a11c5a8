import { readBody, readQuery } from "@/contract";
import { thisMachine as us } from "@/server/actor";
import { changeJob, copyJob } from "./changeJob";
import { changeRun, viewRunEdits } from "@/server/runs/changeRun";
import { closeJob } from "./closeJob";
import { decideTrial } from "@/server/trials/decideTrial";
import { addJob } from "./addJob";
import { addRig } from "@/server/kit/changeKit";
import { keepRun } from "@/server/runs/keepRun";
import { addTrial, changeTrial } from "@/server/trials/planTrial";
import { plainRig } from "@/core/kit";
import { viewJob } from "./viewJob";
import { viewJobs } from "./viewJobs";
import { frames, makeWorld, runArms, runOf, trialOf, type World } from "@/testing/world";

describe("everything that was entered can be corrected", () => {
  let world: World;
  beforeAll(async () => (world = await makeWorld()));
  afterAll(async () => world.end());
  const run = async (fps = 60, more = {}) => keepRun(us, runOf(world.jobId, more), frames(fps));
  const found = async (id: string, jobId = world.jobId) =>
    (await viewJob(jobId)).runs.find((each) => each.id === id)!;

  it("what is said about a run, with what it said before as its history", async () => {
    const { id } = await run();
    await changeRun(us, id, { label: "lock gates", notes: "fan on", tags: ["evening"], scene: "the stair" });
    const { version } = await found(id);
    await changeRun(us, id, { label: "lock gates", tags: ["evening", "retake"] }, version);
    expect(await found(id)).toMatchObject({
      label: "lock gates",
      notes: "fan on",
      tags: ["evening", "retake"],
      scene: "the stair",
    });
    const { rows } = await viewRunEdits(id);
    expect(rows.map(({ changes }) => changes)).toEqual([
      [{ field: "tags", from: ["evening"], to: ["evening", "retake"] }],
      [
        { field: "label", from: "a run", to: "lock gates" },
        { field: "notes", from: "", to: "fan on" },
        { field: "tags", from: [], to: ["evening"] },
        { field: "scene", from: "", to: "the stair" },
      ],
    ]);
    await expect(changeRun(us, id, { label: "late" }, version)).rejects.toMatchObject({ status: 409 });
  });

  it("a crash noted late darkens the run, and taken back it shines as before", async () => {
    const { id } = await run();
    await changeRun(us, id, { crashed: true });
    expect((await found(id)).verdict.grade).toBe("dark");
    await changeRun(us, id, { crashed: false });
    expect((await found(id)).verdict.grade).not.toBe("dark");
  });

  it("moved to an arm it takes the arm's settings; out of a decided trial it doesn't move", async () => {
    const { id } = await run(58);
    const trial = await addTrial(us, trialOf(world.jobId));
    await changeRun(us, id, { place: { trialId: trial.id, arm: 1 } });
    expect(await found(id)).toMatchObject({ trialId: trial.id, arm: 1, settings: { light: true } });
    await changeRun(us, id, { place: { trialId: null, arm: null } });
    expect(await found(id)).toMatchObject({ trialId: null, arm: null });
    await runArms(world.jobId, trial.id, [50, 60]);
    await changeRun(us, id, { place: { trialId: trial.id, arm: 1 } });
    await decideTrial(us, trial.id, { choice: "keep", arm: 1, reason: "" }, null);
    await expect(changeRun(us, id, { place: { trialId: null, arm: null } })).rejects.toThrow("decided");
    await expect(changeRun(us, id, { place: { trialId: trial.id, arm: 7 } })).rejects.toMatchObject({
      status: 404,
    });
  });

  it("moved to another job of the rig it is its next run; to one of another rig it isn't moved", async () => {
    const { id } = await run(59);
    const { rigId, titleId, buildId, houseRulesId } = world;
    const job = { titleId, buildId, houseRulesId, aim: "speed", targetFps: null } as const;
    const other = await addJob(us, readBody("addJob", { ...job, rigId }));
    await changeRun(us, id, { place: { jobId: other, trialId: null, arm: null } });
    expect(await found(id)).toBeUndefined();
    expect(await found(id, other)).toMatchObject({ number: 1 });
    expect((await viewRunEdits(id)).rows[0]!.changes).toMatchObject([{ field: "job" }]);
    const fern = await addRig(us, { name: "Fern", spec: plainRig(60) });
    const far = await addJob(us, readBody("addJob", { ...job, rigId: fern }));
    await expect(changeRun(us, id, { place: { jobId: far, trialId: null, arm: null } })).rejects.toThrow(
      "another rig",
    );
    expect(await found(id, other)).toMatchObject({ number: 1 });
  });

  it("what is left out is listed, and taken back at any time", async () => {
    const { id } = await run(57, { label: "twice" });
    const trial = await addTrial(us, { ...trialOf(world.jobId), name: "Left" });
    const inTrial = await run(57, { trialId: trial.id, arm: 0 });
    await changeRun(us, id, { deleted: true });
    await changeTrial(us, trial.id, { deleted: true }, null);
    const { leftOut } = await viewJob(world.jobId);
    expect(leftOut.runs).toMatchObject([{ id, name: "twice" }]);
    expect(leftOut.trials).toMatchObject([{ id: trial.id, name: "Left" }]);
    await changeTrial(us, trial.id, { deleted: false }, null);
    await changeRun(us, id, { deleted: false }, leftOut.runs[0]!.version);
    expect((await viewJob(world.jobId)).leftOut).toEqual({ runs: [], trials: [] });
    expect(await found(inTrial.id)).toBeDefined();
    await changeTrial(us, trial.id, { deleted: true }, null);
  });

  it("a job is changed, copied, left out and taken back; what its first run fixed stays", async () => {
    await changeJob(us, world.jobId, { aim: "battery" });
    await expect(changeJob(us, world.jobId, { targetFps: 30 })).rejects.toThrow("has begun");
    const copy = await copyJob(us, world.jobId);
    expect((await viewJob(copy)).job).toMatchObject({ aim: "battery", rigId: world.rigId, closedAt: null });
    await changeJob(us, copy, { targetFps: 30 });
    await run(60, { settings: (await viewJob(world.jobId)).standing.settings });
    await closeJob(us, world.jobId, { note: "" });
    await changeJob(us, world.jobId, { deleted: true });
    const listed = async (filter: string) =>
      (await viewJobs(readQuery("listJobs", { filter }))).rows.map(({ id }) => id);
    expect(await listed("")).not.toContain(world.jobId);
    expect(await listed("left out")).toEqual([world.jobId]);
    expect(await listed("closed")).toEqual([]);
    await changeJob(us, world.jobId, { deleted: false });
    expect(await listed("closed")).toEqual([world.jobId]);
    expect(await listed("open")).toContain(copy);
  });

  it("jobs sorted by title and rig go on from a cursor without a gap or a repeat", async () => {
    for (const sort of ["worked", "opened", "title", "rig"]) {
      const all = (await viewJobs(readQuery("listJobs", { sort, limit: 200 }))).rows.map(({ id }) => id);
      const paged: string[] = [];
      let cursor: string | null = "";
      while (cursor !== null) {
        const { rows, next }: Awaited<ReturnType<typeof viewJobs>> = await viewJobs(
          readQuery("listJobs", { sort, limit: 2, cursor }),
        );
        paged.push(...rows.map(({ id }) => id));
        cursor = next;
      }
      expect(paged).toEqual(all);
      expect(new Set(all).size).toBe(all.length);
    }
    const rigs = (await viewJobs(readQuery("listJobs", { sort: "rig" }))).rows.map(({ rig }) => rig);
    expect(rigs).toEqual([...rigs].sort());
  });
});
