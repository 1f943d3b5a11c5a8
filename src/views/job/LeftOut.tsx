"use client";
import { call } from "@/contract/client";
import type { LeftOut as LeftOutRow } from "@/core/records";
import type { JobView } from "@/contract";
import { Button, When, toast } from "@/ui";

/** What was left out of a job, to be taken back at any time. */
export function LeftOutList({
  leftOut: { runs, trials },
  onChanged,
}: Pick<JobView, "leftOut"> & { onChanged: () => void }) {
  const count = runs.length + trials.length;
  if (count === 0) return null;
  const takeBack = async (endpoint: "changeRun" | "changeTrial", { id, version }: LeftOutRow) => {
    const sent = await call(endpoint, { id, body: { deleted: false }, saw: version });
    if (!sent.ok) toast.error(sent.refusal.title, { description: sent.refusal.fix });
    onChanged();
  };
  const row = (endpoint: "changeRun" | "changeTrial", what: string, each: LeftOutRow) => (
    <li key={each.id} className="flex items-center gap-2 px-2 py-1 text-[13px]">
      <span className="min-w-0 flex-1 text-soft [overflow-wrap:anywhere]">
        {what} {each.number}
        {each.name && `, ${each.name}`}
        <span className="block text-[11px]">
          left out <When at={each.at} as="ago" />
        </span>
      </span>
      <Button look="quiet" onClick={() => void takeBack(endpoint, each)}>
        Take back
      </Button>
    </li>
  );
  return (
    <details className="border-t border-line p-2">
      <summary className="min-h-7 cursor-pointer py-1 text-[12px] text-soft">Left out: {count}</summary>
      <ul aria-label="Left out">
        {trials.map((trial) => row("changeTrial", "Trial", trial))}
        {runs.map((run) => row("changeRun", "Run", run))}
      </ul>
    </details>
  );
}
