"use client";
import { clsx } from "clsx";
import { TriangleAlert } from "lucide-react";
import { useState } from "react";
import type { FaultRow, JobRow, TrialNode } from "@/core/records";
import type { ThreadRun } from "@/contract";
import { usualLight, armAt, nextArmName } from "@/core/trial";
import { changed, overruledWords, words } from "@/core/words";
import { Button, say, Link } from "@/ui";
import { VerdictLamp } from "@/views/verdict/VerdictLamp";
import { entriesOf } from "./entries";

/** A long story opens at its end; what came before is a press away, and there at once when it is selected. */
const shownAtFirst = 60;

interface Props {
  job: JobRow;
  runs: ThreadRun[];
  trials: TrialNode[];
  faults: FaultRow[];
  selected: string;
  over: string | null;
  /** What the engine calls a setting. */
  labelOf: (key: string) => string;
  onSelect: (id: string) => void;
  onOver: (id: string) => void;
}

/** A job's story as it happened: runs, trials with what they came to, faults, and the close. */
export function Thread({ job, runs, trials, faults, selected, over, labelOf, onSelect, onOver }: Props) {
  const [whole, setWhole] = useState(false);
  const entries = entriesOf(runs, trials);
  const labels = runs.map(({ label }) => label);
  const alike = new Set(labels.filter((label, at) => labels.indexOf(label) !== at));
  const recent = entries.slice(-shownAtFirst);
  const isRecent = recent.some((entry) =>
    "run" in entry ? entry.run.id === selected : entry.runs.some(({ id }) => id === selected),
  );
  const shown = whole || !isRecent ? entries : recent;
  const item = (run: ThreadRun, small: boolean) => (
    <RunItem
      key={run.id}
      run={run}
      alike={alike.has(run.label)}
      small={small}
      selected={run.id === selected}
      over={run.id === over}
      faults={faults.filter(({ runId }) => runId === run.id)}
      labelOf={labelOf}
      onSelect={onSelect}
      onOver={onOver}
    />
  );
  return (
    <ol aria-label="Thread" className="space-y-1 p-2">
      {shown.length < entries.length && (
        <li>
          <Button look="quiet" className="w-full" onClick={() => setWhole(true)}>
            Show the {entries.length - shown.length} before
          </Button>
        </li>
      )}
      {shown.map((entry) =>
        "run" in entry ? (
          item(entry.run, false)
        ) : (
          <li key={entry.trial.id} className="rounded-md border border-line">
            <TrialHead job={job} trial={entry.trial} runs={entry.runs} />
            {entry.runs.length > 0 && (
              <details open={entry.runs.some(({ id }) => id === selected) || undefined}>
                <summary className="min-h-7 cursor-pointer px-2 py-1 text-[12px] text-soft">
                  {say.count(entry.runs.length, "run")}
                </summary>
                <ol className="space-y-0.5 pb-1 pl-1">{entry.runs.map((run) => item(run, true))}</ol>
              </details>
            )}
          </li>
        ),
      )}
      {job.closing && (
        <li className="rounded-md border border-lit p-2 text-[13px]">
          <span className="flex items-center justify-between">
            <b>Closed</b>
            <VerdictLamp grade={job.closing.grade} size={16} />
          </span>
          <span className="block text-soft">
            {job.closing.engine && `${job.closing.engine} ${job.closing.build ?? ""}, `}
            {say.count(job.closing.overrides.length, "override")} kept, {say.count(job.closing.runs, "run")},{" "}
            {job.closing.runningMinutes.toFixed(0)} min of running over {say.count(job.closing.days, "day")}.
          </span>
          {job.closing.note && <span className="block">{job.closing.note}</span>}
        </li>
      )}
    </ol>
  );
}

/** A trial in the story: what was tried, what it came to, before and after. */
function TrialHead({ job, trial, runs }: { job: JobRow; trial: TrialNode; runs: ThreadRun[] }) {
  const lights = (arm: number | null) =>
    usualLight(runs.filter((run) => run.arm === arm).map(({ verdict }) => verdict));
  const [before, after] = [lights(0), lights(trial.keptArm ?? (trial.arms.length > 1 ? 1 : 0))];
  const planned = trial.rounds * trial.arms.length;
  const done = trial.runs.reduce((a, b) => a + b, 0);
  return (
    <Link href={`/jobs/${job.id}/trials/${trial.id}`} className="block px-2 py-1.5 hover:bg-panel">
      <span className="flex items-baseline justify-between gap-2 text-[13px]">
        <b className="truncate">{trial.name}</b>
        <span className={clsx("shrink-0 text-[12px]", trial.choice === "keep" ? "text-lit" : "text-soft")}>
          {trial.decidedAt
            ? trial.choice === "keep"
              ? "kept"
              : trial.arms.length === 1
                ? "noted"
                : "put back"
            : "open"}
        </span>
      </span>
      {trial.decidedAt && trial.kind === "compare" && before.grade && after.grade && (
        <span className="mt-0.5 flex items-center gap-1.5 text-[12px]">
          <VerdictLamp {...before} size={14} />
          {trial.keptArm !== null && before.grade !== after.grade && (
            <>
              → <VerdictLamp {...after} size={14} />
            </>
          )}
        </span>
      )}
      <span className="mt-0.5 line-clamp-3 text-[12px] text-soft">
        {trial.outcome
          ? trial.kind === "compare"
            ? `${trial.keptArm !== null ? `${armAt(trial, trial.keptArm).name}: ` : ""}${words(trial.outcome.headline)}`
            : words(trial.outcome.headline)
          : `${done > planned ? say.count(done, "run") : `${done} of ${planned} runs`}; next: ${nextArmName(trial) ?? "decide"}`}
      </span>
      {trial.mendedSince && (
        <span className="mt-0.5 block text-[12px] text-caution">
          Its runs were changed after it was decided: look again.
        </span>
      )}
      {trial.reason && <span className="mt-0.5 block text-[12px]">“{trial.reason}”</span>}
    </Link>
  );
}

function RunItem({
  run,
  alike,
  small,
  selected,
  over,
  faults,
  labelOf,
  onSelect,
  onOver,
}: {
  run: ThreadRun;
  /** Another run is called the same: its file tells them apart. */
  alike: boolean;
  small: boolean;
  selected: boolean;
  over: boolean;
  faults: FaultRow[];
  labelOf: (key: string) => string;
  onSelect: (id: string) => void;
  onOver: (id: string) => void;
}) {
  return (
    <li
      ref={selected ? (item) => item?.scrollIntoView({ block: "nearest" }) : undefined}
      className={clsx(
        "rounded-md border-l-2",
        selected
          ? "border-lit bg-raised"
          : over
            ? "border-series-b bg-panel"
            : "border-transparent hover:bg-panel",
      )}
    >
      <button
        type="button"
        data-run={run.number}
        aria-current={selected || undefined}
        onClick={(event) => (event.shiftKey ? onOver(run.id) : onSelect(run.id))}
        className={clsx("w-full px-2 text-left", small ? "py-1" : "py-1.5")}
      >
        <span className="flex items-center justify-between gap-2">
          <VerdictLamp grade={run.verdict.grade} between={run.verdict.between} size={small ? 14 : 17} ran />
          <span className="figure text-[13px]">{say.number(run.summary.averageFps)} fps</span>
        </span>
        <span className="mt-0.5 block truncate text-[13px]">
          <span className="figure text-soft">{run.number}</span> {run.label || run.fileName || "run"}
        </span>
        {alike && run.fileName && run.label && (
          <span className="block truncate text-[12px] text-soft">{run.fileName}</span>
        )}
        {!small && run.changes.length > 0 && (
          <span className="mt-0.5 block text-[12px] text-soft">
            {run.changes.map(({ key, from, to }) => changed({ label: labelOf(key), from, to })).join("; ")}
          </span>
        )}
        {(run.source === "tally" ||
          run.source === "capture" ||
          run.cacheState === "cold" ||
          run.crashed ||
          run.overruled) && (
          <span className="mt-0.5 block text-[12px] text-soft">
            {[
              run.overruled && overruledWords(run.overruled),
              run.source === "tally" && (run.fromMemory ? "from memory" : "by eye"),
              run.source === "capture" && "from a video",
              run.cacheState === "cold" && "cold cache",
              run.crashed && "crashed",
            ]
              .filter(Boolean)
              .join(", ")}
          </span>
        )}
        {faults.map((fault) => (
          <span key={fault.id} className="mt-0.5 flex items-center gap-1 text-[12px] text-caution">
            <TriangleAlert size={12} aria-hidden />
            {fault.severity} {fault.kind} fault
          </span>
        ))}
        {run.warnings.map((warning) => (
          <span key={words(warning)} className="mt-0.5 flex items-center gap-1 text-[12px] text-caution">
            <TriangleAlert size={12} aria-hidden />
            {words(warning)}
          </span>
        ))}
      </button>
    </li>
  );
}
