import { readBody, readQuery } from "@/contract";
import { createHash } from "node:crypto";
import { words, type Said } from "@/core/words";
import { findTrial, listRuns } from "@/data";
import { answeredOnce } from "@/server/request/answeredOnce";
import { thisMachine } from "./actor";
import {
  addFault,
  addTrial,
  changeBench,
  changeRun,
  changeTrial,
  decideTrial,
  keepRun,
  reviseRig,
} from "@/testing/byThisMachine";
import { viewBench } from "@/server/jobs/benchUse";
import { viewRig } from "@/server/kit/changeKit";
import { addJob } from "@/server/jobs/addJob";
import { asProblem, type Problem } from "./problem";
import { viewJob } from "@/server/jobs/viewJob";
import { viewJobs } from "@/server/jobs/viewJobs";
import { frames, makeWorld, runArms, runOf, trialOf, type World } from "@/testing/world";

jest.setTimeout(60_000);
let world: World;
beforeAll(async () => {
  world = await makeWorld();
  for (let k = 0; k < 3; k++) await keepRun(runOf(world.jobId), frames(40, k));
});
afterAll(async () => world.end());

/** What several things at once came to: what was done, and what was refused. */
async function atOnce<T>(...actions: (() => Promise<T>)[]): Promise<{ done: T[]; refused: Problem[] }> {
  const settled = await Promise.allSettled(actions.map(async (action) => action()));
  return {
    done: settled.flatMap((each) => (each.status === "fulfilled" ? [each.value] : [])),
    refused: settled.flatMap((each) => (each.status === "rejected" ? [asProblem(each.reason)] : [])),
  };
}

it("two windows decide one trial: one wins, the other is told what was decided", async () => {
  const { id } = await addTrial(trialOf(world.jobId));
  await runArms(world.jobId, id, [40, 48]);
  const { done, refused } = await atOnce<unknown>(
    async () => decideTrial(id, { choice: "keep", arm: 1, reason: "" }),
    async () => decideTrial(id, { choice: "put back", arm: null, reason: "Looks worse." }),
  );
  expect([done.length, refused.map(({ title }) => title)]).toEqual([
    1,
    [expect.stringMatching(/decided already/)],
  ]);
  const kept = (await findTrial(id))!;
  const [problem] = refused;
  expect(problem).toMatchObject({ status: 409, more: { decided: { choice: kept.choice, arm: kept.keptArm } } });
  expect(problem.title).toMatch(kept.choice === "keep" ? /light was kept/ : /everything was put back/);
});

it("two edits that saw one version: the second is told both versions, and changes nothing", async () => {
  const { version, name, spec } = await viewRig(world.rigId);
  const { done, refused } = await atOnce(
    async () => reviseRig(world.rigId, { name, spec: { ...spec, memoryGb: 12 } }, version),
    async () => reviseRig(world.rigId, { name, spec: { ...spec, memoryGb: 16 } }, version),
  );
  expect([done.length, refused.length]).toEqual([1, 1]);
  const after = await viewRig(world.rigId);
  expect(refused[0]).toMatchObject({ status: 409, more: { saw: version, current: after.version } });
  expect(after.revision).toBe(2);
});

it("the bench strip, a run and a trial are held the same way", async () => {
  const bench = await viewBench();
  const strip = await atOnce(
    async () => changeBench({ conditions: { ...bench.conditions!, roomC: 20 } }, bench.version),
    async () => changeBench({ conditions: { ...bench.conditions!, roomC: 25 } }, bench.version),
  );
  expect([strip.done.length, strip.refused[0]?.status]).toEqual([1, 409]);
  const [run] = await listRuns(world.jobId);
  const label = await atOnce(
    async () => changeRun(run.id, { label: "mine" }, run.version),
    async () => changeRun(run.id, { label: "theirs" }, run.version),
  );
  expect([label.done.length, label.refused[0]?.status]).toEqual([1, 409]);
  const { id } = await addTrial(trialOf(world.jobId, { name: "Rounds" }));
  const { version } = (await findTrial(id))!;
  const rounds = await atOnce(
    async () => changeTrial(id, { rounds: 3 }, version),
    async () => changeTrial(id, { rounds: 4 }, version),
  );
  expect([rounds.done.length, rounds.refused[0]?.status]).toEqual([1, 409]);
});

it("two arms added at once are both there, or one is told", async () => {
  const { id } = await addTrial(trialOf(world.jobId, { name: "Arms" }));
  const [, like] = (await findTrial(id))!.arms;
  const { done } = await atOnce(
    async () => changeTrial(id, { arm: { ...like, name: "lean" } }),
    async () => changeTrial(id, { arm: { ...like, name: "leaner" } }),
  );
  expect((await findTrial(id))!.arms).toHaveLength(2 + done.length);
});

it("a run and a decision at once: the run is in the decision, or is refused; never behind its back", async () => {
  const { id } = await addTrial(trialOf(world.jobId, { name: "Race" }));
  await runArms(world.jobId, id, [40, 48]);
  const { refused } = await atOnce<unknown>(
    async () => decideTrial(id, { choice: "keep", arm: 1, reason: "all the same" }),
    async () => keepRun(runOf(world.jobId, { trialId: id, arm: 0 }), frames(40, 9)),
  );
  const { outcome } = (await findTrial(id))!;
  const counted = outcome!.arms.reduce((sum, { runs }) => sum + runs, 0);
  const there = (await listRuns(world.jobId)).filter(({ trialId }) => trialId === id).length;
  expect(counted).toBe(there);
  expect(refused.every(({ status }) => status === 409)).toBe(true);
});

it("three faults at once: all are noted, and the verdict knows the worst", async () => {
  const { id } = await keepRun(runOf(world.jobId), frames(60, 1));
  const fault = { runId: id, kind: "picture", scene: "", atMs: null, note: "", workaround: "" };
  const { done } = await atOnce(
    ...(["slight", "visible", "severe"] as const).map(
      (severity) => async () => addFault({ ...fault, severity }),
    ),
  );
  expect(done).toHaveLength(3);
  const { runs, faults } = await viewJob(world.jobId);
  expect(faults.filter(({ runId }) => runId === id)).toHaveLength(3);
  expect(runs.find((run) => run.id === id)!.verdict.grade).toBe("gutters");
});

describe("an idempotency key", () => {
  const make = async (key: string | null, sent = "a body") =>
    answeredOnce(key === null ? null : { key, digest: sent }, "addJob", 201, async () => ({
      id: await addJob(
        thisMachine,
        readBody("addJob", {
          rigId: world.rigId,
          titleId: world.titleId,
          buildId: world.buildId,
          houseRulesId: world.houseRulesId,
          aim: "speed",
          targetFps: null,
        }),
      ),
    }));
  const count = async () => (await viewJobs(readQuery("listJobs", { limit: 200 }))).total;

  it("makes one thing of thirty tries, and every try gets its id", async () => {
    const before = await count();
    const key = createHash("sha256").update("thirty").digest("hex");
    const { done } = await atOnce(...Array.from({ length: 30 }, () => async () => make(key)));
    expect(await count()).toBe(before + 1);
    expect(new Set(done.map((answer) => JSON.stringify(answer))).size).toBe(1);
    expect(done).toHaveLength(30);
  });
  it("under which something else is sent is refused; without one everything is new", async () => {
    await make("a key of mine", "one body");
    expect(asProblem(await make("a key of mine", "another").catch((error: unknown) => error))).toMatchObject({
      status: 422,
    });
    const before = await count();
    await make(null);
    await make(null);
    expect(await count()).toBe(before + 2);
  });
  it("remembers nothing of what was refused: the same key may be tried again", async () => {
    const failing = async () =>
      answeredOnce({ key: "a failing key", digest: "x" }, "addJob", 201, async () => {
        throw new Error("not now");
      });
    await expect(failing()).rejects.toThrow("not now");
    expect(
      await answeredOnce({ key: "a failing key", digest: "x" }, "addJob", 201, async () => ({ id: "y" })),
    ).toEqual({
      id: "y",
    });
  });
});

it("a refusal's missing pieces are sentences with their figures", async () => {
  const { id } = await addTrial(trialOf(world.jobId, { name: "Empty" }));
  const problem = asProblem(
    await decideTrial(id, { choice: "keep", arm: 1, reason: "" }).catch((error: unknown) => error),
  );
  expect((problem.more.missing as Said[]).map(words).join()).toMatch(/What is in force has no warm, whole run/);
});
