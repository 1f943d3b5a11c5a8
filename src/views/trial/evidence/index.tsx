import dynamic from "next/dynamic";
import type { ComponentType } from "react";
import type { TrialView } from "@/contract";
import type { CompareReading, Reading } from "@/core/trial";
import { words } from "@/core/words";
import type { EvidenceProps } from "./parts";

const Comparison = dynamic(async () => (await import("./Comparison")).ComparisonEvidence);

/** How kinds that have more to show than their advice draw their evidence; each is loaded where it is drawn. */
const drawings: { [Kind in Reading["kind"]]: ComponentType<EvidenceProps<Extract<Reading, { kind: Kind }>>> } =
  {
    compare: Comparison as ComponentType<EvidenceProps<CompareReading>>,
    screen: dynamic(async () => (await import("./Screening")).Screening),
    resolution: dynamic(async () => (await import("./Resolution")).Resolution),
    power: dynamic(async () => (await import("./Power")).Power),
    heat: dynamic(async () => (await import("./Heat")).Heat),
    clocks: dynamic(async () => (await import("./Clocks")).Clocks),
    memory: dynamic(async () => (await import("./Memory")).Memory),
    rate: dynamic(async () => (await import("./Rate")).Rate),
  };

/** The evidence of a trial, below its advice, and what is missing. */
export function TrialEvidence({ view, onAdd }: { view: TrialView; onAdd: (scale: number) => void }) {
  const { reading, outcome } = view;
  const Drawing = reading && (drawings[reading.kind] as ComponentType<EvidenceProps<Reading>> | undefined);
  // A comparison that was decided is shown as it was decided.
  const decided = outcome && outcome.pairs.length > 0 ? outcome : null;
  const lacking = reading && "missing" in reading ? reading.missing : [];
  return (
    <>
      {decided ? (
        <Comparison reading={decided} view={view} />
      ) : (
        Drawing && reading && <Drawing reading={reading} view={view} onAdd={onAdd} />
      )}
      {lacking.length > 0 && (
        <ul
          aria-label="What is missing"
          className="list-disc rounded-md border border-line p-2 pl-6 text-[13px] text-soft"
        >
          {[...new Set(lacking.map(words))].map((sentence) => (
            <li key={sentence}>{sentence}</li>
          ))}
        </ul>
      )}
    </>
  );
}
