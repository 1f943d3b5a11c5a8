import { TriangleAlert } from "lucide-react";
import type { LogProblem, ReadOptions } from "@/core/trace";
import { logWords } from "@/core/words";
import { Button } from "@/ui";
import { ColumnTable } from "./ColumnTable";

/** A log that can't be read as it is: why, and what can be done about it here. */
export function Refused({
  problem,
  name,
  onAgain,
  onCorrect,
  onAway,
}: {
  problem: LogProblem;
  /** The file's. */
  name: string;
  onAgain: (changed: ReadOptions) => void;
  onCorrect: (map: NonNullable<ReadOptions["map"]>) => void;
  onAway: () => void;
}) {
  return (
    <div role="alert" className="grid gap-3 rounded-md border border-caution p-4">
      <p className="flex gap-2">
        <TriangleAlert size={18} className="mt-0.5 shrink-0 text-caution" aria-hidden />
        <span>
          <b className="[overflow-wrap:anywhere]">{name}:</b> <b>{logWords(problem.reason)}</b>{" "}
          {logWords(problem.remedy)}
        </span>
      </p>
      <div className="flex flex-wrap gap-2">
        {(problem.code === "badTimes" || problem.code === "backwards") && (
          <Button look="lit" onClick={() => onAgain({ leaveOutBad: true })}>
            Leave {problem.count === 1 ? "that row" : `those ${problem.count} rows`} out
          </Button>
        )}
        {problem.code === "glued" &&
          [
            ...Array.from({ length: Math.min(9, problem.count + 1) }, (_, index) => index + 1),
            "all" as const,
          ].map((part) => (
            <Button key={part} onClick={() => onAgain({ part })}>
              {part === "all" ? "Read all as one" : `Read log ${part}`}
            </Button>
          ))}
        <Button look="quiet" onClick={onAway}>
          Put it away
        </Button>
      </div>
      {problem.columns.length > 0 && (
        <ColumnTable columns={problem.columns} sample={problem.sample} onCorrect={onCorrect} />
      )}
    </div>
  );
}
