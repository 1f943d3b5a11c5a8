import { deviceUnder, simulate, underSettings, type SimProfile } from "@/core/simulator";
import { compareArms } from "@/core/compare";
import { diagnose, type Diagnosis } from "@/core/diagnose";
import type { Settings } from "@/core/kit";
import { summarise, type Summary } from "@/core/metrics";
import { seeded, type Random } from "@/core/stats";
import { grades, judge } from "@/core/verdict";
import type { Tried } from "@/core/advise/history";
import { leversFor } from "@/core/advise/levers";
import type { Lever } from "@/core/advise/shape";
import { problemNames, problemOf, type BenchProblem } from "./problems";
import { outOfReach, suggest, type SuggestInput } from "@/core/advise/suggest";

/** How an afternoon ended. */
export interface Afternoon {
  /** Full speed; or, where it can't be had, said to be out of reach. */
  right: boolean;
  /** Runs made for trials. */
  runs: number;
  trials: string[];
}

const mostTrials = 24;
const rules = {
  mayChange: { clocks: true, powerMode: true, picture: true },
  requires: { pluggedIn: null, docked: null, cooler: null },
};
const fullSpeed = 99;

/** Which lever an afternoon takes next; null ends it. */
export type Choosing = (input: SuggestInput, random: Random) => { lever: Lever | null; outOfReach: boolean };

export const bySuggestion: Choosing = (input) => ({
  lever: suggest(input, 1)[0]?.lever ?? null,
  outOfReach: outOfReach(input, true) !== null,
});

/** Any lever towards speed that wasn't tried yet, in no order. */
export const atRandom: Choosing = ({ levers, history }, random) => {
  const left = levers.filter(
    ({ key, to, towards }) =>
      towards !== "picture" && !history.some((tried) => tried.key === key && tried.to === to),
  );
  return { lever: left[random.whole(Math.max(1, left.length))] ?? null, outOfReach: left.length === 0 };
};

/**
 * One afternoon: a baseline, then a change at a time by two rounds, kept where it is better, until full speed
 * or nothing is left.
 */
export function afternoon(problem: BenchProblem, choosing: Choosing, seed: number): Afternoon {
  const random = seeded(seed);
  const { profile, workload, effects, catalogue } = problem;
  let settings = problem.begin;
  const conditions = { powerMode: problem.powerMode, clocks: problem.clocks };
  const history: Tried[] = [];
  const made: Afternoon = { right: false, runs: 0, trials: [] };
  const traceUnder = (chosen: Settings, under: { powerMode: string | null; clocks: string | null }) => {
    const device = deviceUnder(profile, {
      ...under,
      display: null,
      pluggedIn: false,
      cooler: false,
      roomC: null,
    });
    const { together, spread = 0 } = problem;
    const isTogether = together && Object.entries(together.keys).every(([key, value]) => chosen[key] === value);
    const all = isTogether ? { ...effects, together: { yes: together.effect } } : effects;
    const work = underSettings(workload, isTogether ? { ...chosen, together: "yes" } : chosen, all);
    const slower = Math.exp(spread * random.normal());
    const { processorMs, graphicsMs, graphicsMsPerMegapixel } = work;
    return simulate(
      device,
      {
        ...work,
        processorMs: processorMs * slower,
        graphicsMs: graphicsMs * slower,
        graphicsMsPerMegapixel: graphicsMsPerMegapixel * slower,
      },
      random.whole(2 ** 30),
      false,
    ).trace;
  };
  const yardstick = { nativeFps: 60, tied: true, targetFps: 60, refreshHz: 60 };
  for (let trial = 0; trial < mostTrials; trial++) {
    const summary = summarise(traceUnder(settings, conditions), yardstick);
    const isThere = summary.speedPercent >= fullSpeed;
    if (isThere) return { ...made, right: problem.reachable };
    const input: SuggestInput = {
      levers: leversFor({
        catalogue,
        settings,
        rules,
        spec: {
          powerModes: Object.keys(profile.modes).map((name) => ({
            name,
            watts: profile.modes[name]?.budgetWatts ?? null,
            use: "any" as const,
          })),
          clockOptions: Object.keys(profile.governors),
          cooling: { kind: "fan", coolerToHand: false },
        },
        conditions: { ...conditions, cooler: false, docked: false, pluggedIn: false },
      }),
      diagnosis: diagnosed(summary, profile, conditions.powerMode),
      aim: "speed",
      speedPercent: summary.speedPercent,
      steady: false,
      history,
      sceneMinutes: 1,
    };
    const { lever, outOfReach: isOut } = choosing(input, random);
    if (isOut || !lever) return { ...made, right: !problem.reachable };
    const changed = { ...conditions, ...lever.conditions };
    const arms = [
      [traceUnder(settings, conditions)],
      [traceUnder(lever.settings, changed), traceUnder(lever.settings, changed)],
    ];
    arms[0]?.push(traceUnder(settings, conditions));
    made.runs += 4;
    made.trials.push(`${lever.key} ${String(lever.to)}`);
    const [pair] = compareArms(arms, {
      targetFps: 60,
      nativeFps: 60,
      places: [
        [0, 3],
        [1, 2],
      ],
      noise: { sd: Math.max(0.012, problem.spread ?? 0), freedom: 10 },
      resamples: 10,
    }).pairs;
    // Near the rate a gain can't reach the margin; every run brighter counts, as on the trial's page.
    const lights = arms.map((arm) =>
      arm.map((trace) => grades.indexOf(judge(summarise(trace, yardstick)).grade ?? "dark")),
    );
    const helped =
      pair?.decision === "better" || Math.max(...(lights[1] ?? [])) < Math.min(...(lights[0] ?? []));
    history.push({
      key: lever.key,
      from: lever.from,
      to: lever.to,
      relieves: lever.relieves,
      helped,
      logGain: Math.log(pair?.comparison.averageFps.ratio ?? 1),
    });
    if (helped) {
      settings = lever.settings;
      Object.assign(conditions, changed);
    }
  }
  return made;
}

function diagnosed(summary: Summary, { device, modes }: SimProfile, mode: string): Diagnosis {
  return diagnose({
    summary,
    cacheState: "warm",
    crashed: false,
    limits: {
      temperatureC: device.limitC,
      memoryMb: device.memoryMb,
      modeWatts: modes[mode]?.budgetWatts ?? null,
      processorMhz: device.processorMhz,
      graphicsMhz: device.graphicsMhz,
      refreshHz: 60,
    },
  });
}

/** Afternoons of every problem: how many ended right, and the runs those took. */
export interface Scored {
  name: string;
  right: number;
  /** Mean runs of the afternoons that ended right; null where none did. */
  runs: number | null;
}

export function scoreAdvice(choosing: Choosing, afternoons: number, seed: number): Scored[] {
  return problemNames.map((name, at) => {
    const all = Array.from({ length: afternoons }, (_, k) =>
      afternoon(problemOf(at, seed + k), choosing, seed + 1000 * at + k),
    );
    const right = all.filter((each) => each.right);
    return {
      name,
      right: right.length,
      runs: right.length > 0 ? right.reduce((sum, { runs }) => sum + runs, 0) / right.length : null,
    };
  });
}
