import type { Half } from "./codes";
import type { Segment } from "@/core/metrics";
import { evidence } from "./sign";
import type { Evidence } from "./shape";

/** What is known of the rig a run was made on; null where nobody wrote it down. */
export interface Limits {
  /** What the title is said to need, MB; null or absent where nobody said. */
  neededMb?: number | null;
  temperatureC: number | null;
  memoryMb: number | null;
  modeWatts: number | null;
  /** Full clocks: the rig's own, or the highest seen on it. */
  processorMhz: number | null;
  graphicsMhz: number | null;
  refreshHz: number;
}

/** What the whole run says of a stretch: clocks that were higher earlier, and how far it has warmed since. */
export interface RunSoFar {
  /** Its stretches are of different work. */
  otherWork: boolean;
  /** Highest clocks of the run, MHz. */
  most: Record<Half, number | null>;
  /** °C from the run's coolest to its warmest; null without readings. */
  warmedC: number | null;
}

export const nearLimitC = 3;
/** Share of the full clock under which a busy half is short of it. */
const lowClock = 0.87;
/** A clock this low under load needs no reading of heat or watts to be odd. */
const clearlyLow = 0.7;
/** Share of the full clock from which nothing is taken from it. */
const fullClock = 0.95;
/** °C that a device must have warmed for clocks to have been taken back by it. */
const warmedEnoughC = 5;
/** Whole-processor load from which a processor at a low clock isn't one that rests, in percent. */
const worksFrom = 30;

/** Clocks as shares of full ones; null where not known. */
export function clockShares(
  { cpuClock, gpuClock }: Pick<Segment["means"], "cpuClock" | "gpuClock">,
  { processorMhz, graphicsMhz }: Pick<Limits, "processorMhz" | "graphicsMhz">,
): Record<Half, number | null> {
  const share = (mhz: number | undefined, full: number | null) =>
    mhz === undefined || full === null ? null : mhz / full;
  return { processor: share(cpuClock, processorMhz), graphics: share(gpuClock, graphicsMhz) };
}

/** A half as a slow stretch shows it. */
export interface HalfSeen {
  /** Percent; null where it wasn't logged. */
  load: number | null;
  /** Whether it is full; false where its load isn't known. */
  isFull: boolean;
  /** Whether its work would hold the target at its full clock; false where load or clock isn't known. */
  wouldHold: boolean;
}

/** What a stretch and the rig say that could take a clock away. */
interface Takers {
  celsius: number | null;
  /** At the limit of heat, °C; null where it isn't, or isn't known. */
  hotC: number | null;
  watts: number | null;
  modeWatts: number | null;
  /** Whether it draws what its mode allows; null where that isn't known. */
  atBudget: boolean | null;
}

function takersOf({ temperature, watts }: Segment["means"], { temperatureC, modeWatts }: Limits): Takers {
  const isHot = temperatureC !== null && temperature !== undefined && temperature >= temperatureC - nearLimitC;
  return {
    celsius: temperature ?? null,
    hotC: isHot ? temperature : null,
    watts: watts ?? null,
    modeWatts,
    atBudget: watts === undefined || modeWatts === null ? null : watts >= 0.93 * modeWatts,
  };
}

/**
 * Signs of clocks that are short of what they could be: taken back by heat, by the budget, or left low. What
 * wasn't logged makes a sign weaker, not silent: each explanation that the readings leave open is named with
 * what speaks for it.
 */
export function clockEvidence(
  means: Segment["means"],
  limits: Limits,
  seen: Record<Half, HalfSeen>,
  { most, warmedC }: RunSoFar,
): Evidence[] {
  const made: Evidence[] = [];
  const clocks = clockShares(means, limits);
  const full = { processor: limits.processorMhz, graphics: limits.graphicsMhz };
  const takers = takersOf(means, limits);
  const anyUnclocked = (["processor", "graphics"] as const).some(
    (half) => seen[half].isFull && clocks[half] === null,
  );
  if (takers.hotC !== null && limits.temperatureC !== null)
    made.push(
      evidence(
        "heat",
        "sign.hot",
        { celsius: takers.hotC, limitC: limits.temperatureC },
        anyUnclocked ? unclockedHot : undefined,
      ),
    );
  for (const [half, otherHalf] of [
    ["processor", "graphics"],
    ["graphics", "processor"],
  ] as const) {
    const { load, isFull, wouldHold } = seen[half];
    const clock = clocks[half],
      other = clocks[otherHalf];
    const earlier = (most[half] ?? 0) / (full[half] ?? Infinity);
    if (isFull && clock === null) {
      if (takers.atBudget && takers.modeWatts !== null)
        made.push(
          evidence(
            "power split",
            "sign.atBudget",
            { half, watts: takers.modeWatts },
            other === null ? 2 : other >= fullClock ? 2.6 : 1.2,
          ),
        );
      continue;
    }
    if (clock === null) continue;
    if (isFull && (clock < lowClock || (wouldHold && clock < 0.97)))
      made.push(...whyLow(half, clock, other, earlier, takers, warmedC));
    else if (load === null && clock < lowClock)
      made.push(...whyLowUnseen(half, clock, other, takers, means.cpu ?? null, seen[otherHalf].isFull));
  }
  return made;
}

/** Weight of heat at its limit beside a busy half whose clock wasn't logged: as the busy half and a little. */
const unclockedHot = 2.2;
/** Weight of a low clock where heat or watts, which could explain it, weren't logged. */
const unexplained = 2;

/** What keeps a full half under its full clock. */
function whyLow(
  half: Half,
  clock: number,
  other: number | null,
  earlier: number,
  { celsius, hotC, watts, modeWatts, atBudget }: Takers,
  warmedC: number | null,
): Evidence[] {
  const notWork = evidence(half, "sign.clockNotWork", undefined);
  if (hotC !== null) return [evidence("heat", "sign.clockAtLimit", { half, clock, celsius: hotC })];
  if (atBudget && modeWatts !== null) {
    if (other === null)
      return [
        evidence("power split", "sign.budgetSplit", { half, clock, other, watts: modeWatts }, 2.8),
        notWork,
      ];
    return other - clock > 0.1
      ? [evidence("power split", "sign.budgetSplit", { half, clock, other, watts: modeWatts })]
      : [];
  }
  // A governor leaves a clock low from the start; one that was higher earlier, in a device that has warmed
  // since, was taken back.
  const fell = earlier >= 0.9 && clock < 0.93 * earlier;
  if (fell && warmedC !== null && warmedC >= warmedEnoughC && celsius !== null)
    return [evidence("heat", "sign.clockTakenBack", { half, clock, earlier, celsius, warmedC }), notWork];
  if (fell && celsius === null)
    return [
      evidence(
        "heat",
        "sign.clockTakenBack",
        { half, clock, earlier, celsius, warmedC: null },
        atBudget === null ? 2 : 2.6,
      ),
      notWork,
    ];
  if (watts === null && other !== null && other >= fullClock && clock < clearlyLow)
    // A governor that saves would save on the other half as well.
    return [
      evidence("power split", "sign.otherKeepsClock", { half, clock, other }),
      evidence("governor", "sign.clockLow", { half, clock, celsius, watts, modeWatts }, 1.7),
      notWork,
    ];
  const isRoomKnown = celsius !== null && watts !== null && modeWatts !== null && watts < 0.85 * modeWatts;
  if (clock < clearlyLow || isRoomKnown) {
    const isWhole = celsius !== null && watts !== null;
    return [
      evidence(
        "governor",
        "sign.clockLow",
        { half, clock, celsius, watts, modeWatts },
        isWhole ? undefined : unexplained,
      ),
      notWork,
    ];
  }
  return [notWork];
}

/** What a low clock says of a half whose load wasn't logged: it may rest, and must not. */
function whyLowUnseen(
  half: Half,
  clock: number,
  other: number | null,
  { hotC, modeWatts, atBudget }: Takers,
  whole: number | null,
  otherIsFull: boolean,
): Evidence[] {
  if (otherIsFull) return [];
  if (hotC !== null) return [evidence("heat", "sign.clockAtLimit", { half, clock, celsius: hotC }, 2.4)];
  if (atBudget && modeWatts !== null && (other === null || other - clock > 0.1))
    return [evidence("power split", "sign.budgetSplit", { half, clock, other, watts: modeWatts }, 2.4)];
  if (half === "processor" && clock < clearlyLow && whole !== null && whole >= worksFrom)
    return [evidence("governor", "sign.clockRests", { clock, whole })];
  return [];
}
