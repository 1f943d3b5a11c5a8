import { assumedNoise, reckonedSpread, type NoiseFloor } from "@/core/compare";
import { mean, tQuantile } from "@/core/stats";
import { said, type Said } from "@/core/words";

/** Runs in one power mode (or at one clock option). */
export interface PowerLevel {
  mode: string;
  /** What the mode is named for; null where the maker names none. */
  nominalWatts: number | null;
  /** A run each: average fps, worst-time low, measured watts where logged. */
  runs: { fps: number; low: number | null; watts: number | null }[];
}

export interface PowerRow {
  mode: string;
  nominalWatts: number | null;
  runs: number;
  fps: number;
  fpsLow: number;
  fpsHigh: number;
  worstTimeLow: number | null;
  /** Measured where logged, else nominal, else null. */
  watts: number | null;
  measured: boolean;
  fpsPerWatt: number | null;
  holds: boolean;
  /** No other mode is both faster and thriftier. */
  onFront: boolean;
}

export interface PowerSweep {
  rows: PowerRow[];
  /** Index into rows: least watts that meet the target, else the fastest; null without rows. */
  sweetSpot: number | null;
  reason: Said;
  /** Pairs where more power made it slower, beyond noise. */
  slowerWithMore: { mode: string; than: string; ratio: number; low: number; high: number; sentence: Said }[];
  missing: Said[];
}

/** One mode is faster on no more watts, or as fast on less. */
function beats(fps: number, watts: number | null, otherFps: number, otherWatts: number | null): boolean {
  if (watts === null || otherWatts === null) return false;
  return fps >= otherFps && watts <= otherWatts && (fps > otherFps || watts < otherWatts);
}

/**
 * What each power mode gives for its watts.
 *
 * @param levels   at least one; a mode without runs is left out and named
 * @param targetFps the rate wanted
 * @param noise    how much the rig varies from run to run
 */
export function powerSweep(
  levels: PowerLevel[],
  targetFps: number,
  { tolerance = 0.01, noise = assumedNoise }: { tolerance?: number; noise?: NoiseFloor } = {},
): PowerSweep {
  const missing = levels
    .filter(({ runs }) => runs.length === 0)
    .map(({ mode }) => said("power.noRun", { mode }));
  const held = levels.filter(({ runs }) => runs.length > 0);
  const logs = held.map(({ runs }) => runs.map(({ fps }) => Math.log(fps)));
  const squares = logs
    .flatMap((own) => own.map((value) => (value - mean(own)) ** 2))
    .reduce((sum, value) => sum + value, 0);
  const spread = reckonedSpread(
    squares,
    logs.reduce((sum, own) => sum + own.length - 1, 0),
    noise,
  );
  const t = tQuantile(0.975, spread.freedom);
  const watts = held.map(({ runs, nominalWatts }) => {
    const logged = runs.map((run) => run.watts).filter((value): value is number => value !== null);
    return { watts: logged.length > 0 ? mean(logged) : nominalWatts, measured: logged.length > 0 };
  });
  const rates = logs.map((own) => Math.exp(mean(own)));
  const rows = held.map(({ mode, nominalWatts, runs }, i): PowerRow => {
    const half = t * Math.sqrt(spread.variance / runs.length);
    const lows = runs.map(({ low }) => low).filter((value): value is number => value !== null);
    return {
      mode,
      nominalWatts,
      runs: runs.length,
      fps: rates[i],
      fpsLow: rates[i] * Math.exp(-half),
      fpsHigh: rates[i] * Math.exp(half),
      worstTimeLow: lows.length > 0 ? mean(lows) : null,
      ...watts[i],
      fpsPerWatt: watts[i].watts === null ? null : rates[i] / watts[i].watts,
      holds: rates[i] >= targetFps * (1 - tolerance),
      onFront:
        watts[i].watts !== null &&
        !rates.some((rate, k) => k !== i && beats(rate, watts[k].watts, rates[i], watts[i].watts)),
    };
  });
  if (rows.some(({ measured, watts: known }) => !measured && known !== null)) missing.push(said("power.named"));
  if (rows.some(({ watts: known }) => known === null)) missing.push(said("power.noWatts"));

  const slowerWithMore: PowerSweep["slowerWithMore"] = [];
  rows.forEach((more, i) =>
    rows.forEach((less, k) => {
      const [a, b] = [less.nominalWatts ?? less.watts, more.nominalWatts ?? more.watts];
      if (i === k || a === null || b === null || b <= a) return;
      const log = Math.log(more.fps / less.fps),
        half = t * Math.sqrt(spread.variance * (1 / more.runs + 1 / less.runs));
      if (log + half >= 0) return;
      slowerWithMore.push({
        mode: more.mode,
        than: less.mode,
        ratio: Math.exp(log),
        low: Math.exp(log - half),
        high: Math.exp(log + half),
        sentence: said("power.slower", { mode: more.mode, fps: more.fps, than: less.mode, thanFps: less.fps }),
      });
    }),
  );

  const { at, reason } = sweetSpotOf(rows, targetFps);
  return {
    rows,
    sweetSpot: at,
    reason,
    slowerWithMore: slowerWithMore.sort((a, b) => a.ratio - b.ratio),
    missing,
  };
}

function sweetSpotOf(rows: PowerRow[], targetFps: number): { at: number | null; reason: Said } {
  if (rows.length === 0) return { at: null, reason: said("power.none") };
  const order = rows.map((_, i) => i);
  const holding = order.filter((i) => rows[i].holds);
  const found = (at: number, code: "power.holds" | "power.fastest") => {
    const { mode, watts, fps } = rows[at];
    return { at, reason: said(code, { mode, targetFps, fps, watts }) };
  };
  if (holding.length > 0) {
    const thrifty = holding.sort(
      (a, b) => (rows[a].watts ?? Infinity) - (rows[b].watts ?? Infinity) || rows[b].fps - rows[a].fps,
    );
    return found(thrifty[0], "power.holds");
  }
  return found(order.sort((a, b) => rows[b].fps - rows[a].fps)[0], "power.fastest");
}

/**
 * Hours on a battery: Wh · usable share / mean watts.
 * @param batteryWh null where the rig has none or it isn't known
 * @param elsewhereWatts what the logged watts leave out: the screen, the rest of the device
 * @returns null without a battery or watts
 * @example runtimeHours(45, 30, 1) // → 1.5
 */
export function runtimeHours(
  batteryWh: number | null,
  watts: number | null,
  usable = 0.9,
  elsewhereWatts = 0,
): number | null {
  if (batteryWh === null || watts === null || watts + elsewhereWatts <= 0) return null;
  return (batteryWh * usable) / (watts + elsewhereWatts);
}
