import type { HeatRow, HeatReading } from "./shape";
import { burstAndSustained, coolDownMinutes, fitHeat, limitOutlook, throttling } from "@/core/sweep";
import { thinned } from "@/core/stats";
import { said } from "../../codes";
import type { Said } from "@/core/said";
import type { TrialFacts, TrialRun, Traces } from "../../facts";
import { channelIn, drawnPoints, meanOf } from "../../sweeping";

/** Share of the way to where it settles under which that is a guess. */
const farEnough = 0.65;
/** Sustained rates this near to the best can't be told from it. */
const asFast = 0.98;

function rowOf(run: TrialRun, traces: Traces, limitC: number | null): HeatRow | null {
  const trace = traces.get(run.id);
  const warmth = channelIn(trace, "temperature", "gpuTemperature");
  if (!trace || !warmth) return null;
  const points = thinned(warmth.times, warmth.values, drawnPoints);
  const fit = fitHeat(warmth.times, warmth.values, channelIn(trace, "watts"));
  const rates = burstAndSustained(trace);
  const ranSeconds = (warmth.times[warmth.times.length - 1] ?? 0) / 1000;
  const last = warmth.values[warmth.values.length - 1] ?? 0;
  return {
    run: run.number,
    arm: run.arm,
    points: { seconds: [...points.times.map((ms) => ms / 1000)], celsius: [...points.values] },
    fit,
    outlook: fit && limitC !== null ? limitOutlook(fit, limitC, ranSeconds) : null,
    throttles: throttling(trace.channels, limitC),
    burst: rates?.burst ?? null,
    sustained: rates?.sustained ?? null,
    coolDownMinutes: fit ? coolDownMinutes(fit.startC, last, fit.settleSeconds) : null,
    hottestC: warmth.values.reduce((most, value) => Math.max(most, value), -Infinity),
  };
}

interface Arm {
  arm: number;
  own: HeatRow[];
  sustained: number | null;
  hottestC: number;
}

/** The arm that sustains the most; of those that can't be told apart the coolest. */
function bestOf(byArm: Arm[]): Arm | null {
  const rated = byArm.flatMap((each) => (each.sustained === null ? [] : [{ ...each, rate: each.sustained }]));
  const most = Math.max(...rated.map(({ rate }) => rate));
  const fast = rated.filter(({ rate }) => rate > most * asFast);
  return fast.sort((a, b) => a.hottestC - b.hottestC)[0] ?? null;
}

export function read({ trial, runs, rig }: TrialFacts, traces: Traces): HeatReading | null {
  if (runs.length === 0) return null;
  const limitC = rig.spec.temperatureLimitC;
  const missing: Said[] = limitC === null ? [said("heat.noLimit")] : [];
  const rows = runs.flatMap((run) => {
    const row = rowOf(run, traces, limitC);
    if (!row) missing.push(said("heat.noTemperature", { run: run.number }));
    return row ?? [];
  });
  if (rows.some(({ fit, burst }) => (fit && fit.reached < farEnough) || burst === null))
    missing.push(said("heat.short"));
  const byArm = trial.arms.flatMap((_, arm): Arm[] => {
    const own = rows.filter((row) => row.arm === arm);
    if (own.length === 0) return [];
    const sustained = meanOf(own.flatMap((row) => row.sustained ?? []));
    return [{ arm, own, sustained, hottestC: Math.max(...own.map(({ hottestC }) => hottestC)) }];
  });
  const best = bestOf(byArm);
  return {
    kind: "heat",
    rows,
    limitC,
    missing,
    arm: best && byArm.length > 1 ? best.arm : null,
    sentence: sentenceOf(byArm, best, limitC, (arm) => trial.arms[arm]?.name ?? "", trial.arms.length),
  };
}

function sentenceOf(
  byArm: Arm[],
  best: Arm | null,
  limitC: number | null,
  nameOf: (arm: number) => string,
  arms: number,
): Said {
  const told = best ?? byArm[0];
  const row = told?.own[0];
  if (!told || !row) return said("heat.runFirst");
  const [throttle] = row.throttles;
  const settled = throttle ? null : row.fit;
  const others = byArm
    .filter(({ arm }) => arm !== told.arm)
    .flatMap(({ arm, own }) => {
      const [first] = own.filter(({ throttles }) => throttles.length > 0);
      const [from] = first?.throttles ?? [];
      if (!first || !from) return [];
      const deepest = Math.min(...first.throttles.map((each) => each.deepest));
      return [{ arm: nameOf(arm), afterMs: from.startMs, deepest }];
    });
  return said("heat.found", {
    arm: arms > 1 ? nameOf(told.arm) : null,
    settlesC: settled?.settledC ?? null,
    interval: settled?.settledInterval ?? null,
    hottestC: row.hottestC,
    limitC,
    throttled: throttle ? { half: throttle.half, afterMs: throttle.startMs } : null,
    outlook: row.outlook,
    burst: row.burst,
    sustained: row.sustained,
    coolDownMinutes: row.coolDownMinutes,
    others,
  });
}
