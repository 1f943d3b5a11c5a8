"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { toast } from "sonner";
import { call } from "@/contract";
import { leadPlan, type ScreenReading } from "@/core/trial";
import { said, words } from "@/core/words";
import { Button, Keys, Panel } from "@/ui";
import { IntervalLine, percent } from "@/views/compare";
import type { FitProps } from "./parts";

/** Main effects of a screening, each with its interval on one scale. */
export function Screening({ fit: { effects, mixed }, view: { job, trial } }: FitProps<ScreenReading>) {
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const sorted = [...effects].sort((a, b) => b.logGain - a.logGain);
  const leads = sorted.filter(({ matters, logGain }) => matters && logGain > 0);
  const confirm = async ({ key, label }: (typeof effects)[number]) => {
    if (busy) return;
    setBusy(true);
    const sent = await call("addTrial", { body: { ...leadPlan(trial, key, label), jobId: job.id } });
    setBusy(false);
    if (sent.ok) router.push(`/jobs/${job.id}/trials/${sent.answer.id}`);
    else toast.error(sent.refusal.title, { description: sent.refusal.fix });
  };
  const { marginPercent } = job.rules;
  const tryAlone = async (place: number) => {
    const lead = leads[place];
    if (lead) await confirm(lead);
  };
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
      {leads.length > 0 && (
        <Keys
          actions={[
            { keys: "a", shown: "A", label: "try the strongest lead alone", run: () => void tryAlone(0) },
          ]}
        />
      )}
      <ul className="grid gap-3">
        {sorted
          .map((effect) => ({ ...effect, place: leads.indexOf(effect) }))
          .map(({ key, label, logGain, low, high, matters, place }) => (
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
              {place >= 0 && (
                <Button
                  hint={place === 0 ? "A" : undefined}
                  disabled={busy}
                  onClick={() => void tryAlone(place)}
                >
                  Try it alone
                </Button>
              )}
            </li>
          ))}
      </ul>
      <p className="mt-3 text-[12px] text-soft">
        {words(said("screen.leads", { mixed }))} What helps is a lead: try it alone before it is kept.
      </p>
    </Panel>
  );
}
