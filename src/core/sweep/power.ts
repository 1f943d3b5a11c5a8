import type { PowerRow, PowerSweep } from "./shape";
import { assumedNoise, holm, pooledSpread, type NoiseFloor } from "@/core/compare";
import { mean, tQuantile, tTwoSided } from "@/core/stats";
import type { Grade } from "@/core/verdict";
import { said } from "./codes";
import type { Said } from "@/core/said";

/** Runs in one power mode (or at one clock option). */
export interface PowerLevel {
  mode: string;
  /** What the mode is named for; null where the maker names none. */
  nominalWatts: number | null;
  /** A run each: average fps, worst-time low, measured watts where logged, and its light where it has one. */
  runs: { fps: number; low: number | null; watts: number | null; light?: Grade | null }[];
}

const isUnder = (light: Grade) => light === "dims" || light === "gutters" || light === "dark";

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
  {
    tolerance = 0.01,
    noise = assumedNoise,
    marginPercent = 2,
  }: { tolerance?: number; noise?: NoiseFloor; marginPercent?: number } = {},
): PowerSweep {
  const missing = levels
    .filter(({ runs }) => runs.length === 0)
    .map(({ mode }) => said("power.noRun", { mode }));
  const held = levels.filter(({ runs }) => runs.length > 0);
  const logs = held.map(({ runs }) => runs.map(({ fps }) => Math.log(fps)));
  const squares = logs
    .flatMap((own) => own.map((value) => (value - mean(own)) ** 2))
    .reduce((sum, value) => sum + value, 0);
  const spread = pooledSpread(
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
      // An average that holds over runs that dim isn't held.
      holds: rates[i] >= targetFps * (1 - tolerance) && runs.every(({ light }) => !light || !isUnder(light)),
      flickers: runs.some(({ light }) => light === "flickers"),
      onFront:
        watts[i].watts !== null &&
        !rates.some((rate, k) => k !== i && beats(rate, watts[k].watts, rates[i], watts[i].watts)),
    };
  });
  if (rows.some(({ measured, watts: known }) => !measured && known !== null)) missing.push(said("power.named"));
  if (rows.some(({ watts: known }) => known === null)) missing.push(said("power.noWatts"));

  const looks = rows.flatMap((more) =>
    rows.flatMap((less) => {
      const [a, b] = [less.nominalWatts ?? less.watts, more.nominalWatts ?? more.watts];
      if (more === less || a === null || b === null || b <= a) return [];
      const log = Math.log(more.fps / less.fps),
        error = Math.sqrt(spread.variance * (1 / more.runs + 1 / less.runs));
      return [{ more, less, log, error, p: tTwoSided(log / error, spread.freedom) }];
    }),
  );
  // Many pairs are looked at: only what outlasts the correction is said.
  const corrected = holm(looks.map(({ p }) => p));
  const slowerWithMore = looks
    .filter(({ log }, i) => log < 0 && corrected[i] < 0.05)
    .map(({ more, less, log, error }) => ({
      mode: more.mode,
      than: less.mode,
      ratio: Math.exp(log),
      low: Math.exp(log - t * error),
      high: Math.exp(log + t * error),
      sentence: said("power.slower", { mode: more.mode, fps: more.fps, than: less.mode, thanFps: less.fps }),
    }));

  const { at, reason } = sweetSpotOf(rows, targetFps, Math.log(1 + marginPercent / 100), spread.variance);
  return {
    rows,
    sweetSpot: at,
    reason,
    slowerWithMore: slowerWithMore.sort((a, b) => a.ratio - b.ratio),
    missing,
  };
}

/** A mode this many errors behind the fastest may be as fast. */
const tiedWithin = 2;
/** One that is further behind, as a log ratio, isn't taken for as fast, however few runs there are. */
const mostBehind = 0.05;

/**
 * Least watts of what holds the target; where nothing does, of what is as fast as the fastest within the margin
 * or the noise.
 */
function sweetSpotOf(
  rows: PowerRow[],
  targetFps: number,
  margin: number,
  variance: number,
): { at: number | null; reason: Said } {
  if (rows.length === 0) return { at: null, reason: said("power.none") };
  const order = rows.map((_, i) => i);
  const holding = order.filter((i) => rows[i].holds);
  const found = (at: number, code: "power.holds" | "power.fastest" | "power.asFast") => {
    const { mode, watts, fps, flickers } = rows[at];
    return { at, reason: said(code, { mode, targetFps, fps, watts, flickers }) };
  };
  const thriftiest = (among: number[]) =>
    among.sort(
      (a, b) => (rows[a].watts ?? Infinity) - (rows[b].watts ?? Infinity) || rows[b].fps - rows[a].fps,
    )[0];
  if (holding.length > 0) return found(thriftiest(holding), "power.holds");
  const fastest = order.reduce((a, b) => (rows[b].fps > rows[a].fps ? b : a));
  const behind = (i: number) => Math.log(rows[fastest].fps / rows[i].fps);
  const isTied = (i: number) => {
    const error = Math.sqrt(variance * (1 / rows[i].runs + 1 / rows[fastest].runs));
    return behind(i) <= Math.max(margin, i === fastest ? 0 : tiedWithin * error);
  };
  const tied = order.filter(isTied);
  const at = rows[fastest].watts === null ? fastest : thriftiest(tied.filter((i) => behind(i) <= mostBehind));
  if (at !== fastest) return found(at, "power.asFast");
  // One that is further behind may be as fast all the same: too few runs tell.
  const open = tied.filter(
    (i) => behind(i) > mostBehind && (rows[i].watts ?? Infinity) < (rows[at].watts ?? 0),
  );
  const first = open.length > 0 ? thriftiest(open) : null;
  if (first === null) return found(at, "power.fastest");
  const { mode, fps, watts } = rows[at];
  const other = { mode: rows[first].mode, fps: rows[first].fps, watts: rows[first].watts };
  return {
    at,
    reason: said("power.mayBeAsFast", { mode, targetFps, fps, watts, other, runs: rows[first].runs }),
  };
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
