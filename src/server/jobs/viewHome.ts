import type { CampaignListRow, JobListRow, ProfileListRow } from "@/core/records";
import type { JobView } from "@/contract";
import { said, type Said } from "@/core/words";
import { findRig, listJobs, openCampaigns, openTrials, readBench } from "@/data";
import { Problem } from "@/server/problem";
import { listProfiles } from "@/server/profiles/viewProfile";
import { viewJob } from "./viewJob";

/** From here on a device is let cool before the next run, °C; the product's own reckoning. */
const hotC = 90;

/** The bench page: the job in hand, what was worked on lately, and what its last run warns of. */
export async function viewHome(): Promise<{
  inHand: JobView | null;
  recent: JobListRow[];
  unfinished: Awaited<ReturnType<typeof openTrials>>;
  warnings: Said[];
  toConfirm: ProfileListRow[];
  campaigns: CampaignListRow[];
  benchRig: string | null;
}> {
  const [{ jobId, rigId }, { rows: recent }, unfinished, campaigns] = await Promise.all([
    readBench(),
    listJobs({ limit: 8 }),
    openTrials(6),
    openCampaigns(3),
  ]);
  const id = jobId ?? recent[0]?.id;
  const inHand = id
    ? await viewJob(id).catch((error: unknown) => {
        if (error instanceof Problem && error.status === 404) return null;
        throw error;
      })
    : null;
  const hottest = inHand?.runs.at(-1)?.summary.channels.temperature?.max;
  const warnings = hottest !== undefined && hottest >= hotC ? [said("caution.cool", { celsius: hottest })] : [];
  const profiles = rigId ? (await listProfiles(rigId)).rows : [];
  const toConfirm = profiles.filter((row) => row.toConfirm > 0);
  const rig = rigId ? await findRig(rigId) : null;
  return { inHand, recent, unfinished, warnings, toConfirm, campaigns, benchRig: rig?.name ?? null };
}
