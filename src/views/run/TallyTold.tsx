import { summarise, tallyFigures, tallyTrace, type Yardstick } from "@/core/metrics";
import { judge, type HouseRules } from "@/core/verdict";
import { words } from "@/core/words";
import { say } from "@/ui";
import { VerdictLamp } from "@/views/verdict/VerdictLamp";
import type { TallyReading } from "./blocks";

/** What readings come to so far: the light and the average as the kept run will have them. */
export function TallyTold({
  readings,
  yardstick,
  rules,
  arms,
  arm,
}: {
  readings: TallyReading[];
  yardstick: Yardstick;
  rules: HouseRules;
  /** Names of a trial's arms; null outside one. */
  arms: string[] | null;
  /** The arm that runs now. */
  arm: number;
}) {
  const toldOf = (own: TallyReading[]) => {
    if (own.length === 0) return null;
    const trace = tallyTrace(own);
    return {
      figures: tallyFigures(trace, yardstick.targetFps, rules.measuring),
      verdict: judge(summarise(trace, yardstick, rules.measuring), rules),
    };
  };
  const told = toldOf(arms ? readings.filter((reading) => reading.arm === arm) : readings);
  return (
    <div aria-live="polite">
      {told && (
        <>
          <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
            <VerdictLamp grade={told.verdict.grade} between={told.verdict.between} size={36} large ran />
            <p className="figure text-4xl">
              {say.number(told.figures.mean)}
              <span className="ml-2 text-lg text-soft">fps, by eye{arms && `, ${arms[arm]}`}</span>
            </p>
          </div>
          <p className="mt-2 text-soft">
            {told.figures.interval
              ? `95 % between ${say.number(told.figures.interval.low)} and ${say.number(told.figures.interval.high)} fps`
              : "One look says nothing of the spread yet"}
            ; {say.number(told.figures.min)} to {say.number(told.figures.max)};{" "}
            {say.count(told.figures.readings, "reading")}, which tell as much as{" "}
            {say.number(told.figures.effective)} independent ones; at target{" "}
            {say.number(100 * told.figures.atTarget.share, 0)} % of looks (
            {say.number(100 * told.figures.atTarget.low, 0)} to{" "}
            {say.number(100 * told.figures.atTarget.high, 0)} %).
          </p>
          {told.verdict.remarks.map((remark) => (
            <p key={remark.code} className="mt-1 text-[13px] text-soft">
              {words(remark)}
            </p>
          ))}
        </>
      )}
      {arms && (
        <ul className="mt-2 space-y-1 text-[13px] text-soft" aria-label="Each arm so far">
          {arms.map((name, index) => {
            const own = toldOf(readings.filter((reading) => reading.arm === index));
            return (
              <li key={name} className="flex flex-wrap items-center gap-2">
                {name}:{" "}
                {own ? (
                  <>
                    <VerdictLamp grade={own.verdict.grade} between={own.verdict.between} size={14} ran />
                    <span className="figure">
                      {say.number(own.figures.mean)} fps
                      {own.figures.interval &&
                        ` (${say.number(own.figures.interval.low)} to ${say.number(own.figures.interval.high)})`}
                      , {say.count(own.figures.readings, "reading")}
                    </span>
                  </>
                ) : (
                  "none yet"
                )}
              </li>
            );
          })}
          <li>Each stretch with one arm is kept as a run.</li>
        </ul>
      )}
    </div>
  );
}
