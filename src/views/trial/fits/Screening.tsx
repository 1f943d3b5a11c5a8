"use client";
import type { ScreenReading } from "@/core/trial";
import { Panel } from "@/ui";
import { IntervalLine, percent } from "@/views/compare";
import type { FitProps } from "./parts";

/** Main effects of a screening, each with its interval on one scale. */
export function Screening({ fit: { effects }, view: { job } }: FitProps<ScreenReading>) {
  const { marginPercent } = job.rules;
  const most = Math.max(
    2.5 * marginPercent,
    ...effects.flatMap(({ low, high }) =>
      [low, high].filter(Number.isFinite).map((log) => 115 * Math.abs(Math.exp(log) - 1)),
    ),
  );
  return (
    <Panel
      title="Main effects"
      aside={<span className="text-[12px] text-soft">the other value over the one in force</span>}
    >
      <ul className="grid gap-3">
        {[...effects]
          .sort((a, b) => b.logGain - a.logGain)
          .map(({ key, label, logGain, low, high, matters }) => (
            <li key={key} className="grid grid-cols-[180px_1fr_170px] items-center gap-3 text-[13px]">
              <span className="truncate">{label}</span>
              <IntervalLine
                effect={{ ratio: Math.exp(logGain), low: Math.exp(low), high: Math.exp(high) }}
                marginPercent={marginPercent}
                most={most}
              />
              <span className="figure text-right">
                {percent(Math.exp(logGain))}{" "}
                {matters ? (
                  logGain > 0 ? (
                    <b>helps</b>
                  ) : (
                    <b>hurts</b>
                  )
                ) : (
                  <span className="text-soft">inside the noise</span>
                )}
              </span>
            </li>
          ))}
      </ul>
      <p className="mt-3 text-[12px] text-soft">
        Main effects only: how switches act on one another isn&apos;t seen. Keep what helps, then confirm it as
        one trial.
      </p>
    </Panel>
  );
}
