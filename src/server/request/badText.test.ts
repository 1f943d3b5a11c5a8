import { readBody, readQuery } from "@/contract";
import { find } from "@/data";
import { thisMachine } from "@/server/actor";
import { addFault, addTitle, addTrial, keepRun } from "@/testing/byThisMachine";
import { nameJob } from "@/server/jobs/nameJob";
import { asProblem } from "@/server/problem";
import { setProfileValues } from "@/server/profiles/changeProfile";
import { frames, makeWorld, runOf, trialOf, type World } from "@/testing/world";
import { viewTitle } from "@/server/kit/changeKit";
import { viewJobs } from "@/server/jobs/viewJobs";

let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(async () => world.end());

const nul = "a\0b",
  half = "a\ud800b";
const refused = async (action: () => Promise<unknown>) =>
  action().then(
    () => null,
    (error: unknown) => asProblem(error).status,
  );

/** Kept in what can be, or refused in words: never an error that nobody foresaw. */
const foreseen = (status: number | null) => status === null || (status >= 400 && status < 500);

describe("signs that no text can hold are refused, or kept without harm", () => {
  it("at endpoints that write, in columns and inside of objects", async () => {
    const { id: runId } = await keepRun(runOf(world.jobId), frames(40));
    const {
      id: _id,
      version: _version,
      retired: _retired,
      ...title
    } = (await viewTitle(world.titleId)) as never as Record<string, unknown>;
    const fault = {
      runId,
      kind: "sound",
      severity: "slight",
      scene: "",
      atMs: null,
      note: nul,
      workaround: "",
    };
    const place = {
      rigId: world.rigId,
      engineId: world.engineId,
      layer: "rig",
      values: [{ key: "scale", value: 3 }],
      saw: 0,
    };
    const job = {
      rig: nul,
      title: "",
      system: "",
      engine: "",
      build: "",
      nativeFps: 60,
      tied: true,
      refreshHz: 60,
      targetFps: null,
      houseRulesId: null,
    };
    const statuses = [
      await refused(async () => addTitle({ ...title, name: nul })),
      await refused(async () => addFault(fault)),
      await refused(async () => keepRun(runOf(world.jobId, { notes: nul }), frames(40, 1))),
      await refused(async () => keepRun(runOf(world.jobId, { tags: [nul] }), frames(40, 2))),
      await refused(async () => keepRun(runOf(world.jobId, { tags: [half] }), frames(40, 3))),
      await refused(async () => addTrial(trialOf(world.jobId, { name: nul }))),
      await refused(async () => nameJob(thisMachine, job)),
      await refused(async () =>
        setProfileValues(
          thisMachine,
          readBody("setProfileValues", { ...place, origin: { kind: "file", name: nul } }),
        ),
      ),
    ];
    expect(statuses.filter((status) => !foreseen(status))).toEqual([]);
    expect(statuses.at(-1)).toBe(422);
  });
  it("at endpoints that search", async () => {
    expect(await refused(async () => find(nul))).toBe(422);
    expect(foreseen(await refused(async () => viewJobs(readQuery("listJobs", { search: nul }))))).toBe(true);
  });
});
