import type { DeedChange, Topic } from "@/data";
import * as data from "@/data";
import type { Actor } from "@/server/actor";
import { isOtherwise, yardstickNow } from "@/server/jobs/judgeAnew";
import { landDecision } from "@/server/profiles/landing";
import { measuredAside } from "@/server/system/heavy";
import { queueNoise } from "@/server/trials/noise";
import { yardstickOf } from "@/core/verdict";

/** What changes a run's figures or its light, and so has them made anew. */
const weighing = new Set([
  "cache_state",
  "conditions",
  "state",
  "from_memory",
  "rules",
  "yardstick",
  "rig_revision_id",
  "job_id",
]);

/** What takes a run into a trial or out of it. */
const membership = new Set(["trial_id", "arm", "deleted_at", "job_id"]);

const differing = ({ before, after }: DeedChange, fields: ReadonlySet<string>) =>
  before !== null &&
  after !== null &&
  [...fields].some((field) => JSON.stringify(before[field]) !== JSON.stringify(after[field]));

/** Measures a run by what is said about it now. */
export async function measuredAgain(id: string): Promise<void> {
  const [run, trace] = await data.together(
    async () => data.findRunAlways(id),
    async () => data.findKept(id),
  );
  if (!run?.summary || !trace) return;
  const job = await data.findJob(run.jobId);
  const rig = job && (await data.findRig(job.rigId));
  if (!job || !rig) return;
  const { refreshHz } = yardstickOf(job, rig.spec, run.conditions.display);
  const yardstick = { ...yardstickNow(run, job), refreshHz };
  await data.putRules(id, run.rules, yardstick);
  await data.putSummary(id, await measuredAside(trace, { ...run, yardstick }));
}

/**
 * Everything that rests on rows that were changed, judged anew: figures and lights of runs, the rig's noise floor,
 * what holds in the jobs, profiles that decisions landed in, and with them boards, campaigns and predictions, which
 * are made from these. What trials came to is made from their runs whenever it is looked at; what a decision rested
 * on stays beside it, and is held against what the runs say now.
 */
export async function mended(
  actor: Actor,
  changes: DeedChange[],
  touch: (...topics: Topic[]) => void,
): Promise<void> {
  const text = (value: unknown): string[] => (typeof value === "string" ? [value] : []);
  const of = (table: string) => changes.filter((change) => change.table === table);
  const ids = (rows: DeedChange[], field: string) =>
    new Set(rows.flatMap(({ before, after }) => [...text(before?.[field]), ...text(after?.[field])]));

  const runs = ids(
    of("runs").filter((change) => differing(change, weighing)),
    "id",
  );
  for (const fault of ids(of("faults"), "run_id")) runs.add(fault);
  const titles = new Set([...ids(of("titles"), "id"), ...ids(of("scenes"), "title_id")]);
  const jobs = new Set([
    ...ids(of("runs"), "job_id"),
    ...ids(of("jobs"), "id"),
    ...ids(of("trials"), "job_id"),
  ]);
  for (const runId of runs) {
    await measuredAgain(runId);
    const place = await data.placeOfRun(runId);
    if (place) jobs.add(place.jobId);
  }
  for (const jobId of await data.jobsOfTitles([...titles])) jobs.add(jobId);
  for (const jobId of jobs) {
    const job = await data.findJob(jobId);
    if (job)
      for (const run of await data.listRuns(jobId))
        if (!runs.has(run.id) && isOtherwise(run, job)) await measuredAgain(run.id);
    await queueNoise(jobId);
    touch({ kind: "job", id: jobId }, { kind: "jobs", id: jobId });
  }
  const inTrials = of("runs").filter(
    (change) => differing(change, membership) || differing(change, weighing) || change.before === null,
  );
  await data.markMended([...ids(inTrials, "trial_id")]);
  for (const trialId of ids(of("trials"), "id")) {
    touch({ kind: "trial", id: trialId });
    const trial = await data.findTrial(trialId);
    const wasDecided = of("trials").some((change) => differing(change, new Set(["decided_at", "deleted_at"])));
    // The values that a decision landed were taken back with it where they were part of the same deed.
    if (trial && wasDecided && of("profile_values").length === 0)
      await landDecision(actor, trial.jobId, trialId);
  }
}
