import { said } from "../../codes";
import type { Judged } from "../../facts";
import type { Planned } from "../../shape";
import type { Advised } from "../../kind";
import { recommended } from "../../outcome";
import type { Outcome } from "../../shape";
import type { ScreeningReading } from "./shape";

type Effect = Outcome["effects"][number];

/** The row that has the most of what helps, and nothing beside it: the nearest that was run. */
function nearestRow(trial: Planned, helping: Effect[]): number {
  const isHelping = (key: string) => helping.some((effect) => effect.key === key);
  const scores = trial.arms.map(({ settings }) =>
    trial.plan.keys
      .filter((key) => settings[key] !== trial.before.settings[key])
      .reduce((sum, key) => sum + (isHelping(key) ? 1 : -0.1), 0),
  );
  return scores.indexOf(Math.max(...scores));
}

/** The switches whose intervals lie clear of 0: what helps is kept by the row nearest to it. */
export function advise({ trial, usable }: Judged, reading: ScreeningReading | null): Advised {
  if (!reading) {
    const run = new Set(usable.map(({ arm }) => arm)).size;
    return { ok: false, missing: [said("missing.half", { run, rows: trial.arms.length })] };
  }
  const { effects, mixed } = reading;
  const helping = effects.filter(({ matters, logGain }) => matters && logGain > 0);
  const hurting = effects.filter(({ matters, logGain }) => matters && logGain < 0);
  const sentence = said("screen.effects", {
    helping: helping.map(({ label, logGain, low, high }) => ({
      label,
      pair: { ratio: Math.exp(logGain), low: Math.exp(low), high: Math.exp(high) },
    })),
    hurting: hurting.map(({ label }) => label),
  });
  const arm = helping.length > 0 ? nearestRow(trial, helping) : null;
  return { ok: true, outcome: { ...recommended(arm, sentence, [said("screen.leads", { mixed })]), effects } };
}
