"use client";
import { useRouter } from "next/navigation";
import { allFastest, type Suggestion } from "@/core/advise";
import { firstConditions } from "@/core/kit";
import type { JobView } from "@/core/records";
import { comparePlan, descendPlan, type ArmConditions } from "@/core/trial";
import { valueWords } from "@/core/words";
import { useBeginTrial } from "@/views/trial/useBeginTrial";

/** Begins what is suggested, or the job's opening, as a trial. */
export function useTrying({
  job,
  standing,
  opening,
  catalogue,
  spec,
}: Pick<JobView, "job" | "standing" | "opening" | "catalogue" | "spec">) {
  const router = useRouter();
  const { begin, busy } = useBeginTrial(job.id);
  const base = { standing };
  const from: ArmConditions = { ...firstConditions(spec), ...standing.conditions };
  const tryOne = ({ lever }: Suggestion) =>
    void begin(
      comparePlan(
        base,
        {
          name: `${lever.label} ${valueWords(lever.to)}`,
          settings: lever.settings,
          conditions: lever.conditions,
          buildId: null,
          rounds: 2,
          cold: false,
        },
        from,
      ),
    );
  const open = () => {
    if (opening?.strategy === "descend")
      void begin(descendPlan(base, allFastest(catalogue, standing.settings, job.rules)));
    else if (opening) router.push(`/jobs/${job.id}/trials/new?kind=screen`);
  };
  return { tryOne, open, busy };
}
