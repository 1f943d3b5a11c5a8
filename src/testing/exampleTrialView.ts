import type { TrialView } from "@/contract";
import { armFigures, evidenceOf, kindOf, progressOf, targetFpsOf, understand } from "@/core/trial";
import { exampleTrial, type ExampleRun } from "./exampleTrial";
import { lendingDesk } from "@/core/verdict";

/** A trial as its page gets it, from made-up runs and without a database: for tests. */
export function exampleTrialView(
  kind: string,
  arms: Parameters<typeof exampleTrial>[1],
  runs: ExampleRun[],
  more: Parameters<typeof exampleTrial>[3] = {},
): TrialView {
  const { facts, traces } = exampleTrial(kind, arms, runs, { noise: { sd: 0.01, freedom: 30 }, ...more });
  const made = understand(facts, traces);
  const progress = progressOf({ ...facts.trial, decidedAt: null }, facts.runs);
  return {
    job: { id: "job", title: "The Long Stair", rules: lendingDesk, buildId: "build", closedAt: null },
    trial: {
      ...facts.trial,
      ...progress,
      id: "trial",
      version: 4,
      number: 1,
      jobId: "job",
      decidedAt: null,
      choice: null,
      keptArm: null,
      reason: "",
      outcome: null,
    },
    kind: kindOf(kind),
    keptNames: facts.trial.arms.map((arm, at) => kindOf(kind).keptName(arm, at === made.advice?.arm)),
    targetFps: targetFpsOf(facts),
    runs: [],
    faults: [],
    noise: facts.noise,
    noiseMeasured: true,
    visits: [],
    drifted: [],
    ...made,
    pending: null,
    evidence: evidenceOf(facts),
    figures: armFigures(facts),
    catalogue: facts.catalogue,
    limits: { temperatureC: 90, batteryWh: 48 },
    display: { name: "own screen", width: 1280, height: 800, diagonalInch: 7 },
    screens: facts.screens,
  } as unknown as TrialView;
}
