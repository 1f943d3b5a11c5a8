import { first } from "@/core/kit";
import type { LookView } from "@/contract";
import { findJob, listBuilds, listRigs, listSystems } from "@/data";
import { viewBench } from "@/server/jobs/benchUse";

/** What a log can be looked at by before it belongs to anything, and the names that are on the shelf. */
export async function viewLook(): Promise<LookView> {
  const [bench, rigs, systems, builds] = await Promise.all([
    viewBench(),
    listRigs(),
    listSystems(),
    listBuilds(),
  ]);
  const job = bench.jobId ? await findJob(bench.jobId) : null;
  return {
    benchRig: bench.rig?.name ?? null,
    inHand:
      job && !job.closedAt ? { title: job.title, rig: job.rig, newRun: `/jobs/${job.id}/runs/new` } : null,
    rigs: rigs.map(({ name, spec }) => ({ name, refreshHz: first(first(spec.displays).refreshHz) })),
    systems: systems.map(({ name }) => name),
    engines: [...new Set(builds.map(({ engine }) => engine))],
    houseRules: bench.houseRules.map(({ id, name, rules }) => ({ id, name, rules })),
    houseRulesId: bench.houseRulesId,
  };
}
