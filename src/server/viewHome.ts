import type { JobListRow, JobView } from "@/core/records";
import { listJobs, openTrials, readBench } from "@/data";
import { Problem } from "./problem";
import { viewJob } from "./viewJob";

/** The bench screen: the job in hand, what was worked on lately, and what its last run warns of. */
export async function viewHome(): Promise<{
  inHand: JobView | null;
  recent: JobListRow[];
  unfinished: Awaited<ReturnType<typeof openTrials>>;
  warnings: string[];
}> {
  const [{ jobId }, { rows: recent }, unfinished] = await Promise.all([
    readBench(),
    listJobs({ limit: 8 }),
    openTrials(6),
  ]);
  const id = jobId ?? recent[0]?.id;
  const inHand = id
    ? await viewJob(id).catch((error: unknown) => {
        if (error instanceof Problem && error.status === 404) return null;
        throw error;
      })
    : null;
  const hottest = inHand?.runs.at(-1)?.summary.channels.temperature?.max;
  const warnings =
    hottest !== undefined && hottest >= 90
      ? [
          `The last run reached ${hottest.toFixed(0)} °C. Let the device cool before the next, and keep to the maker's limit.`,
        ]
      : [];
  return { inHand, recent, unfinished, warnings };
}
