import { assumedNoise } from "@/core/compare";
import { firstConditions, type RigSpec } from "@/core/kit";
import { summarise } from "@/core/metrics";
import type { Trace } from "@/core/trace";
import { judge, lendingDesk } from "@/core/verdict";
import type { TrialFacts, TrialRun, Traces } from "@/core/trial/facts";
import { emptyPlan } from "@/core/trial/shapes";
import type { Arm, TrialPlan } from "@/core/trial/shapesSchema";

/** A made-up rig, for tests and benchmarks. */
export const exampleSpec: RigSpec = {
  kind: "made-up handheld",
  processor: { clusters: [{ cores: 8, baseGhz: 2, boostGhz: 3 }] },
  graphics: { units: 8, clockGhz: 1 },
  memoryGb: 8,
  storage: "",
  system: { version: "1", date: null },
  driver: { version: "1", date: null },
  displays: [
    { name: "own screen", connection: "built in", width: 1280, height: 800, refreshHz: [60], diagonalInch: 7 },
  ],
  powerModes: [
    { name: "low", watts: 8, use: "any" },
    { name: "high", watts: 16, use: "any" },
  ],
  clockOptions: ["quiet", "forced"],
  cooling: { kind: "fan", coolerToHand: true },
  batteryWh: 48,
  temperatureLimitC: 90,
};

export interface ExampleRun {
  arm: number;
  trace: Trace;
  crashed?: boolean;
  cold?: boolean;
  faults?: TrialRun["faults"];
}

/** A made-up trial with measured runs, for tests and benchmarks. */
export function exampleTrial(
  kind: string,
  arms: (Partial<Arm> & Pick<Arm, "name">)[],
  runs: ExampleRun[],
  more: Partial<TrialFacts> & { plan?: Partial<TrialPlan>; rounds?: number; cold?: boolean } = {},
): { facts: TrialFacts; traces: Traces } {
  const { plan, rounds = 1, cold = false, ...facts } = more;
  const targetFps = facts.targetFps ?? 60;
  const nativeFps = facts.nativeFps ?? targetFps;
  const yardstick = { nativeFps, tied: facts.tied ?? true, targetFps, refreshHz: 60 };
  const rules = facts.rules ?? lendingDesk;
  const spec = facts.rig?.spec ?? exampleSpec;
  const made = runs.map(
    ({ arm, trace, crashed = false, cold: isCold = false, faults = [] }, index): TrialRun => {
      const summary = summarise(trace, yardstick, rules.measuring);
      return {
        id: `run ${index + 1}`,
        number: index + 1,
        arm,
        summary,
        verdict: judge(summary, rules, { crashed, faults }),
        crashed,
        cold: isCold,
        conditions: firstConditions(spec),
        rigRevisionId: "revision 1",
        madeAt: new Date(Date.UTC(2026, 0, 1, 12, 10 * index)).toISOString(),
        yardstick,
        rules,
        faults,
      };
    },
  );
  return {
    facts: {
      trial: {
        kind,
        name: `a ${kind} trial`,
        arms: arms.map((arm) => ({
          settings: {},
          conditions: {},
          buildId: null,
          level: null,
          role: "level",
          ...arm,
        })),
        rounds,
        cold,
        plan: { ...emptyPlan, ...plan },
        before: { settings: arms[0]?.settings ?? {}, conditions: {}, targetFps: null },
      },
      runs: made,
      nativeFps,
      tied: true,
      targetFps,
      aim: "speed",
      rules,
      rig: { name: "Lantern", revision: 1, revisionId: "revision 1", spec },
      screens: [{ width: 640, height: 448, pixelAspect: 1 }],
      usefulScale: null,
      patches: [],
      catalogue: [],
      noise: assumedNoise,
      ...facts,
    },
    traces: new Map(runs.map(({ trace }, index) => [`run ${index + 1}`, trace])),
  };
}
