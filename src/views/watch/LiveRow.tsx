"use client";
import { clsx } from "clsx";
import type { LiveRun } from "@/core/records";
import { say } from "@/ui";
import { channelNote } from "./channelNote";
import { useWatched } from "./useWatched";

/** A run that grows, in one line. */
export function LiveRow({
  run,
  isChosen,
  onChoose,
}: {
  run: LiveRun;
  isChosen: boolean;
  onChoose: () => void;
}) {
  const watching = useWatched(run);
  const last = watching?.now.last;
  return (
    <li>
      <button
        type="button"
        aria-pressed={isChosen}
        onClick={onChoose}
        className={clsx(
          "grid w-full grid-cols-[7rem_1fr_auto] items-baseline gap-3 rounded-md border px-3 py-2 text-left hover:bg-raised",
          isChosen ? "border-lit" : "border-line",
        )}
      >
        <span className="figure text-2xl whitespace-nowrap">
          {last?.averageFps == null ? "…" : say.number(last.averageFps, 1)}
          <span className="ml-1 text-[12px] text-soft">fps</span>
        </span>
        <span className="min-w-0 truncate" dir="auto">
          {run.title} <span className="text-soft">on {run.rig}</span>
        </span>
        <span className="figure text-[13px] text-soft">
          {watching &&
            [say.clock(watching.now.whole.durationMs), ...channelNote(watching.now.newest)].join(", ")}
        </span>
      </button>
    </li>
  );
}
