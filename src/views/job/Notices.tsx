"use client";
import { call } from "@/contract/client";
import type { JobView } from "@/contract";
import { Button, say, toast } from "@/ui";

/** What stands between a job's figures and what is so now: a corrected title, another rig on the bench. */
export function Notices({
  view: { job, otherYardstick, otherOnBench },
  onChanged,
}: {
  view: Pick<JobView, "job" | "otherYardstick" | "otherOnBench">;
  onChanged: () => void;
}) {
  const judge = async () => {
    const sent = await call("judgeAnew", { id: job.id });
    if (sent.ok) toast(`${say.count(sent.answer.changed, "run")} judged anew.`);
    else toast.error(sent.refusal.title, { description: sent.refusal.fix });
    onChanged();
  };
  if (job.closedAt || (otherYardstick === 0 && !otherOnBench)) return null;
  return (
    <div role="status" className="grid gap-2 border-b border-line bg-panel px-3 py-2 text-[13px]">
      {otherYardstick > 0 && (
        <p className="flex flex-wrap items-center gap-3">
          <span className="text-caution">
            {say.count(otherYardstick, "run")} {otherYardstick === 1 ? "was" : "were"} judged by another rate of{" "}
            {job.title} than it has now ({say.plain(job.nativeFps)} fps).
          </span>
          <Button onClick={() => void judge()}>
            Judge {otherYardstick === 1 ? "it" : "them"} by what it has now
          </Button>
        </p>
      )}
      {otherOnBench && (
        <p className="text-soft print:hidden">
          {otherOnBench} lies on the bench, and the strip above shows it; this job&apos;s runs are {job.rig}
          &apos;s.
        </p>
      )}
    </div>
  );
}
