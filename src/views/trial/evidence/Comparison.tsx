"use client";
import { armAt } from "@/core/trial";
import type { CompareReading } from "@/core/trial";
import { words } from "@/core/words";
import { Panel } from "@/ui";
import { EffectList, IntervalLine, decisionNames, furtherWords, noiseWords } from "@/views/compare";
import type { EvidenceProps } from "./parts";

/** Every pair of arms with its interval against the practical margin. */
export function ComparisonEvidence({
  reading: { pairs, notes },
  view: { trial, job, noise, noiseMeasured },
}: EvidenceProps<Pick<CompareReading, "pairs" | "notes">>) {
  return (
    <Panel
      title="Was it real?"
      aside={<span className="text-[12px] text-soft">{noiseWords(noise, noiseMeasured)}</span>}
    >
      <div className="grid gap-4">
        {pairs.map((pair) => (
          <section
            key={`${pair.a} ${pair.b}`}
            aria-label={`${armAt(trial, pair.b).name} over ${armAt(trial, pair.a).name}`}
          >
            <p className="text-[14px]">
              <b>{decisionNames[pair.decision]}</b>: {armAt(trial, pair.b).name} over{" "}
              {armAt(trial, pair.a).name}
              {pair.decision === "undecided" && pair.moreRunsPerSide > 0 && (
                <span className="text-soft">; {furtherWords(pair)}</span>
              )}
            </p>
            <IntervalLine effect={pair} marginPercent={job.rules.marginPercent} />
            {pairs.length === 1 && (
              <div className="mt-1 text-[13px]">
                <EffectList effect={pair} />
              </div>
            )}
          </section>
        ))}
      </div>
      <ul className="mt-2 list-disc pl-4 text-[12px] text-soft">
        {notes.map((note) => (
          <li key={note.code}>{words(note)}</li>
        ))}
      </ul>
    </Panel>
  );
}
