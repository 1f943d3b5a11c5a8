import { clsx } from "clsx";
import { TriangleAlert } from "lucide-react";
import type { ThreadRun } from "@/core/records";
import { say } from "@/ui";
import { VerdictLamp } from "@/views/verdict/VerdictLamp";

/** A job's story as it happened: each run with what was changed before it and what it measured. */
export function Thread({ runs, selected, over, onSelect, onOver }: { runs: ThreadRun[]; selected: string; over: string | null; onSelect: (id: string) => void; onOver: (id: string) => void }) {
  return (
    <ol aria-label="Thread" className="space-y-1 p-2">
      {runs.map((run) => (
        <li key={run.id} ref={run.id === selected ? (item) => item?.scrollIntoView({ block: "nearest" }) : undefined} className={clsx("rounded-md border-l-2", run.id === selected ? "border-lit bg-raised" : run.id === over ? "border-series-b bg-panel" : "border-transparent hover:bg-panel")}>
          <button type="button" aria-current={run.id === selected || undefined} onClick={(event) => (event.shiftKey ? onOver(run.id) : onSelect(run.id))} className="w-full px-2 py-1.5 text-left">
            <span className="flex items-center justify-between gap-2">
              <VerdictLamp grade={run.verdict.grade} size={17} />
              <span className="figure text-[13px]">{say.number(run.summary.averageFps)} fps</span>
            </span>
            <span className="mt-0.5 block truncate text-[13px]"><span className="figure text-soft">{run.number}</span> {run.label || run.fileName || "run"}</span>
            {run.changes.length > 0 && <span className="mt-0.5 block text-[12px] text-soft">{run.changes.map(({ key, from, to }) => `${key}: ${value(from)} → ${value(to)}`).join("; ")}</span>}
            {(run.source === "tally" || run.cacheState === "cold" || run.crashed) && (
              <span className="mt-0.5 block text-[12px] text-soft">{[run.source === "tally" && "by eye", run.cacheState === "cold" && "cold cache", run.crashed && "crashed"].filter(Boolean).join(", ")}</span>
            )}
            {run.warnings.map((warning) => <span key={warning} className="mt-0.5 flex items-center gap-1 text-[12px] text-caution"><TriangleAlert size={12} aria-hidden />{warning}</span>)}
          </button>
        </li>
      ))}
    </ol>
  );
}

const value = (shown: unknown) => (shown === null ? "not set" : shown === true ? "on" : shown === false ? "off" : String(shown));
