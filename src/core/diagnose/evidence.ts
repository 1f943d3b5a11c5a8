import type { Segment, Summary } from "@/core/metrics";
import type { Cause, Evidence } from "./causes";

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
const percent = (share: number) => `${(100 * share).toFixed(0)} %`;

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
  const add = (cause: Cause, weight: number, words: string) => made.push({ cause, weight, words });
  const { means } = segment;
  const processor = processorLoad(segment),
    graphics = graphicsLoad(segment);
  const clockOf = (mhz: number | undefined, full: number | null) =>
    mhz === undefined || full === null ? null : mhz / full;
  const processorClock = clockOf(means.cpuClock, limits.processorMhz),
    graphicsClock = clockOf(means.gpuClock, limits.graphicsMhz);
  const hot =
    limits.temperatureC !== null &&
    means.temperature !== undefined &&
    means.temperature >= limits.temperatureC - nearLimitC;
  const atBudget =
    limits.modeWatts !== null && means.watts !== undefined && means.watts >= 0.93 * limits.modeWatts;
  const processorBusy = processor !== null && processor >= busyFrom,
    graphicsBusy = graphics !== null && graphics >= busyFrom;

  if (processorBusy)
    add(
      "processor",
      2.2,
      `The busiest core is ${processor.toFixed(0)} % busy${graphics === null ? "" : `, graphics ${graphics.toFixed(0)} %`}.`,
    );
  if (graphicsBusy)
    add(
      "graphics",
      2.2,
      `Graphics is ${graphics.toFixed(0)} % busy${processor === null ? "" : `, the busiest core ${processor.toFixed(0)} %`}.`,
    );
  if (processorBusy && !graphicsBusy && graphics !== null)
    add("graphics", -1.5, `Graphics is only ${graphics.toFixed(0)} % busy.`);
  if (graphicsBusy && !processorBusy && processor !== null)
    add("processor", -1.5, `The busiest core is only ${processor.toFixed(0)} % busy.`);

  if (hot)
    add("heat", 1, `${means.temperature!.toFixed(0)} °C, the limit is ${limits.temperatureC!.toFixed(0)} °C.`);
  const low = (half: "processor" | "graphics", clock: number | null, busy: boolean, other: number | null) => {
    if (!busy || clock === null || clock >= 0.87) return;
    if (hot)
      add(
        "heat",
        3.5,
        `The ${half} clock is down to ${percent(clock)} at ${means.temperature!.toFixed(0)} °C.`,
      );
    else if (atBudget) {
      if (other !== null && other - clock > 0.1)
        add(
          "power split",
          3.8,
          `At the mode's ${limits.modeWatts!.toFixed(0)} W the ${half} gets ${percent(clock)} of its clock while the other half has ${percent(other)}.`,
        );
    } else if (
      clock < clearlyLow ||
      (means.temperature !== undefined &&
        means.watts !== undefined &&
        limits.modeWatts !== null &&
        means.watts < 0.85 * limits.modeWatts)
    ) {
      add(
        "governor",
        3.5,
        `The ${half} is busy at ${percent(clock)} of its full clock, ${roomLeft(means, limits)}.`,
      );
      add(half, -1, `Its clock, not its work, is short.`);
    }
  };
  low("processor", processorClock, processorBusy, graphicsClock);
  low("graphics", graphicsClock, graphicsBusy, processorClock);

  if (processor !== null && graphics !== null && processor < idleUnder && graphics < idleUnder) {
    const loads = `processor ${processor.toFixed(0)} %, graphics ${graphics.toFixed(0)} %`;
    add("processor", -1.5, `Neither half is busy: ${loads}.`);
    add("graphics", -1.5, `Neither half is busy: ${loads}.`);
    if (onOneCadence(segment, limits))
      add(
        "cap or sync",
        4,
        `${percent(segment.cadenceShare)} of frames last exactly ${segment.cadence} refreshes, and neither half is busy (${loads}).`,
      );
    else add("engine or driver", 3, `Neither half is busy (${loads}) and no cap shows.`);
  } else if (
    (processor === null || graphics === null) &&
    segment.cadence > 1 &&
    onOneCadence(segment, limits)
  ) {
    add(
      "cap or sync",
      1.6,
      `${percent(segment.cadenceShare)} of frames last exactly ${segment.cadence} refreshes.`,
    );
  }
  return made;
}

/** What heat and watts say of a clock that is low under load. */
function roomLeft({ temperature, watts }: Segment["means"], { modeWatts }: Limits): string {
  const known = [
    temperature !== undefined && `${temperature.toFixed(0)} °C`,
    watts !== undefined &&
      (modeWatts === null ? `${watts.toFixed(1)} W` : `${watts.toFixed(1)} of ${modeWatts.toFixed(0)} W`),
  ].filter(Boolean);
  return known.length > 0
    ? `with room left: ${known.join(", ")}`
    : "and neither heat nor watts were logged to explain it";
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
  const lostFirst = visited.reduce((sum, [first]) => sum + first.lostMs, 0);
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
      made.push({
        cause: "shaders",
        weight: 4.5,
        words: `First visits lost ${lostFirst.toFixed(0)} ms to hitches, later ones ${later.toFixed(0)} ms.`,
      });
    else if (later >= strayMs && laterEntry >= 0.6 * later)
      made.push({
        cause: "storage",
        weight: 4.5,
        words: `Entering a scene costs ${(laterEntry / visited.length).toFixed(0)} ms on every visit, the first or not.`,
      });
    return made;
  }
  if (all < strayMs) return made;
  if (cacheState === "cold")
    made.push({
      cause: "shaders",
      weight: 3,
      words: `A cold cache, and ${all.toFixed(0)} ms lost to hitches.`,
    });
  else if (entry >= 0.6 * all && segments.some(({ label }) => label !== "")) {
    made.push({
      cause: "storage",
      weight: cacheState === "warm" ? 2 : 1,
      words: `${entry.toFixed(0)} of ${all.toFixed(0)} ms are lost on entering scenes${cacheState === "warm" ? ", with the cache warm" : ""}.`,
    });
    if (cacheState !== "warm")
      made.push({
        cause: "shaders",
        weight: 1,
        words: "Nothing was visited twice, so a first sight can't be told from slow storage.",
      });
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
    if (crashed && full >= 0.93)
      made.push({
        cause: "memory",
        weight: 6,
        words: `It died with ${memory.last.toFixed(0)} of ${limits.memoryMb.toFixed(0)} MB taken.`,
      });
    else if (minutes < soonMinutes && memory.perMinute! > 0.002 * limits.memoryMb)
      made.push({
        cause: "memory",
        weight: 3.5,
        words: `Memory grows by ${memory.perMinute!.toFixed(0)} MB a minute: the wall is ${Math.max(0, minutes).toFixed(0)} minutes away.`,
      });
    else if (full >= 0.97)
      made.push({ cause: "memory", weight: 3, words: `${percent(full)} of memory is taken.` });
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
        made.push({
          cause: "heat",
          weight: 2.5,
          words: `The ${half} clock fell from ${before.toFixed(0)} to ${after.toFixed(0)} MHz as it reached ${warm.toFixed(0)} °C.`,
        });
      }
    }
  }
  return made;
}
