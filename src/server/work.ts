import PgBoss from "pg-boss";
import { QueryTypes } from "sequelize";
import { noiseFloor } from "@/core/compare";
import * as data from "@/data";
import { theApplication } from "./actor";
import { keepMissingHolds } from "./holds";
import { endStaleRuns } from "./keepRun";
import { landEarlier } from "./landing";
import { measureAnew } from "./measureAnew";
import { writing } from "./writing";

/** Work that isn't done while somebody waits for it. */
export interface Work {
  "noise-floor": { rigId: string };
  "measure-anew": { batch: number };
  "land-decisions": { batch: number };
  "keep-holds": { batch: number };
  forget: Record<string, never>;
}
type Name = keyof Work;

const handlers: { [N in Name]: (input: Work[N]) => Promise<void> } = {
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
    await endStaleRuns();
  },
};

/** One worker a process, whatever is loaded twice. */
const kept = globalThis as { lampWork?: { boss: PgBoss; ready: Promise<void> } };

/**
 * Sends statements by the transaction under way, so that work is queued when what asks for it is kept, and not
 * before.
 */
const sameTransaction = {
  executeSql: async (text: string, values: unknown[]) => ({
    rows: await data
      .database()
      .query<object>(text, { bind: (values ?? []).map((value) => value ?? null), type: QueryTypes.SELECT }),
  }),
};

/**
 * Puts work down to be done by whichever process is free. Where this process has no worker it is done on the
 * spot. One of a kind for one thing waits at a time; more would do the same again.
 */
export async function queueWork<N extends Name>(name: N, input: Work[N]): Promise<void> {
  if (!kept.lampWork) return handlers[name](input);
  await kept.lampWork.ready;
  await kept.lampWork.boss.send(name, input, {
    singletonKey: JSON.stringify(input),
    ...(data.isTransacting() ? { db: sameTransaction } : {}),
  });
}

/** Seconds between looks for work. */
const lookEverySeconds = 1;

/** Starts this process's worker: claims work from PostgreSQL, in turns with every other process. */
export async function startWork(connectionString: string): Promise<void> {
  if (kept.lampWork) return kept.lampWork.ready;
  const boss = new PgBoss({ connectionString, schema: "work", max: 3 });
  boss.on("error", (error) => console.error("background work:", error.message));
  const ready = (async () => {
    await boss.start();
    for (const name of Object.keys(handlers) as Name[]) {
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
  kept.lampWork = { boss, ready };
  return ready;
}
