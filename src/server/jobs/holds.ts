import { heldConditions, wholeUnder, type Differing, type Holding, type Story } from "@/core/job";
import { conditionsOnBench, type Conditions } from "@/core/kit";
import type { Decidable } from "@/core/profile";
import type { BenchSet, JobRow } from "@/core/records";
import { said } from "@/core/words";
import * as data from "@/data";
import { holdsIn, loadStory } from "./loadStory";

/**
 * Keeps what holds in a job, with the run that tells how it stands, for lists and boards of thousands of jobs.
 * Where nothing was decided no run is named: there the newest one tells.
 */
export async function keepHolds(jobId: string): Promise<void> {
  const job = await data.findJob(jobId);
  if (!job) return;
  const story = await loadStory(job);
  const holds = await holdsIn(job, story);
  const runId = story.decided.length === 0 ? null : (wholeUnder(story, holds).at(-1)?.id ?? null);
  await data.putHolds(jobId, { ...holds, runId });
}

/** Jobs whose holdings are kept in one go. */
const batch = 50;

/** Keeps what holds in jobs of which it isn't kept. @returns how many are left */
export async function keepMissingHolds(): Promise<number> {
  const { ids, left } = await data.jobsWithoutHolds(batch);
  for (const id of ids) await keepHolds(id);
  return left;
}

/** What a bench is set to so that it is what holds, in as far as it was decided or tried. */
function settingOf(bench: Conditions, holds: Holding, trial: Pick<Decidable, "arms">): Partial<Conditions> {
  const concerned = heldConditions.filter(
    (key) => holds.decided[key] !== undefined || trial.arms.some(({ conditions }) => key in conditions),
  );
  const wanted = concerned.flatMap((key) => {
    const value = holds.conditions[key];
    return value === undefined || (value ?? null) === (bench[key] ?? null) ? [] : [[key, value]];
  });
  return Object.fromEntries(wanted) as Partial<Conditions>;
}

/**
 * Puts the job's rig into what a decision left in force: on the bench where it lies there, else for when it
 * does.
 *
 * @returns what was set on the bench, and the conditions there before; null where nothing was
 */
export async function setBenchToHolds(
  job: JobRow,
  story: Story,
  trial: Pick<Decidable, "arms">,
): Promise<BenchSet | null> {
  const [holds, bench, rig, last] = await data.together(
    async () => holdsIn(job, story),
    async () => data.readBench(),
    async () => data.findRig(job.rigId),
    async () => data.lastConditions(job.rigId),
  );
  if (!rig) return null;
  const lies = bench.rigId === job.rigId;
  const before = (lies ? bench.conditions : null) ?? conditionsOnBench(rig.spec, last);
  const set = settingOf(before, holds, trial);
  const differing = Object.entries(set).map(([what, value]): Differing => ({
    what: what as Differing["what"],
    label: "",
    is: before[what as keyof Conditions] ?? null,
    holds: value,
  }));
  if (differing.length === 0) return null;
  const conditions = { ...before, ...set };
  if (!lies) {
    await data.putConditionsOfRig(job.rigId, conditions);
    return null;
  }
  await data.putBench({ conditions });
  const { version } = await data.readBench();
  return { sentence: said("holds.bench", { set: differing }), before, version };
}
