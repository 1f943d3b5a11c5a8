import type { Segment, Summary } from "@/core/metrics";
import { evidence, type Evidence } from "./causes";

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

/** Loads from which a half counts as busy, and under which as idle enough. */
const busyFrom = 90;
const idleUnder = 85;
const wholeTells = 80;
/** A clock this low under load needs no reading of heat or watts to be odd. */
const clearlyLow = 0.7;
const nearLimitC = 3;
/** Share of the full clock under which a busy half is short of it. */
const lowClock = 0.87;

/** Load of the busiest core. A reading of the whole processor speaks only when it is high: 45 % over eight cores can hide one that is full. */
export const processorLoad = ({ means }: Pick<Segment, "means">) =>
  means.cpuBusiest ?? (means.cpu !== undefined && means.cpu >= wholeTells ? means.cpu : null);
export const graphicsLoad = ({ means }: Pick<Segment, "means">) => means.gpu ?? null;

/** Whether a stretch is short of its rate, and hitches explain less than half of what it is short by. */
export function isSlow(segment: Segment, summary: Summary, targetFps: number): boolean {
  const speed = segment.means.speed;
  if (speed !== undefined && summary.reportedSpeedPercent !== null) return speed < 97;
  const ms = segment.endMs - segment.startMs;
  const shortMs = ms * (1 - segment.averageFps / targetFps);
  return shortMs > 0.03 * ms && segment.lostMs < shortMs / 2;
}

/** Whether hitches cost a stretch enough to be felt: over 4 ms in a second. */
export const isHitchy = (segment: Segment) =>
  segment.hitches > 0 && segment.lostMs > 0.004 * (segment.endMs - segment.startMs);

/** Signs of what makes a slow stretch slow, from what the device did meanwhile. */
export function slowEvidence(segment: Segment, limits: Limits): Evidence[] {
  const made: Evidence[] = [];
  const { means } = segment;
  const processor = processorLoad(segment),
    graphics = graphicsLoad(segment);
  const processorBusy = processor !== null && processor >= busyFrom,
    graphicsBusy = graphics !== null && graphics >= busyFrom;

  if (processorBusy) made.push(evidence("processor", "sign.processorBusy", { processor, graphics }));
  if (graphicsBusy) made.push(evidence("graphics", "sign.graphicsBusy", { processor, graphics }));
  if (processorBusy && !graphicsBusy && graphics !== null)
    made.push(evidence("graphics", "sign.graphicsIdle", { graphics }));
  if (graphicsBusy && !processorBusy && processor !== null)
    made.push(evidence("processor", "sign.processorIdle", { processor }));
  made.push(...clockEvidence(means, limits, { processor: processorBusy, graphics: graphicsBusy }));

  const { cadence: refreshes, cadenceShare: share } = segment;
  if (processor !== null && graphics !== null && processor < idleUnder && graphics < idleUnder) {
    const loads = { processor, graphics };
    made.push(
      evidence("processor", "sign.neitherBusy", loads),
      evidence("graphics", "sign.neitherBusy", loads),
    );
    if (onOneCadence(segment, limits))
      made.push(evidence("cap or sync", "sign.cadenceIdle", { share, refreshes, ...loads }));
    else made.push(evidence("engine or driver", "sign.noCap", loads));
  } else if ((processor === null || graphics === null) && refreshes > 1 && onOneCadence(segment, limits)) {
    made.push(evidence("cap or sync", "sign.cadence", { share, refreshes }));
  }
  return made;
}

/** Signs of clocks that are short of what they could be: taken back by heat, by the budget, or left low. */
function clockEvidence(
  { cpuClock, gpuClock, temperature, watts }: Segment["means"],
  { processorMhz, graphicsMhz, temperatureC, modeWatts }: Limits,
  busy: { processor: boolean; graphics: boolean },
): Evidence[] {
  const made: Evidence[] = [];
  const clockOf = (mhz: number | undefined, full: number | null) =>
    mhz === undefined || full === null ? null : mhz / full;
  const clocks = { processor: clockOf(cpuClock, processorMhz), graphics: clockOf(gpuClock, graphicsMhz) };
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
    if (hotC !== null) made.push(evidence("heat", "sign.clockAtLimit", { half, clock, celsius: hotC }));
    else if (atBudget) {
      if (other !== null && other - clock > 0.1)
        made.push(evidence("power split", "sign.budgetSplit", { half, clock, other, watts: modeWatts }));
    } else if (
      clock < clearlyLow ||
      (temperature !== undefined && watts !== undefined && modeWatts !== null && watts < 0.85 * modeWatts)
    ) {
      const known = { celsius: temperature ?? null, watts: watts ?? null, modeWatts };
      made.push(
        evidence("governor", "sign.clockLow", { half, clock, ...known }),
        evidence(half, "sign.clockNotWork", undefined),
      );
    }
  }
  return made;
}

/** Frames that fall on one whole number of refreshes, as a cap or a wait for the display makes them. */
function onOneCadence({ cadence, cadenceShare, medianFrameTimeMs }: Segment, { refreshHz }: Limits): boolean {
  return (
    cadenceShare >= 0.85 && cadence >= 1 && Math.abs((medianFrameTimeMs * refreshHz) / 1000 - cadence) < 0.03
  );
}

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
  const all = segments.reduce((sum, { lostMs }) => sum + lostMs, 0),
    entry = segments.reduce((sum, { entryLostMs }) => sum + entryLostMs, 0);
  if (visited.length > 0) {
    if (lostFirst >= strayMs && lostFirst >= 3 * later)
      made.push(evidence("shaders", "sign.firstVisits", { firstMs: lostFirst, laterMs: later }));
    else if (later >= strayMs && laterEntry >= 0.6 * later)
      made.push(evidence("storage", "sign.entryEveryTime", { ms: laterEntry / visited.length }));
    return made;
  }
  if (all < strayMs) return made;
  if (cacheState === "cold") made.push(evidence("shaders", "sign.coldHitches", { ms: all }));
  else if (entry >= 0.6 * all && segments.some(({ label }) => label !== "")) {
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
  if (segments.length >= 4 && limits.temperatureC !== null) {
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
    const warm = meanOf(late, "temperature");
    for (const [role, half] of [
      ["cpuClock", "processor"],
      ["gpuClock", "graphics"],
    ] as const) {
      const [before, after] = [meanOf(early, role), meanOf(late, role)];
      if (
        warm !== null &&
        warm >= limits.temperatureC - nearLimitC &&
        before !== null &&
        after !== null &&
        after < 0.95 * before
      ) {
        made.push(evidence("heat", "sign.clockSags", { half, fromMhz: before, toMhz: after, celsius: warm }));
      }
    }
  }
  return made;
}
