import { contradicts } from "./assign";
import type { Progress, Visits, ArmFigures } from "./shape";
import { displayIn, outweighs, type Display } from "@/core/kit";
import { said } from "./codes";
import type { Said } from "@/core/said";
import type { TrialFacts, TrialRun, Traces } from "./facts";
import type { Planned } from "./shape";
import { kindOf, type Reading } from "./kinds";
import { usualLight } from "./outcome";
import type { Advice, ArmEvidence, TrialOutcome } from "./shape";

/**
 * Runs of a trial that count: whole ones, and cold or warm as it asks; a crash counts where a crash is an
 * answer.
 */
export function usableRuns<Run extends Pick<TrialRun, "crashed" | "cold" | "fromMemory" | "state">>(
  trial: Pick<Planned, "kind" | "cold">,
  runs: Run[],
): Run[] {
  const { crashCounts, warmOnly } = kindOf(trial.kind);
  return runs.filter(
    (run) =>
      !run.fromMemory &&
      run.state !== "cut off" &&
      (!run.crashed || crashCounts) &&
      (!warmOnly || trial.cold || !run.cold),
  );
}

/** How far a trial's runs have come. */
export function progressOf(
  trial: Planned & { decidedAt: string | null },
  runs: Pick<TrialRun, "arm" | "crashed" | "cold" | "fromMemory" | "state">[],
): Progress {
  const done = usableRuns(trial, runs).map(({ arm }) => arm);
  return {
    runs: trial.arms.map((_, arm) => done.filter((ran) => ran === arm).length),
    left: trial.decidedAt ? [] : kindOf(trial.kind).left(trial, done),
  };
}

/** The runs whose traces `understand` needs. */
export const tracesNeeded = ({ trial, runs }: TrialFacts): string[] =>
  kindOf(trial.kind)
    .tracesFor(usableRuns(trial, runs), trial)
    .map(({ id }) => id);

/** What a trial comes to, as far as its runs go. */
export interface Understood {
  reading: Reading | null;
  outcome: TrialOutcome | null;
  advice: Advice | null;
  /** Why there is no advice yet. */
  missing: Said[];
}

/** Everything that is computed from a trial's runs, in one place. */
export function understand(facts: TrialFacts, traces: Traces): Understood {
  const { trial, runs } = facts;
  const kind = kindOf(trial.kind);
  const usable = usableRuns(trial, runs);
  const evidence = evidenceOf(facts);
  const against = contradicting(facts);
  if (against) return { reading: null, outcome: null, advice: null, missing: [against] };
  const reading = kind.read({ ...facts, runs: usable }, traces) as Reading | null;
  const advised = kind.advise({ ...facts, usable, evidence }, reading);
  if (!advised.ok) return { reading, outcome: null, advice: null, missing: advised.missing };
  const outcome = { kind: trial.kind, arms: evidence, ...advised.outcome };
  return { reading, outcome, advice: outcome.advice, missing: [] };
}

/** Runs of one arm that lie too far apart to be of one thing: a mistake somewhere, which no sentence is made over. */
function contradicting({ trial, runs }: Pick<TrialFacts, "trial" | "runs">): Said | null {
  for (const [arm, { name }] of trial.arms.entries()) {
    const own = usableRuns(trial, runs)
      .filter((run) => run.arm === arm && !run.crashed && run.summary.averageFps > 0)
      .sort((a, b) => a.summary.averageFps - b.summary.averageFps);
    const [low, high] = [own[0], own.at(-1)];
    if (low && high && high.summary.averageFps > contradicts * low.summary.averageFps)
      return said("trial.contradicting", {
        arm: name,
        low: low.summary.averageFps,
        lowRun: low.number,
        high: high.summary.averageFps,
        highRun: high.number,
      });
  }
  return null;
}

/**
 * What every arm's runs came to: crashes and faults count over all of them, lights over those that are usable.
 */
export function evidenceOf({ trial, runs }: Pick<TrialFacts, "trial" | "runs">): ArmEvidence[] {
  return trial.arms.map(({ name }, arm) => {
    const own = runs.filter((run) => run.arm === arm),
      usable = usableRuns(trial, own);
    const { between } = usualLight(usable.map(({ verdict }) => verdict));
    return {
      name,
      runs: usable.length,
      ...(between && { between }),
      grades: usable.flatMap(({ verdict }) => verdict.grade ?? []),
      crashes: own.filter(({ crashed }) => crashed).length,
      hours: own.reduce((sum, { summary }) => sum + summary.durationMs, 0) / 3_600_000,
      faulted: own.some((run) => run.crashed || run.faults.some(outweighs)),
    };
  });
}

export function armFigures({ trial, runs, rules }: TrialFacts): ArmFigures[] {
  return trial.arms.map((_, arm) => {
    const own = runs.filter((run) => run.arm === arm);
    const mean = (pick: (summary: TrialRun["summary"]) => number | null | undefined) => {
      const values = own
        .map(({ summary }) => pick(summary))
        .filter((value): value is number => value !== null && value !== undefined);
      return values.length > 0 ? values.reduce((a, b) => a + b) / values.length : null;
    };
    return {
      speedPercent: mean(({ reportedSpeedPercent }) => reportedSpeedPercent),
      averageFps: mean(({ averageFps }) => averageFps),
      low: mean(({ lows }) => lows?.[rules.lowMethod].one),
      // Frames of an engine that shows old ones again say nothing of the title's speed.
      fullSpeedTimePercent: mean((summary) => (summary.counterDisagrees ? null : summary.fullSpeedTimePercent)),
      hitchesPerMinute: mean(({ hitches }) => hitches?.perMinute),
      watts: mean(({ channels }) => channels.watts?.mean),
    };
  });
}

/** Rooms this far apart make runs less alike, °C. */
const roomApartC = 4;
const dayMs = 86_400_000;

/** What has changed since a trial was begun that makes its runs less alike. */
export function driftOf({ trial, runs, rig }: TrialFacts): Said[] {
  const usable = usableRuns(trial, runs);
  if (usable.length === 0) return [];
  const made: Said[] = [];
  if (usable.some(({ rigRevisionId }) => rigRevisionId !== rig.revisionId))
    made.push(said("drift.revision", { rig: rig.name, revision: rig.revision }));
  const rooms = usable.map(({ conditions }) => conditions.roomC).filter((room) => room !== null);
  const [low, high] = [Math.min(...rooms), Math.max(...rooms)];
  if (rooms.length > 1 && high - low > roomApartC) made.push(said("drift.room", { low, high }));
  if (new Set(usable.map(({ conditions }) => conditions.capturePath)).size > 1)
    made.push(said("drift.capture"));
  for (const condition of ["pluggedIn", "docked", "cooler"] as const) {
    const byArm = trial.arms.map((arm, index) => ({
      set: arm.conditions[condition],
      seen: new Set(usable.filter((run) => run.arm === index).map(({ conditions }) => conditions[condition])),
    }));
    const mixed = byArm.some(({ seen }) => seen.size > 1);
    const across = new Set(byArm.flatMap(({ set, seen }) => (set === undefined ? [...seen] : []))).size > 1;
    if (mixed || across) made.push(said("drift.condition", { condition }));
  }
  const times = usable.map(({ madeAt }) => new Date(madeAt).getTime());
  const days = (Math.max(...times) - Math.min(...times)) / dayMs;
  if (days >= 1) made.push(said("drift.days", { days: Math.round(days) }));
  return made;
}

/** First and later visits of every run that visited a scene again. */
export function visitsOf({ runs }: Pick<TrialFacts, "runs">): Visits[] {
  return runs.flatMap(({ id, number, arm, summary }) => {
    const again = new Set(summary.segments.filter(({ visit }) => visit > 1).map(({ label }) => label));
    if (again.size === 0) return [];
    const lost = (first: boolean) => {
      const own = summary.segments.filter(({ label, visit }) => again.has(label) && (visit === 1) === first);
      return own.reduce((sum, { lostMs }) => sum + lostMs, 0) / own.length;
    };
    return [{ runId: id, number, arm, firstLostMs: lost(true), laterLostMs: lost(false), scenes: again.size }];
  });
}

/** The display that a trial's runs were shown on. */
export const displayOf = ({ rig, runs }: Pick<TrialFacts, "rig" | "runs">): Display =>
  displayIn(rig.spec, runs.at(-1)?.conditions.display);
