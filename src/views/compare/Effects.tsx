import type { PairEffect } from "@/core/trial";
import { said, words } from "@/core/words";
import type { Decision } from "@/core/compare";

const signed = (value: number, digits = 1) => `${value < 0 ? "−" : "+"}${Math.abs(value).toFixed(digits)}`;
export const percent = (ratio: number) => `${signed(100 * (ratio - 1))} %`;
export const decisionNames: Record<Decision, string> = {
  better: "Better",
  worse: "Worse",
  "no difference": "No difference",
  undecided: "Undecided",
};

/** What further runs would do for an undecided pair. */
export const furtherWords = ({ moreRunsPerSide: more, chanceSettled: chance = 0, steps }: PairEffect) =>
  words(said("compare.further", { steps: steps ?? [{ more, chance }] }));

/** All effects of one pair, with their intervals. */
export function EffectList({ effect }: { effect: PairEffect }) {
  const { by, worstTimeLow, fullSpeedTime, hitchesPerMinute } = effect;
  const row = (name: string, text: string) => (
    <div className="contents">
      <dt className="text-soft">{name}</dt>
      <dd className="figure">{text}</dd>
    </div>
  );
  const ratio = ({ ratio: at, low, high }: { ratio: number; low: number; high: number }) =>
    `${percent(at)}, 95 % ${percent(low)} to ${percent(high)}`;
  return (
    <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1">
      {row(by === "frames" ? "Average fps" : "Speed by the engine's report", ratio(effect))}
      {worstTimeLow && row("1 % low, worst time", ratio(worstTimeLow))}
      {fullSpeedTime &&
        row(
          by === "frames" ? "Full-speed time" : "Full-speed time by the report",
          `${signed(fullSpeedTime.difference)} points, 95 % ${signed(fullSpeedTime.low)} to ${signed(fullSpeedTime.high)}`,
        )}
      {hitchesPerMinute &&
        row(
          "Hitches",
          `${signed(hitchesPerMinute.difference)} /min, 95 % ${signed(hitchesPerMinute.low)} to ${signed(hitchesPerMinute.high)}`,
        )}
    </dl>
  );
}

/** The interval against the practical margin: inside the dotted marks a difference isn't worth having. */
export function IntervalLine({
  effect,
  marginPercent,
  most: given,
}: {
  effect: { ratio: number; low: number; high: number };
  marginPercent: number;
  most?: number;
}) {
  const most =
    given ??
    Math.max(2.5 * marginPercent, ...[effect.low, effect.high].map((ratio) => 115 * Math.abs(ratio - 1)));
  const x = (value: number) => 150 + (150 * Math.max(-most, Math.min(most, value))) / most;
  const [low, at, high] = [effect.low, effect.ratio, effect.high].map((ratio) => x(100 * (ratio - 1)));
  const far = marginPercent / most > 0.12;
  return (
    <svg
      viewBox="0 0 300 34"
      className="w-full max-w-lg"
      role="img"
      aria-label={`${percent(effect.low)} to ${percent(effect.high)}, margin ${marginPercent} %`}
    >
      <line x1="0" x2="300" y1="14" y2="14" stroke="var(--line)" />
      <line x1="150" x2="150" y1="5" y2="23" stroke="var(--edge)" />
      {[-1, 1].map((side) => (
        <line
          key={side}
          x1={x(side * marginPercent)}
          x2={x(side * marginPercent)}
          y1="5"
          y2="23"
          stroke="var(--edge)"
          strokeDasharray="2 2"
        />
      ))}
      <line x1={low} x2={high} y1="14" y2="14" stroke="var(--series-a)" strokeWidth="4" strokeLinecap="round" />
      <circle cx={at} cy="14" r="4.5" fill="var(--text)" />
      <text x="150" y="32" textAnchor="middle" fontSize="8" fill="var(--soft)">
        0
      </text>
      {far && (
        <text x={x(marginPercent)} y="32" textAnchor="middle" fontSize="8" fill="var(--soft)">
          +{marginPercent} %
        </text>
      )}
      {far && (
        <text x={x(-marginPercent)} y="32" textAnchor="middle" fontSize="8" fill="var(--soft)">
          −{marginPercent} %
        </text>
      )}
      <text x="300" y="32" textAnchor="end" fontSize="8" fill="var(--soft)">
        +{most.toFixed(0)} %
      </text>
      <text x="0" y="32" fontSize="8" fill="var(--soft)">
        −{most.toFixed(0)} %
      </text>
    </svg>
  );
}
