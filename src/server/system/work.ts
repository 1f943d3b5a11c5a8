import PgBoss from "pg-boss";
import { noiseFloor } from "@/core/compare";
import * as data from "@/data";
import { theApplication } from "@/server/actor";
import { keepMissingHolds } from "@/server/jobs/holds";
import { endStaleRuns } from "@/server/runs/keepRun";
import { landEarlier } from "@/server/profiles/landing";
import { measureAnew } from "@/server/runs/measureAnew";
import { queueWork, setWorkHandlers, workerOfProcess, type WorkHandlers } from "./workQueue";
import { writing } from "@/server/writing";

const handlers: WorkHandlers = {
  "noise-floor": async ({ rigId }) =>
    writing(theApplication, async (touch) => {
      await data.putNoise(rigId, noiseFloor(await data.repeatsOnRig(rigId)));
      touch({ kind: "jobs", id: rigId });
    }),
  "measure-anew": async ({ batch }) => {
    const { left, rigs } = await measureAnew();
    for (const rigId of rigs) await queueWork("noise-floor", { rigId });
    if (left > 0) await queueWork("measure-anew", { batch: batch + 1 });
  },
  "land-decisions": async ({ batch }) => {
    if ((await landEarlier()) > 0) await queueWork("land-decisions", { batch: batch + 1 });
  },
  "keep-holds": async ({ batch }) => {
    if ((await keepMissingHolds()) > 0) await queueWork("keep-holds", { batch: batch + 1 });
  },
  forget: async () => {
    await data.forgetOld();
    await data.forgetDeeds();
    await endStaleRuns();
  },
};
setWorkHandlers(handlers);

/** Seconds between looks for work. */
const lookEverySeconds = 1;

/** Starts this process's worker: claims work from PostgreSQL, in turns with every other process. */
export async function startWork(connectionString: string): Promise<void> {
  const started = workerOfProcess.get();
  if (started) return started.ready;
  const boss = new PgBoss({ connectionString, schema: "work", max: 3 });
  boss.on("error", (error) => console.error("background work:", error.message));
  const ready = (async () => {
    await boss.start();
    for (const name of Object.keys(handlers) as (keyof WorkHandlers)[]) {
      await boss.createQueue(name, {
        name,
        policy: "short",
        retryLimit: 3,
        retryDelay: 5,
        expireInSeconds: 600,
      });
      await boss.work(name, { pollingIntervalSeconds: lookEverySeconds }, async (jobs: { data: never }[]) => {
        for (const { data: input } of jobs) await handlers[name](input);
      });
    }
    await boss.schedule("forget", "17 * * * *");
    if ((await data.outdatedCount()) > 0)
      await boss.send("measure-anew", { batch: 0 }, { singletonKey: "first" });
    if ((await data.decisionsToLandCount()) > 0)
      await boss.send("land-decisions", { batch: 0 }, { singletonKey: "first" });
    if ((await data.jobsWithoutHolds(1)).ids.length > 0)
      await boss.send("keep-holds", { batch: 0 }, { singletonKey: "first" });
  })();
  workerOfProcess.set({ boss, ready });
  return ready;
}
