"use client";
import { useRouter } from "next/navigation";
import type { Suggestion } from "@/core/advise";
import type { JobView } from "@/contract";
import type { Draft } from "@/core/trial";
import { useBeginTrial } from "@/views/trial/useBeginTrial";

/** Begins what is suggested, or the job's opening, as a trial. */
export function useTrying({
  job,
  runs,
  holds,
  opening,
  catalogue,
}: Pick<JobView, "job" | "runs" | "holds" | "opening" | "catalogue">) {
  const byEye = runs.at(-1)?.source === "tally";
  const router = useRouter();
  const { begin, busy } = useBeginTrial(job.id);
  // Plans are made of what a press asks for; what makes them is loaded then.
  const beginPlanned = async (plan: (plans: typeof import("./trialsToTry")) => Draft) =>
    begin(plan(await import("./trialsToTry")));
  const tryOne = ({ lever }: Suggestion) =>
    void beginPlanned(({ trialOfLever }) => trialOfLever(lever, holds, byEye));
  const open = () => {
    if (opening?.strategy === "descend")
      void beginPlanned(({ descentFrom }) => descentFrom(holds, catalogue, job.rules));
    else if (opening) router.push(`/jobs/${job.id}/trials/new?kind=screen`);
  };
  return { tryOne, open, busy };
}
