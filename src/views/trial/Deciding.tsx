import type { TrialView } from "@/contract";
import { armAt, usualGrade } from "@/core/trial";
import { effectWords, said, words } from "@/core/words";
import { Panel, say } from "@/ui";
import { VerdictLamp } from "@/views/verdict/VerdictLamp";
import { decisionNames } from "@/views/compare/Effects";

/** Kinds whose runs push a device towards its limits. */
const pushing = new Set(["heat", "clocks", "power"]);

/**
 * What a decision rests on, in sight of the buttons that make it: lights, pairs, crashes, and the cautions that
 * apply.
 */
export function Deciding({
  view: { trial, evidence, outcome },
}: {
  view: Pick<TrialView, "trial" | "evidence" | "outcome">;
}) {
  const arms = evidence.filter(({ runs }) => runs > 0);
  if (arms.length === 0) return null;
  const cautions = pushing.has(trial.kind) ? [said("caution.heat"), said("caution.limit")] : [];
  return (
    <Panel title="What decides">
      <ul aria-label="Light of each arm" className="space-y-1.5 text-[13px]">
        {arms.map(({ name, runs, grades, between, faulted, crashes }) => (
          <li key={name} className="flex flex-wrap items-center justify-between gap-x-3">
            <span className="min-w-0 [overflow-wrap:anywhere]">{name}</span>
            <span className="flex items-center gap-2">
              <VerdictLamp grade={usualGrade(grades)} between={between} size={15} ran />
              <span className="figure whitespace-nowrap text-[12px] text-soft">{say.count(runs, "run")}</span>
            </span>
            {(faulted || crashes > 0) && (
              <span className="basis-full text-[12px] text-caution">
                {[crashes > 0 && say.count(crashes, "crash", "crashes"), faulted && "held down by faults"]
                  .filter(Boolean)
                  .join(", ")}
              </span>
            )}
          </li>
        ))}
      </ul>
      {outcome && outcome.pairs.length > 0 && (
        <ul aria-label="Pairs" className="mt-3 space-y-1.5 border-t border-line pt-2 text-[13px]">
          {outcome.pairs.map((pair) => (
            <li key={`${pair.a} ${pair.b}`}>
              <b>{decisionNames[pair.decision]}</b>: {armAt(trial, pair.b).name} over{" "}
              {armAt(trial, pair.a).name}, <span className="figure">{effectWords(pair)}</span>
            </li>
          ))}
        </ul>
      )}
      {cautions.map((caution) => (
        <p key={caution.code} className="mt-2 text-[12px] text-caution">
          {words(caution)}
        </p>
      ))}
    </Panel>
  );
}
