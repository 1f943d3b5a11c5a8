import { effectiveFps, type NoiseFloor } from "@/core/compare";
import type { Summary } from "@/core/metrics";
import { thinned } from "@/core/stats";
import type { Channel, ChannelRole, Trace } from "@/core/trace";
import { ladder, ladderStep, type LadderState } from "./clocks";
import { crashRate, type CrashRate } from "./crashes";
import {
  burstAndSustained,
  coolDownMinutes,
  fitHeat,
  secondsToLimit,
  throttling,
  type HeatFit,
  type Throttle,
} from "./heat";
import { memoryGrowth, minutesWith, type MemoryGrowth } from "./memory";
import { nextScale, type NextScale } from "./nextLevel";
import { powerSweep, runtimeHours, type PowerSweep } from "./power";
import { fitScaleLaw, type ScaleLaw } from "./scaleLaw";
import { chooseSchool, type SchoolChoice } from "./schools";

/** A run of a sweep, as far as fits read it. */
export interface SweepRun {
  arm: number;
  number: number;
  summary: Summary;
  crashed: boolean;
  /** A severe or blocking fault of the picture was noted. */
  artefacts: boolean;
  /** Loaded where a fit needs it. */
  trace: Trace | null;
}

export interface SweepArm {
  name: string;
  level: number | null;
}

export interface SweepContext {
  targetFps: number;
  nativeFps: number;
  limitC: number | null;
  /** What an engine can have of the rig's memory, and the rig's nominal size. */
  memoryMb: number | null;
  memoryGb: number | null;
  batteryWh: number | null;
  nativePixels: number;
  /** Scales that the setting takes. */
  offeredScales: number[];
  /** Largest scale whose picture the display still shows line by line, where the planner could tell. */
  usefulScale: number | null;
  noise: NoiseFloor;
  soakMinutes: number;
  elsewhereWatts: number;
}

interface Common {
  /** The recommendation, one sentence. */
  sentence: string;
  /** Arm to keep; null while nothing can be recommended. */
  arm: number | null;
  /** What is missing, and what can be given all the same. */
  missing: string[];
}

export type ResolutionFit = Common & {
  kind: "resolution";
  law: ScaleLaw | null;
  levels: { scale: number; medianMs: number; p99Ms: number; runs: number }[];
  next: NextScale | null;
};
export type PowerFit = Common & {
  kind: "power";
  sweep: PowerSweep;
  hours: (number | null)[];
  elsewhereWatts: number;
};
export interface HeatRow {
  run: number;
  arm: number;
  points: { seconds: number[]; celsius: number[] };
  fit: HeatFit | null;
  /** Null: never at this load. */
  secondsToLimit: number | null;
  throttles: Throttle[];
  burst: number | null;
  sustained: number | null;
  coolDownMinutes: number | null;
  hottestC: number;
}
export type HeatFitted = Common & { kind: "heat"; rows: HeatRow[]; limitC: number | null };
export type ClocksFit = Common & {
  kind: "clocks";
  state: LadderState;
  rows: {
    arm: number;
    minutes: number;
    fps: number;
    hottestC: number | null;
    watts: number | null;
    why: string | null;
  }[];
  school: SchoolChoice | null;
};
export interface MemoryRow {
  run: number;
  arm: number;
  points: { minutes: number[]; megabytes: number[] };
  growth: MemoryGrowth | null;
  diedAfterMinutes: number | null;
}
export type MemoryFit = Common & {
  kind: "memory";
  rows: MemoryRow[];
  limitMb: number | null;
  others: { gigabytes: number; minutes: number | null }[];
  crashes: CrashRate | null;
};
export type SweepFit = ResolutionFit | PowerFit | HeatFitted | ClocksFit | MemoryFit;

const channelOf = (run: SweepRun, ...roles: ChannelRole[]): Channel | null =>
  roles
    .map((role) => run.trace?.channels.find((channel) => channel.role === role))
    .find((channel) => channel !== undefined && channel.values.length > 0) ?? null;
const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
const fps = (rate: number) => rate.toFixed(rate % 1 ? 2 : 0);

/** Frames this near to whole refreshes are paced by the display. */
const pacedError = 0.12;

/** Whether a run's frames follow the display's refreshes, so that its median jumps from one whole number of them to the next. */
export const isPaced = ({ pacing }: Pick<Summary, "pacing">) =>
  pacing !== null && pacing.cadenceErrorRms < pacedError;

/** A run's usual frame time for a law over pixels: its median, or its mean where the display paces it; ms. */
export const usualFrameMs = (summary: Pick<Summary, "pacing" | "averageFps" | "medianFrameTimeMs">) =>
  summary.medianFrameTimeMs === null
    ? null
    : isPaced(summary)
      ? 1000 / summary.averageFps
      : summary.medianFrameTimeMs;

function resolution(arms: SweepArm[], runs: SweepRun[], context: SweepContext): ResolutionFit {
  const levels = arms.flatMap(({ level }, arm) => {
    const own = runs.filter((run) => run.arm === arm && run.summary.medianFrameTimeMs !== null && !run.crashed);
    if (level === null || own.length === 0) return [];
    return [
      {
        scale: level,
        pixels: context.nativePixels * level ** 2,
        mediansMs: own.map(({ summary }) => usualFrameMs(summary)!),
        p99sMs: own.map(({ summary }) => summary.p99FrameTimeMs!),
      },
    ];
  });
  const shown = levels.map(({ scale, mediansMs, p99sMs }) => ({
    scale,
    runs: mediansMs.length,
    medianMs: mediansMs.reduce((a, b) => a + b) / mediansMs.length,
    p99Ms: p99sMs.reduce((a, b) => a + b) / p99sMs.length,
  }));
  const missing: string[] = [];
  if (runs.some(({ summary }) => summary.form === "interval"))
    missing.push("Runs of a counter's readings hold no frame times; they are left out of the law.");
  if (runs.some(({ summary }) => isPaced(summary)))
    missing.push(
      "Frames follow the display's refreshes, so medians would jump: means are used. Lift the cap for the sweep, and the law gets sharper.",
    );
  if (new Set(levels.map(({ scale }) => scale)).size < 2) {
    return {
      kind: "resolution",
      law: null,
      levels: shown,
      next: null,
      arm: null,
      missing: [
        ...missing,
        "A law needs two different scales, and three to tell its flat part; so far there is " +
          (shown.length === 1 ? `only ×${shown[0].scale}.` : "none."),
      ],
      sentence: "Run the next level of the plan.",
    };
  }
  const law = fitScaleLaw(levels, { targetFps: context.targetFps, nativePixels: context.nativePixels });
  const next = nextScale(
    law,
    shown.map(({ scale }) => scale),
    context.offeredScales,
    context.targetFps,
  );
  const want = law.largestScale;
  const useful = context.usefulScale;
  const capped = want !== null && useful !== null && want > useful ? useful : want;
  const arm = capped === null ? null : arms.findIndex(({ level }) => level === capped);
  const interval = law.largestScaleInterval;
  const range =
    interval && interval[0] !== interval[1]
      ? ` (95 %: ${interval[0] === 0 ? "none" : `×${interval[0]}`} to ×${interval[1]})`
      : "";
  let sentence: string;
  if (!law.limitedByPixels)
    sentence =
      want === null
        ? `Resolution isn't the limit, and no level holds ${fps(context.targetFps)} fps: look elsewhere.`
        : `Resolution isn't the limit: ×${want}, the largest measured that holds, costs nothing${capped !== want ? `; past ×${capped} is past the screen` : ""}.`;
  else if (want === null)
    sentence = `No scale holds ${fps(context.targetFps)} fps: even without pixels a frame takes ${law.floorMs.toFixed(1)} ms of the ${(1000 / context.targetFps).toFixed(1)} allowed.`;
  else
    sentence = `Keep ×${capped}: the law says ×${want} is the largest that holds ${fps(context.targetFps)} fps${range}${law.largestSteadyScale !== null && law.largestSteadyScale < want ? `, ×${law.largestSteadyScale} by 99th percentiles` : ""}${capped !== want ? `, and past ×${capped} is past the screen` : ""}.`;
  return {
    kind: "resolution",
    law,
    levels: shown,
    next,
    arm: arm !== null && arm >= 0 ? arm : null,
    missing: [...missing, ...law.notes],
    sentence,
  };
}

function power(arms: SweepArm[], runs: SweepRun[], context: SweepContext): PowerFit {
  const levels = arms.map(({ name, level }, arm) => ({
    mode: name,
    nominalWatts: level,
    runs: runs
      .filter((run) => run.arm === arm && !run.crashed)
      .map(({ summary }) => ({
        fps: effectiveFps(summary, context.nativeFps),
        low: summary.lows?.worstTime.one ?? null,
        watts: summary.channels.watts?.mean ?? null,
      })),
  }));
  const sweep = powerSweep(levels, context.targetFps, { noise: context.noise });
  const hours = sweep.rows.map(({ watts }) =>
    runtimeHours(context.batteryWh, watts, 0.9, context.elsewhereWatts),
  );
  const missing = [...sweep.missing];
  if (context.batteryWh === null) missing.push("The rig has no battery size: hours can't be given.");
  const spot = sweep.sweetSpot === null ? null : sweep.rows[sweep.sweetSpot];
  const slower = sweep.slowerWithMore.find(({ than }) => than === spot?.mode);
  const lasting = sweep.sweetSpot === null ? null : hours[sweep.sweetSpot];
  const sentence =
    spot === null
      ? "Run the first mode of the plan."
      : `${sweep.reason}${slower ? ` ${slower.words}` : ""}${lasting === null ? "" : ` About ${lasting.toFixed(1)} h on the battery.`}`;
  return {
    kind: "power",
    sweep,
    hours,
    elsewhereWatts: context.elsewhereWatts,
    sentence,
    missing,
    arm: spot && sweep.rows.length > 1 ? arms.findIndex(({ name }) => name === spot.mode) : null,
  };
}

const heatShown = 120;

function heat(arms: SweepArm[], runs: SweepRun[], context: SweepContext): HeatFitted {
  const missing: string[] = [];
  if (context.limitC === null)
    missing.push(
      "The rig has no temperature limit written down: time to the limit and throttling can't be told.",
    );
  const rows = runs.flatMap((run): HeatRow[] => {
    const warmth = channelOf(run, "temperature", "gpuTemperature");
    if (!warmth || !run.trace) {
      missing.push(`Run ${run.number} logged no temperature.`);
      return [];
    }
    const points = thinned(warmth.times, warmth.values, heatShown);
    const fit = fitHeat(warmth.times, warmth.values);
    const rates = burstAndSustained(run.trace);
    const last = warmth.values[warmth.values.length - 1];
    return [
      {
        run: run.number,
        arm: run.arm,
        points: { seconds: [...points.times.map((ms) => ms / 1000)], celsius: [...points.values] },
        fit,
        secondsToLimit: fit && context.limitC !== null ? secondsToLimit(fit, context.limitC) : null,
        throttles: throttling(run.trace.channels, context.limitC),
        burst: rates?.burst ?? null,
        sustained: rates?.sustained ?? null,
        coolDownMinutes: fit ? coolDownMinutes(fit.startC, last, fit.settleSeconds) : null,
        hottestC: warmth.values.reduce((most, value) => Math.max(most, value), -Infinity),
      },
    ];
  });
  if (rows.some(({ fit, burst }) => (fit && fit.reached < 0.65) || burst === null))
    missing.push("A run shorter than the rig takes to warm leaves where it settles a guess: run longer.");
  const byArm = arms
    .map((_, arm) => {
      const own = rows.filter((row) => row.arm === arm);
      const rates = own.map(({ sustained }) => sustained).filter((rate): rate is number => rate !== null);
      return { arm, own, sustained: rates.length > 0 ? rates.reduce((a, b) => a + b) / rates.length : null };
    })
    .filter(({ own }) => own.length > 0);
  // Rates that can't be told apart are decided by heat.
  const rated = byArm.filter(({ sustained }) => sustained !== null).sort((a, b) => b.sustained! - a.sustained!);
  const hottestOf = ({ own }: (typeof byArm)[number]) => Math.max(...own.map(({ hottestC }) => hottestC));
  const best = rated
    .filter(({ sustained }) => sustained! > rated[0].sustained! * 0.98)
    .sort((a, b) => hottestOf(a) - hottestOf(b))[0];
  const said = (best ?? byArm[0])?.own[0];
  const limit = context.limitC;
  let sentence = "Run the first of the plan, long enough to settle.";
  if (said) {
    const where =
      said.fit && said.throttles.length === 0
        ? `settles at ${said.fit.settledC.toFixed(1)} °C (95 %: ${said.fit.settledInterval.low.toFixed(1)} to ${said.fit.settledInterval.high.toFixed(1)})`
        : `reaches ${said.hottestC.toFixed(0)} °C`;
    const to =
      limit === null
        ? ""
        : said.throttles.length > 0
          ? `, and heat takes the ${said.throttles[0].half} clock back after ${(said.throttles[0].startMs / 60_000).toFixed(1)} min`
          : said.secondsToLimit === null
            ? `, under the limit of ${limit} °C: never at this load`
            : `, with the limit of ${limit} °C after ${(said.secondsToLimit / 60).toFixed(1)} min`;
    const rates =
      said.burst !== null && said.sustained !== null
        ? ` Burst ${said.burst.toFixed(1)} fps, sustained ${said.sustained.toFixed(1)}.`
        : "";
    const cool =
      said.coolDownMinutes !== null
        ? ` Give it ${Math.ceil(said.coolDownMinutes)} min to cool between runs.`
        : "";
    const others = byArm
      .filter(({ arm }) => arm !== said.arm)
      .flatMap(({ own }) => own.filter(({ throttles }) => throttles.length > 0).slice(0, 1))
      .map(
        (row) =>
          ` ${capital(arms[row.arm].name)} throttles after ${(row.throttles[0].startMs / 60_000).toFixed(1)} min, down to ${(100 * Math.min(...row.throttles.map(({ deepest }) => deepest))).toFixed(0)} % of its early clock.`,
      )
      .join("");
    sentence = `${arms.length > 1 ? `${capital(arms[said.arm].name)} ` : "It "}${where}${to}.${rates}${others}${cool}`;
  }
  return {
    kind: "heat",
    rows,
    limitC: limit,
    sentence,
    missing,
    arm: best && byArm.length > 1 ? best.arm : null,
  };
}

function clocks(arms: SweepArm[], runs: SweepRun[], context: SweepContext): ClocksFit {
  const throttled = (run: SweepRun) =>
    run.trace ? throttling(run.trace.channels, context.limitC).length > 0 : false;
  const soaks = runs.map((run) => ({
    step: run.arm,
    minutes: run.summary.durationMs / 60_000,
    crashed: run.crashed,
    artefacts: run.artefacts,
    hottestC: run.summary.channels.temperature?.max ?? null,
    throttled: throttled(run),
  }));
  const state = ladder(
    { steps: arms.map(({ name }) => name), soakMinutes: context.soakMinutes, limitC: context.limitC },
    soaks,
  );
  const rows = runs.map((run, index) => {
    const rates = run.trace ? burstAndSustained(run.trace) : null;
    return {
      arm: run.arm,
      minutes: soaks[index].minutes,
      fps: rates?.sustained ?? effectiveFps(run.summary, context.nativeFps),
      hottestC: soaks[index].hottestC,
      watts: run.summary.channels.watts?.mean ?? null,
      why: ladderStep(soaks[index], context.limitC),
    };
  });
  const schools = arms.flatMap(({ name }, arm) => {
    const own = rows.filter((row) => row.arm === arm && row.why === null);
    if (own.length === 0) return [];
    const meanOf = (pick: (row: (typeof own)[number]) => number | null) => {
      const values = own.map(pick).filter((value): value is number => value !== null);
      return values.length > 0 ? values.reduce((a, b) => a + b) / values.length : null;
    };
    return [
      {
        name,
        sustainedFps: meanOf((row) => row.fps)!,
        hottestC: meanOf((row) => row.hottestC),
        watts: meanOf((row) => row.watts),
      },
    ];
  });
  const school = schools.length > 1 ? chooseSchool(schools, context.targetFps, context.limitC) : null;
  const missing = runs.some(({ summary }) => summary.channels.temperature === undefined)
    ? ["Temperature wasn't logged: the ladder can't stop at the limit. Watch it yourself."]
    : [];
  const done = state.next.kind === "done";
  return {
    kind: "clocks",
    state,
    rows,
    school,
    sentence: `${capital(state.next.sentence)}${school ? ` ${capital(school.sentence)}` : ""}`,
    missing,
    arm: school ? arms.findIndex(({ name }) => name === school.name) : done ? state.lastClean : null,
  };
}

function memory(arms: SweepArm[], runs: SweepRun[], context: SweepContext): MemoryFit {
  const missing: string[] = [];
  if (context.memoryMb === null)
    missing.push("The rig's memory isn't written down: minutes to the wall can't be given.");
  const rows = runs.flatMap((run): MemoryRow[] => {
    const held = channelOf(run, "memory");
    const died = run.crashed ? run.summary.durationMs / 60_000 : null;
    if (!held) {
      missing.push(`Run ${run.number} logged no memory.`);
      return [];
    }
    const points = thinned(held.times, held.values, heatShown);
    // Where the run died, what it died at is the wall; the rig's figure leaves out what the system keeps.
    const wall = run.crashed
      ? Math.min(context.memoryMb ?? Infinity, held.values[held.values.length - 1])
      : context.memoryMb;
    return [
      {
        run: run.number,
        arm: run.arm,
        points: { minutes: [...points.times.map((ms) => ms / 60_000)], megabytes: [...points.values] },
        growth: memoryGrowth(held.times, held.values, wall),
        diedAfterMinutes: died,
      },
    ];
  });
  const longest = [...rows].sort((a, b) => b.points.minutes.at(-1)! - a.points.minutes.at(-1)!)[0];
  const growth = longest?.growth ?? null;
  const hours = runs.reduce((sum, { summary }) => sum + summary.durationMs, 0) / 3_600_000;
  const crashed = runs.filter((run) => run.crashed).length;
  // What the system keeps for itself stays the same on a rig with more.
  const kept = (context.memoryGb ?? 0) * 1024 - (context.memoryMb ?? 0);
  const others = [8, 12, 16, 24]
    .filter((gigabytes) => gigabytes > (context.memoryGb ?? 0))
    .slice(0, 2)
    .map((gigabytes) => ({ gigabytes, minutes: growth ? minutesWith(growth, gigabytes * 1024 - kept) : null }));
  let sentence = "Run the scene for some minutes with memory logged.";
  if (growth && !growth.grows)
    sentence = `Memory doesn't grow beyond doubt: ${growth.mbPerMinute.toFixed(1)} MB a minute (95 %: ${growth.low.toFixed(1)} to ${growth.high.toFixed(1)}).`;
  else if (growth) {
    const wall =
      growth.minutesToLimit === null
        ? ""
        : `; the wall comes after ${growth.minutesToLimit.toFixed(1)} min (95 %: ${growth.minutesLow!.toFixed(1)} to ${growth.minutesHigh!.toFixed(1)})`;
    const died =
      longest.diedAfterMinutes === null ? "" : ` It died after ${longest.diedAfterMinutes.toFixed(1)} min.`;
    const more =
      others[0]?.minutes != null
        ? ` With ${others[0].gigabytes} GB it would last about ${others[0].minutes.toFixed(0)} min.`
        : "";
    sentence = `Memory grows by ${growth.mbPerMinute.toFixed(0)} MB a minute${wall}.${died}${more}`;
  }
  return {
    kind: "memory",
    rows,
    limitMb: context.memoryMb,
    others,
    crashes: hours > 0 ? crashRate(crashed, hours) : null,
    sentence,
    missing,
    arm: null,
  };
}

const fits = { resolution, power, heat, clocks, memory };

/** Fits a sweep as far as its runs go; with too few levels it says what is missing and still gives what it can. */
export function fitSweep(
  kind: keyof typeof fits,
  arms: SweepArm[],
  runs: SweepRun[],
  context: SweepContext,
): SweepFit {
  return fits[kind](arms, runs, context);
}
