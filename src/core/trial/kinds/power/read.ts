import type { PowerReading } from "./shape";
import { effectiveFps } from "@/core/compare";
import { powerSweep, runtimeHours } from "@/core/sweep";
import { said } from "../../codes";
import { targetFpsOf, type TrialFacts } from "../../facts";

/** Share of a battery that a device lets be used; the product's own reckoning. */
const usableBattery = 0.9;

export function read(facts: TrialFacts): PowerReading | null {
  const { trial, runs, nativeFps, rig, noise } = facts;
  if (runs.length === 0) return null;
  const elsewhereWatts = trial.plan.elsewhereWatts ?? 0;
  const levels = trial.arms.map(({ name, level }, arm) => ({
    mode: name,
    nominalWatts: level,
    runs: runs
      .filter((run) => run.arm === arm && !run.crashed)
      .map(({ summary, verdict }) => ({
        light: verdict.grade,
        fps: effectiveFps(summary, nativeFps),
        low: summary.lows?.worstTime.one ?? null,
        watts: summary.channels.watts?.mean ?? null,
      })),
  }));
  const sweep = powerSweep(levels, targetFpsOf(facts), { noise });
  const hours = sweep.rows.map(({ watts }) =>
    runtimeHours(rig.spec.batteryWh, watts, usableBattery, elsewhereWatts),
  );
  const missing = [...sweep.missing, ...(rig.spec.batteryWh === null ? [said("power.noBattery")] : [])];
  const spot = sweep.sweetSpot === null ? null : (sweep.rows[sweep.sweetSpot] ?? null);
  const common = { kind: "power" as const, sweep, hours, elsewhereWatts, missing };
  if (!spot) return { ...common, arm: null, sentence: said("power.runFirst") };
  const sentence = said("power.spot", {
    spot: sweep.reason,
    slower: sweep.slowerWithMore.find(({ than }) => than === spot.mode)?.sentence ?? null,
    hours: hours[sweep.sweetSpot ?? 0] ?? null,
  });
  const arm = sweep.rows.length > 1 ? trial.arms.findIndex(({ name }) => name === spot.mode) : null;
  return { ...common, arm, sentence };
}
