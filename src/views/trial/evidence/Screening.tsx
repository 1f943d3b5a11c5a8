"use client";
import { leadPlan, type ScreeningReading } from "@/core/trial";
import { said, words } from "@/core/words";
import { Button, Keys, Panel } from "@/ui";
import { IntervalLine, percent } from "@/views/compare";
import { useBeginTrial } from "@/views/trial/useBeginTrial";
import type { EvidenceProps } from "./parts";

/** Main effects of a screening, each with its interval on one scale. */
export function Screening({
  reading: { effects, mixed },
  view: { job, trial },
}: EvidenceProps<ScreeningReading>) {
  const { begin, busy } = useBeginTrial(job.id);
  const sorted = [...effects].sort((a, b) => b.logGain - a.logGain);
  const leads = sorted.filter(({ matters, logGain }) => matters && logGain > 0);
  const { marginPercent } = job.rules;
  const tryAlone = ({ key, label }: (typeof effects)[number]) => void begin(leadPlan(trial, key, label));
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
      <Keys
        actions={leads.slice(0, 1).map((lead) => ({
          keys: "a",
          shown: "A",
          label: "try the strongest lead alone",
          run: () => tryAlone(lead),
        }))}
      />
      <ul className="grid gap-3">
        {sorted.map((effect) => {
          const { key, label, logGain, low, high, matters } = effect;
          return (
            <li key={key} className="grid grid-cols-[180px_1fr_130px_110px] items-center gap-3 text-[13px]">
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
              {leads.includes(effect) && (
                <Button
                  hint={effect === leads[0] ? "A" : undefined}
                  disabled={busy}
                  onClick={() => tryAlone(effect)}
                >
                  Try it alone
                </Button>
              )}
            </li>
          );
        })}
      </ul>
      <p className="mt-3 text-[12px] text-soft">
        {words(said("screen.leads", { mixed }))} What helps is a lead: try it alone before it is kept.
      </p>
    </Panel>
  );
}
