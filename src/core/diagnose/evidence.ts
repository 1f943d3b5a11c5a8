import type { Segment, Summary } from "@/core/metrics";
import type { Half } from "./codes";
import { evidence } from "./sign";
import type { Evidence } from "./shape";
import { clockEvidence, clockShares, nearLimitC, type HalfSeen, type Limits, type RunSoFar } from "./clocks";
import { weights } from "./weights";

/** Load from which a half counts as busy. */
const busyFrom = 90;
const wholeTells = 80;
/** A half that works longer on a frame than the target allows can't hold it; well under that, it has room. */
const overAllowed = 1.03,
  roomUnder = 0.85;
/** A load of the busiest core from which work that wanders from core to core may be all that holds. */
const wanderFrom = 58;
/** Spread of the rate under which something sets the pace. */
const setPace = 0.012;

/**
 * Load of the busiest core. A reading of the whole processor speaks only when it is high: 45 % over eight cores
 * can hide one that is full.
 */
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

/** Loads that lie so far apart between stretches are different work, points. */
const otherWork = 6;

/** Whether a run's stretches are of different work: scenes by name, or loads that differ. */
function hasOtherWork(segments: Segment[]): boolean {
  const places = new Set(segments.flatMap(({ label }) => (label === "" ? [] : [label])));
  if (places.size > 1) return true;
  return (["gpu", "cpuBusiest", "cpu"] as const).some((role) => {
    const loads = segments.flatMap(({ means }) => means[role] ?? []);
    return loads.length > 1 && Math.max(...loads) - Math.min(...loads) >= otherWork;
  });
}

export const soFar = ({ channels, segments }: Summary): RunSoFar => ({
  otherWork: hasOtherWork(segments),
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
  // Milliseconds a half works on a frame, over what the target allows; at its full clock, where the clock is
  // known.
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
  // Where both are full, the half that works longer on a frame leads.
  const behind = (half: Half) => {
    const own = half === "processor" ? processor : graphics,
      other = half === "processor" ? graphics : processor;
    return busy.processor && busy.graphics && own !== null && other !== null
      ? Math.max(0.25, 1 - Math.max(0, other - own) / apartTells)
      : 1;
  };

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
            ifClock("processor", "sign.processorBusy") * behind("processor"),
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
            ifClock("graphics", "sign.graphicsBusy") * behind("graphics"),
          )
        : tooLong("graphics", graphics),
    );
  if (busy.processor && !busy.graphics && graphics !== null)
    made.push(evidence("graphics", "sign.graphicsIdle", { graphics }));
  if (busy.graphics && !busy.processor && processor !== null)
    made.push(evidence("processor", "sign.processorIdle", { processor }));
  // A half that waits for the display may rest at a low clock; one that is full may not.
  const seenOf = (half: Half, load: number | null): HalfSeen => ({
    load,
    isFull: load !== null && load >= busyFrom,
    wouldHold: clocks[half] !== null && (need[half] ?? 1) < holdsUnder,
  });
  const seen = { processor: seenOf("processor", processor), graphics: seenOf("graphics", graphics) };
  made.push(...clockEvidence(means, limits, seen, run));
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
    // One scene of even work holds its rate without a cap: only the same rate of different work is set by something.
    else if (odd)
      made.push(evidence("cap or sync", "sign.setPace", { ...pace, idle: false }, run.otherWork ? 2.2 : 1.1));
    else if (refreshes > 1) made.push(evidence("cap or sync", "sign.cadence", { share, refreshes }));
    if (processor === null && means.cpu !== undefined)
      made.push(...wholeEvidence(means.cpu, graphics).filter(({ cause }) => cause === "processor"));
    return made;
  }
  if (!bothKnown) return [...made, ...partEvidence(means, processor, graphics, clocks)];
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

/**
 * Weight of a busy half whose clock wasn't logged: why it is busy is open, that it is isn't. It stays under what a clock
 * or a budget that shows would say.
 */
const unclocked = 1.8;
/** Points of load by which one of two full halves is clearly the longer. */
const apartTells = 8;
/** Share of the allowed time under which a half's work, at its full clock, would have held the target. */
const holdsUnder = 0.97;

/** Loads of the whole processor between which one full core is the likelier, the higher; in percent. */
const wholeFrom = 14,
  wholeOver = 22;

/** What a reading of the whole processor says where the busiest core wasn't logged, and graphics has room. */
function wholeEvidence(whole: number, graphics: number | null): Evidence[] {
  if (graphics === null || graphics >= wholeTells) return [];
  const likely = Math.max(0, Math.min(1, (whole - wholeFrom) / wholeOver));
  const figures = { whole, graphics };
  return [
    evidence("processor", "sign.wholeLoad", figures, 0.9 + likely),
    ...(likely < 1 ? [evidence("engine or driver", "sign.wholeRoom", figures, 1.6 * (1 - likely))] : []),
  ];
}

/** What is left to say where the load of one half, or of both, wasn't logged, and nothing sets the pace. */
function partEvidence(
  means: Segment["means"],
  processor: number | null,
  graphics: number | null,
  clocks: Record<Half, number | null>,
): Evidence[] {
  if (processor === null) return means.cpu === undefined ? [] : wholeEvidence(means.cpu, graphics);
  if (processor >= wanderFrom) return [evidence("processor", "sign.coreAlone", { processor }, 1.2)];
  // Clocks go with the work where a governor follows it: graphics at its full clock beside a processor that
  // rests works.
  const clock = clocks.graphics;
  const follows = (clocks.processor ?? 1) < 0.9;
  const works = clock !== null && clock >= 0.9 && follows,
    rests = clock !== null && clock < 0.6;
  return [
    evidence("graphics", "sign.coreRoom", { processor, clock }, works ? 1.8 : rests ? 0.5 : 1.2),
    evidence("engine or driver", "sign.coreRoom", { processor, clock }, works ? 0.5 : rests ? 1.5 : 0.9),
  ];
}

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

/** Minutes within which growing memory counts as what holds a title back. */
const soonMinutes = 45;

/** Signs of the whole run: memory that grows towards its wall, clocks that sag as it warms. */
export function runEvidence(summary: Summary, crashed: boolean, limits: Limits): Evidence[] {
  const made: Evidence[] = [];
  const memory = summary.channels.memory;
  const needed = limits.neededMb ?? null;
  if (needed !== null && limits.memoryMb !== null && needed > limits.memoryMb)
    made.push(
      evidence(
        "memory",
        "sign.memoryShort",
        { neededMb: needed, leftMb: limits.memoryMb },
        // Without a reading of it it is a word against a reckoning.
        memory ? undefined : 1.4,
      ),
    );
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
        (atLimit || warm === null || cool === null || warm - cool >= 2) &&
        before !== null &&
        after !== null &&
        after < 0.95 * before
      ) {
        made.push(
          evidence(
            "heat",
            "sign.clockSags",
            { half, fromMhz: before, toMhz: after, celsius: warm },
            atLimit ? undefined : warm === null ? 1 : 1.8,
          ),
        );
      }
    }
  }
  return made;
}
