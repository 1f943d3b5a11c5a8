import type { Segment, Summary } from "@/core/metrics";
import { evidence, type Evidence } from "./causes";
import { weights } from "./weights";

/** What is known of the rig a run was made on; null where nobody wrote it down. */
export interface Limits {
  temperatureC: number | null;
  memoryMb: number | null;
  modeWatts: number | null;
  /** Full clocks: the rig's own, or the highest seen on it. */
  processorMhz: number | null;
  graphicsMhz: number | null;
  refreshHz: number;
}

/** Load from which a half counts as busy. */
const busyFrom = 90;
const wholeTells = 80;
/** A clock this low under load needs no reading of heat or watts to be odd. */
const clearlyLow = 0.7;
const nearLimitC = 3;
/** Share of the full clock under which a busy half is short of it. */
const lowClock = 0.87;
/** A half that works longer on a frame than the target allows can't hold it; well under that, it has room. */
const overAllowed = 1.03,
  roomUnder = 0.85;
/** A load of the busiest core from which work that wanders from core to core may be all that holds. */
const wanderFrom = 58;
/** Spread of the rate under which something sets the pace. */
const setPace = 0.012;

/** Load of the busiest core. A reading of the whole processor speaks only when it is high: 45 % over eight cores can hide one that is full. */
export const processorLoad = ({ means }: Pick<Segment, "means">) =>
  means.cpuBusiest ?? (means.cpu !== undefined && means.cpu >= wholeTells ? means.cpu : null);
export const graphicsLoad = ({ means }: Pick<Segment, "means">) => means.gpu ?? null;

/** Share of a stretch that may be missing before it counts as short. */
const leastShort = 0.015;

/** Whether a stretch is short of its rate, and hitches explain less than half of what it is short by. */
export function isSlow(segment: Segment, summary: Summary, targetFps: number): boolean {
  const speed = segment.means.speed;
  if (speed !== undefined && summary.reportedSpeedPercent !== null) return speed < 97;
  const ms = segment.endMs - segment.startMs;
  const shortMs = ms * (1 - segment.averageFps / targetFps);
  return shortMs > leastShort * ms && segment.lostMs < shortMs / 2;
}

/** Whether hitches cost a stretch enough to be felt: over 4 ms in a second. */
export const isHitchy = (segment: Segment) =>
  segment.hitches > 0 && segment.lostMs > 0.004 * (segment.endMs - segment.startMs);

/** What the whole run says of a stretch: clocks that were higher earlier, and how far it has warmed since. */
export interface RunSoFar {
  /** Highest clocks of the run, MHz. */
  most: Record<Half, number | null>;
  /** °C from the run's coolest to its warmest; null without readings. */
  warmedC: number | null;
}
export type Half = "processor" | "graphics";

export const soFar = ({ channels }: Summary): RunSoFar => ({
  most: { processor: channels.cpuClock?.max ?? null, graphics: channels.gpuClock?.max ?? null },
  warmedC: channels.temperature ? channels.temperature.max - channels.temperature.min : null,
});

/** Signs of what makes a slow stretch slow, from what the device did meanwhile. */
export function slowEvidence(segment: Segment, limits: Limits, run: RunSoFar, targetFps: number): Evidence[] {
  const made: Evidence[] = [];
  const { means, averageFps } = segment;
  const processor = processorLoad(segment),
    graphics = graphicsLoad(segment);
  const clocks = clockShares(means, limits);
  // Milliseconds a half works on a frame, over what the target allows; at its full clock, where the clock is known.
  const needOf = (load: number | null, clock: number | null) =>
    load === null ? null : ((load / 100) * targetFps * Math.min(1, clock ?? 1)) / averageFps;
  const need = {
    processor: needOf(processor, clocks.processor),
    graphics: needOf(graphics, clocks.graphics),
  };
  // Without its clock, a busy half may be one that was slowed down.
  const ifClock = (half: Half, code: "sign.processorBusy" | "sign.graphicsBusy") =>
    clocks[half] === null ? unclocked : weights[code].weight;
  const paced = isPaced(segment, limits, targetFps);
  const isBusy = (load: number | null, of: number | null) =>
    load !== null && of !== null && (load >= busyFrom || (paced && of >= overAllowed));
  const busy = { processor: isBusy(processor, need.processor), graphics: isBusy(graphics, need.graphics) };

  const tooLong = (half: Half, load: number) =>
    evidence(half, "sign.overAllowed", {
      half,
      ms: ((load / 100) * 1000) / averageFps,
      allowedMs: 1000 / targetFps,
    });
  if (processor !== null && busy.processor)
    made.push(
      processor >= busyFrom
        ? evidence(
            "processor",
            "sign.processorBusy",
            { processor, graphics },
            ifClock("processor", "sign.processorBusy"),
          )
        : tooLong("processor", processor),
    );
  if (graphics !== null && busy.graphics)
    made.push(
      graphics >= busyFrom
        ? evidence(
            "graphics",
            "sign.graphicsBusy",
            { processor, graphics },
            ifClock("graphics", "sign.graphicsBusy"),
          )
        : tooLong("graphics", graphics),
    );
  if (busy.processor && !busy.graphics && graphics !== null)
    made.push(evidence("graphics", "sign.graphicsIdle", { graphics }));
  if (busy.graphics && !busy.processor && processor !== null)
    made.push(evidence("processor", "sign.processorIdle", { processor }));
  // A half that waits for the display may rest at a low clock; one that is full may not.
  const isFull = { processor: (processor ?? 0) >= busyFrom, graphics: (graphics ?? 0) >= busyFrom };
  made.push(...clockEvidence(means, limits, isFull, run));
  if (busy.processor || busy.graphics) return made;

  const { cadence: refreshes, cadenceShare: share } = segment;
  const bothKnown = processor !== null && graphics !== null;
  const loads = { processor: processor ?? 0, graphics: graphics ?? 0 };
  const hasRoom = bothKnown && (need.processor ?? 1) < roomUnder && (need.graphics ?? 1) < roomUnder;
  if (paced) {
    const odd = refreshes > 0 && !onOneCadence(segment, limits);
    const pace = { fps: averageFps, spread: segment.paceSpread ?? 0 };
    if (hasRoom)
      made.push(
        evidence("processor", "sign.neitherBusy", loads),
        evidence("graphics", "sign.neitherBusy", loads),
        odd
          ? evidence("cap or sync", "sign.setPace", { ...pace, idle: true })
          : evidence("cap or sync", "sign.cadenceIdle", { share, refreshes, ...loads }),
      );
    else if (odd) made.push(evidence("cap or sync", "sign.setPace", { ...pace, idle: false }, 2.2));
    else if (refreshes > 1) made.push(evidence("cap or sync", "sign.cadence", { share, refreshes }));
    return made;
  }
  if (!bothKnown) return made;
  // Work that wanders from core to core fills none of them; an engine that waits leaves them all with room.
  const wanders = processor >= wanderFrom && processor > graphics + 8;
  if (wanders) {
    const sure = Math.min(1, (processor - wanderFrom) / 20);
    made.push(
      evidence("processor", "sign.wanders", { processor, graphics }, 0.7 + 1.5 * sure),
      evidence("engine or driver", "sign.noCap", loads, 1.2 * (1 - sure)),
    );
    return made;
  }
  if (graphics >= 80) {
    made.push(evidence("graphics", "sign.graphicsBusy", { processor, graphics }, 1.5));
    return made;
  }
  made.push(
    evidence("processor", "sign.neitherBusy", loads),
    evidence("graphics", "sign.neitherBusy", loads),
    evidence("engine or driver", "sign.noCap", loads),
  );
  return made;
}

/** Weight of a busy half whose clock wasn't logged. */
const unclocked = 1.4;

/** Clocks as shares of full ones; null where not known. */
function clockShares(
  { cpuClock, gpuClock }: Pick<Segment["means"], "cpuClock" | "gpuClock">,
  { processorMhz, graphicsMhz }: Pick<Limits, "processorMhz" | "graphicsMhz">,
): Record<Half, number | null> {
  const share = (mhz: number | undefined, full: number | null) =>
    mhz === undefined || full === null ? null : mhz / full;
  return { processor: share(cpuClock, processorMhz), graphics: share(gpuClock, graphicsMhz) };
}

/** Signs of clocks that are short of what they could be: taken back by heat, by the budget, or left low. */
function clockEvidence(
  { cpuClock, gpuClock, temperature, watts }: Segment["means"],
  { processorMhz, graphicsMhz, temperatureC, modeWatts }: Limits,
  busy: Record<Half, boolean>,
  { most, warmedC }: RunSoFar,
): Evidence[] {
  const made: Evidence[] = [];
  const clocks = clockShares({ cpuClock, gpuClock }, { processorMhz, graphicsMhz });
  const full = { processor: processorMhz, graphics: graphicsMhz };
  const hotC =
    temperatureC !== null && temperature !== undefined && temperature >= temperatureC - nearLimitC
      ? temperature
      : null;
  if (hotC !== null && temperatureC !== null)
    made.push(evidence("heat", "sign.hot", { celsius: hotC, limitC: temperatureC }));
  const atBudget = modeWatts !== null && watts !== undefined && watts >= 0.93 * modeWatts;
  for (const [half, otherHalf] of [
    ["processor", "graphics"],
    ["graphics", "processor"],
  ] as const) {
    const clock = clocks[half],
      other = clocks[otherHalf];
    if (!busy[half] || clock === null || clock >= lowClock) continue;
    // A governor leaves a clock low from the start; one that was higher earlier, in a device that has warmed since, was taken back.
    const earlier = (most[half] ?? 0) / (full[half] ?? Infinity);
    const takenBack = warmedC !== null && warmedC >= warmedEnoughC && earlier >= 0.9 && clock < 0.93 * earlier;
    if (hotC !== null) made.push(evidence("heat", "sign.clockAtLimit", { half, clock, celsius: hotC }));
    else if (atBudget) {
      if (other !== null && other - clock > 0.1)
        made.push(evidence("power split", "sign.budgetSplit", { half, clock, other, watts: modeWatts }));
    } else if (takenBack && temperature !== undefined)
      made.push(
        evidence("heat", "sign.clockTakenBack", { half, clock, earlier, celsius: temperature, warmedC }),
        evidence(half, "sign.clockNotWork", undefined),
      );
    else if (
      clock < clearlyLow ||
      (temperature !== undefined && watts !== undefined && modeWatts !== null && watts < 0.85 * modeWatts)
    ) {
      const known = { celsius: temperature ?? null, watts: watts ?? null, modeWatts };
      const isWhole = temperature !== undefined && watts !== undefined;
      made.push(
        evidence("governor", "sign.clockLow", { half, clock, ...known }, isWhole ? undefined : unexplained),
        evidence(half, "sign.clockNotWork", undefined),
      );
    } else made.push(evidence(half, "sign.clockNotWork", undefined));
  }
  return made;
}

/** Weight of a low clock where heat or watts, which could explain it, weren't logged. */
const unexplained = 2;

/** °C that a device must have warmed for clocks to have been taken back by it. */
const warmedEnoughC = 5;

/** Frames that fall on one whole number of refreshes, as a cap or a wait for the display makes them. */
function onOneCadence({ cadence, cadenceShare, medianFrameTimeMs }: Segment, { refreshHz }: Limits): boolean {
  return (
    cadenceShare >= 0.85 && cadence >= 1 && Math.abs((medianFrameTimeMs * refreshHz) / 1000 - cadence) < 0.03
  );
}

/** Whether something sets the pace: frames on one cadence of the display, or a rate that hardly varies. */
const isPaced = (segment: Segment, limits: Limits, targetFps: number) =>
  // Frames of one refresh on a display as fast as the target are held back by nothing but their longer fellows.
  (onOneCadence(segment, limits) && limits.refreshHz / segment.cadence < 0.985 * targetFps) ||
  (segment.paceSpread != null && segment.paceSpread < setPace);

/** What a hitch adds to a comparison of visits: two or three fall anywhere by chance. */
const perHitch = 0.7;
/** Lost time below this is a stray frame, in ms. */
const strayMs = 60;

/** Signs of what makes stretches hitch: what the first visit lost against later ones, and what entering costs every time. */
export function hitchEvidence(segments: Segment[], cacheState: "warm" | "cold" | "unknown"): Evidence[] {
  const made: Evidence[] = [];
  const byLabel = new Map<string, Segment[]>();
  for (const segment of segments)
    if (segment.label !== "") byLabel.set(segment.label, [...(byLabel.get(segment.label) ?? []), segment]);
  const visited = [...byLabel.values()].filter((visits) => visits.length > 1);
  const lostFirst = visited.reduce((sum, [first]) => sum + (first?.lostMs ?? 0), 0);
  const later = visited
    .map(([, ...rest]) => rest.reduce((sum, { lostMs }) => sum + lostMs, 0) / rest.length)
    .reduce((sum, ms) => sum + ms, 0);
  const laterEntry = visited
    .map(([, ...rest]) => rest.reduce((sum, { entryLostMs }) => sum + entryLostMs, 0) / rest.length)
    .reduce((sum, ms) => sum + ms, 0);
  // The log's own beginning is no entering of a scene: anything may still be loading.
  const beginning = segments[0]?.entryLostMs ?? 0;
  const all = segments.reduce((sum, { lostMs }) => sum + lostMs, 0) - beginning,
    entry = segments.reduce((sum, { entryLostMs }) => sum + entryLostMs, 0) - beginning;
  if (visited.length > 0) {
    if (lostFirst >= strayMs && lostFirst >= 3 * later) {
      // Two or three hitches may fall on first visits by chance; many don't.
      const inFirst = visited.reduce((sum, [first]) => sum + (first?.hitches ?? 0), 0);
      const figures = { firstMs: lostFirst, laterMs: later };
      made.push(
        evidence(
          "shaders",
          "sign.firstVisits",
          figures,
          Math.min(weights["sign.firstVisits"].weight, perHitch * inFirst),
        ),
      );
    } else if (later >= strayMs && laterEntry >= 0.6 * later) {
      const inLater = visited.reduce(
        (sum, [, ...rest]) => sum + rest.reduce((count, { hitches }) => count + hitches, 0),
        0,
      );
      const figures = { ms: laterEntry / visited.length };
      made.push(
        evidence(
          "storage",
          "sign.entryEveryTime",
          figures,
          Math.min(weights["sign.entryEveryTime"].weight, perHitch * inLater),
        ),
      );
    }
    return made;
  }
  if (all < strayMs) return made;
  if (cacheState === "cold") {
    // Effects compile where something new is seen, mostly on entering; another program's hitches come anywhere.
    const onEntry = entry / all;
    made.push(
      evidence("shaders", "sign.coldHitches", { ms: all, onEntry }, 0.4 + 2.4 * Math.min(1, onEntry / 0.6)),
    );
  } else if (entry >= 0.6 * all && segments.filter(({ label }) => label !== "").length > 1) {
    const warm = cacheState === "warm";
    made.push(
      evidence("storage", "sign.entryOnce", { entryMs: entry, allMs: all, warm }, warm ? undefined : 1),
    );
    if (!warm) made.push(evidence("shaders", "sign.nothingTwice", undefined));
  }
  return made;
}

/** Minutes within which growing memory counts as what holds a title back. */
const soonMinutes = 45;

/** Signs of the whole run: memory that grows towards its wall, clocks that sag as it warms. */
export function runEvidence(summary: Summary, crashed: boolean, limits: Limits): Evidence[] {
  const made: Evidence[] = [];
  const memory = summary.channels.memory;
  if (memory && limits.memoryMb !== null) {
    const full = memory.last / limits.memoryMb;
    const minutes =
      memory.perMinute !== null && memory.perMinute > 0
        ? (limits.memoryMb - memory.last) / memory.perMinute
        : Infinity;
    const mbPerMinute = memory.perMinute ?? 0;
    if (crashed && full >= 0.93)
      made.push(evidence("memory", "sign.diedFull", { megabytes: memory.last, ofMb: limits.memoryMb }));
    else if (minutes < soonMinutes && mbPerMinute > 0.002 * limits.memoryMb)
      made.push(evidence("memory", "sign.memoryGrows", { mbPerMinute, minutes: Math.max(0, minutes) }));
    else if (full >= 0.97) made.push(evidence("memory", "sign.memoryFull", { full }));
  }
  const { segments } = summary;
  if (segments.length >= 4) {
    const [early, late] = [
      segments.slice(0, Math.ceil(segments.length / 4)),
      segments.slice(-Math.ceil(segments.length / 4)),
    ];
    const meanOf = (list: Segment[], role: "cpuClock" | "gpuClock" | "temperature") => {
      const values = list
        .map(({ means }) => means[role])
        .filter((value): value is number => value !== undefined);
      return values.length > 0 ? values.reduce((sum, value) => sum + value, 0) / values.length : null;
    };
    const warm = meanOf(late, "temperature"),
      cool = meanOf(early, "temperature");
    const atLimit = warm !== null && limits.temperatureC !== null && warm >= limits.temperatureC - nearLimitC;
    for (const [role, half] of [
      ["cpuClock", "processor"],
      ["gpuClock", "graphics"],
    ] as const) {
      const [before, after] = [meanOf(early, role), meanOf(late, role)];
      if (
        warm !== null &&
        cool !== null &&
        (atLimit || warm - cool >= 2) &&
        before !== null &&
        after !== null &&
        after < 0.95 * before
      ) {
        made.push(
          evidence(
            "heat",
            "sign.clockSags",
            { half, fromMhz: before, toMhz: after, celsius: warm },
            atLimit ? undefined : 1.8,
          ),
        );
      }
    }
  }
  return made;
}
