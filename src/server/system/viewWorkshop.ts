import { readFile } from "node:fs/promises";
import { join } from "node:path";
import type { WorkshopView } from "@/core/records";
import { newestMoment, outdatedCount, slowStatements, tableSizes, workWaiting } from "@/data";
import { endpointTimes } from "./metrics";
import { ownVersion } from "./viewHealth";

/** When the last backup was made from this checkout, as the backup command notes it. */
async function lastBackup(): Promise<string | null> {
  try {
    const { at } = JSON.parse(await readFile(join(process.cwd(), ".lamp", "backup.json"), "utf8")) as {
      at?: unknown;
    };
    return typeof at === "string" ? at : null;
  } catch {
    return null;
  }
}

/**
 * How the application itself fares: what the store takes, which endpoints are slow, what waits, and the last
 * backup.
 */
export async function viewWorkshop(): Promise<WorkshopView> {
  const [sizes, waiting, outdatedRuns, slow, lastBackupAt, newest] = await Promise.all([
    tableSizes(),
    workWaiting(),
    outdatedCount(),
    endpointTimes(),
    lastBackup(),
    newestMoment(),
  ]);
  return {
    version: ownVersion,
    startedAt: new Date(Date.now() - process.uptime() * 1000).toISOString(),
    ...sizes,
    slow,
    statements: slowStatements(),
    waiting,
    outdatedRuns,
    memoryMb: process.memoryUsage().rss / 1024 / 1024,
    aheadMinutes: newest === null ? 0 : Math.max(0, (Date.parse(newest) - Date.now()) / 60_000),
    lastBackupAt,
  };
}
