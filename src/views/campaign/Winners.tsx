import { clsx } from "clsx";
import { useRef, type KeyboardEvent } from "react";
import type { CampaignView } from "@/core/records";
import { roundStates, titleInPlan } from "@/core/campaign";
import { cellStateWords, titleWords } from "@/core/words";
import { TableFrame, say, Link, Explained } from "@/ui";
import { VerdictLamp } from "@/views/verdict/VerdictLamp";

export interface CellPlace {
  title: number;
  arm: number;
}

const steps: Record<string, [number, number]> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};

/**
 * Titles as rows, arms as columns: the light of each, its rate, and what the row comes to. Arrows move, Enter
 * opens.
 */
export function Winners({
  view,
  cell,
  onCell,
  onOpen,
}: {
  view: CampaignView;
  cell: CellPlace | null;
  onCell: (cell: CellPlace) => void;
  onOpen: (cell: CellPlace) => void;
}) {
  const table = useRef<HTMLTableElement>(null);
  const { arms, titles, answer, facts, campaign } = view;
  const names = arms.map(({ name }) => name);
  // Where the question is what holds, no arm is lit for being the faster.
  const isAsked = campaign.question === "which is best" || campaign.question === "what changed";
  const onKey = (event: KeyboardEvent, row: number, column: number) => {
    const step = steps[event.key];
    if (!step) return;
    event.preventDefault();
    table.current
      ?.querySelector<HTMLButtonElement>(`[data-cell="${row + step[0]} ${column + step[1]}"]`)
      ?.focus();
  };
  return (
    <TableFrame name="Titles by arms">
      <table ref={table} aria-label="Titles by arms" className="w-full text-left text-[13px]">
        <thead className="text-[12px] text-soft">
          <tr>
            <th className="px-2 py-1.5 font-normal">Title</th>
            {names.map((name) => (
              <th key={name} className="px-2 font-normal" dir="auto">
                {name}
              </th>
            ))}
            <th className="px-2 font-normal">
              <Explained by="Over all titles">Over all titles</Explained>
            </th>
          </tr>
        </thead>
        <tbody className="divide-y divide-line">
          {titles.map((title, row) => {
            const own = answer.titles[row];
            if (!own) return null;
            return (
              <tr key={row}>
                <th
                  scope="row"
                  className="max-w-52 min-w-32 px-2 py-2 text-left font-normal [overflow-wrap:anywhere]"
                >
                  <span dir="auto">{title.name}</span>
                  <span className="block text-[12px] text-soft">
                    {title.system}
                    {title.scene && `, ${title.scene}`}
                  </span>
                </th>
                {arms.map((arm, column) => {
                  const of = own.cells[column];
                  const facted = facts.titles[row]?.cells[column];
                  if (!of || !facted) return <td key={arm.name} />;
                  const isBest =
                    isAsked && (own.outcome === "winner" || own.outcome === "tie") && own.best.includes(column);
                  const rounds = facts.rounds + (facts.titles[row]?.extra ?? 0);
                  const done = roundStates(facted, rounds).filter((state) => state !== "open").length;
                  const lacks = facted.lacks,
                    unchecked = title.unchecked[column] ?? [];
                  return (
                    <td key={arm.name} className="p-1 align-top">
                      <button
                        type="button"
                        data-cell={`${row} ${column}`}
                        aria-pressed={cell?.title === row && cell.arm === column}
                        aria-label={`${titleInPlan(title)} with ${arm.name}`}
                        onFocus={() => onCell({ title: row, arm: column })}
                        onClick={() => onCell({ title: row, arm: column })}
                        onDoubleClick={() => onOpen({ title: row, arm: column })}
                        onKeyDown={(event) => {
                          if (event.key === "Enter") {
                            event.preventDefault();
                            onOpen({ title: row, arm: column });
                          } else onKey(event, row, column);
                        }}
                        className={clsx(
                          "min-w-28 rounded-md border px-2 py-1 text-left",
                          isBest ? "border-lit" : "border-transparent",
                          cell?.title === row && cell.arm === column ? "bg-raised" : "hover:bg-raised",
                        )}
                      >
                        <VerdictLamp grade={of.grade} between={of.between} size={16} />
                        <span className="figure block text-[12px] text-soft">
                          {of.averageFps === null ? "" : `${say.number(of.averageFps)} fps, `}
                          {done} of {rounds}
                        </span>
                        {of.places && (
                          <span className="block text-[12px] text-soft">
                            {of.places.hold} of {of.places.of} places hold
                          </span>
                        )}
                        {of.state === "faulted" && (
                          <span className="block text-[12px] text-caution">{cellStateWords.faulted}</span>
                        )}
                        {of.state === "not for it" && (
                          <span className="block text-[12px] text-caution">
                            {lacks.length > 0 ? `lacks: ${lacks.join(", ")}` : cellStateWords["not for it"]}
                          </span>
                        )}
                        {of.state === "untested" && unchecked.length > 0 && (
                          <span className="block text-[12px] text-soft">
                            not checked: {unchecked.join(", ")}
                          </span>
                        )}
                      </button>
                    </td>
                  );
                })}
                <td className="max-w-64 min-w-36 px-2 py-2 align-top">
                  {facts.titles[row]?.pairs === null ? (
                    <span className="text-soft">being compared …</span>
                  ) : (
                    titleWords(own, names, campaign.question)
                  )}
                  {title.coldRuns > 0 && (
                    <span className="block text-[12px] text-soft">
                      {say.count(title.coldRuns, "run")} on a cold cache left aside
                    </span>
                  )}
                  {title.jobs.some(Boolean) && own.cells.some(({ runs }) => runs > 0) && (
                    <span className="block text-[12px]">
                      {[
                        ...new Map(
                          title.jobs.flatMap((job) => (job ? [[job.jobId, job] as const] : [])),
                        ).values(),
                      ].map(({ jobId, trialId }) => (
                        <Link
                          key={jobId}
                          href={trialId ? `/jobs/${jobId}/trials/${trialId}` : `/jobs/${jobId}`}
                          aria-label={`Runs of ${titleInPlan(title)}`}
                          className="mr-2 text-soft underline decoration-line underline-offset-4"
                        >
                          {trialId ? "its runs compared" : "its runs"}
                        </Link>
                      ))}
                    </span>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </TableFrame>
  );
}
