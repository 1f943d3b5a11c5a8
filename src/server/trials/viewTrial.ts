import { comparePlaces, runsOf } from "@/core/job";
import type { TrialView } from "@/contract";
import {
  armFigures,
  displayOf,
  driftOf,
  evidenceOf,
  kindOf,
  targetFpsOf,
  visitsOf,
  type Planned,
  type TrialFacts,
  type TrialOutcome,
  type Understood,
} from "@/core/trial";
import type { TrialRow } from "@/core/records";
import { words } from "@/core/words";
import * as data from "@/data";
import { Problem } from "@/server/problem";
import { threadRuns } from "@/server/runs/threadRun";
import { fingerprintOf, loadTrial, understood, understoodAfresh, understoodAtHand } from "./trialFacts";

export async function viewTrial(id: string): Promise<TrialView> {
  const { job, trial, story, facts, rig, system, noise, noiseMeasured } = await loadTrial(id);
  const own = runsOf(trial, story.runs);
  const [atHand, runs, faults] = await Promise.all([
    understoodAtHand(id, facts),
    threadRuns(own),
    data.listFaults(job.id),
  ]);
  // What a decision rested on is kept with it, and stays as it was.
  const outcome = trial.outcome ?? atHand?.outcome ?? null;
  const waits = !atHand && !trial.outcome && evidenceOf(facts).every((arm) => arm.runs > 0);
  const { name, width, height, diagonalInch } = displayOf(facts);
  return {
    job: { ...job, targetFps: story.standing.targetFps },
    trial,
    decidedOnOther: await decidedOnOther(trial, facts, atHand),
    firstRun: own.find(({ trialId }) => trialId === null)?.number ?? null,
    ...saidByKind(trial, outcome?.advice.arm ?? null),
    runs,
    faults: faults.filter(({ runId }) => own.some((run) => run.id === runId)),
    targetFps: targetFpsOf(facts),
    noise,
    noiseMeasured,
    visits: visitsOf(facts),
    drifted: driftOf(facts),
    reading: atHand?.reading ?? null,
    outcome,
    advice: outcome?.advice ?? null,
    missing: atHand?.missing ?? [],
    pending: waits ? fingerprintOf(facts) : null,
    evidence: evidenceOf(facts),
    figures: armFigures(facts),
    places: comparePlaces(trial.arms.length, facts.runs),
    catalogue: facts.catalogue,
    limits: { temperatureC: rig.spec.temperatureLimitC, batteryWh: rig.spec.batteryWh },
    display: { name, width, height, diagonalInch },
    screens: system?.screens ?? [],
  };
}

/** What the runs of a decided trial say now, where they were changed after it and say something else. */
async function decidedOnOther(
  { decidedAt, mendedSince, outcome }: TrialRow,
  facts: TrialFacts,
  atHand: Understood | null,
): Promise<TrialView["decidedOnOther"]> {
  if (decidedAt === null || !mendedSince || !outcome) return null;
  const fresh = atHand ?? (await understoodAfresh(facts));
  const now = fresh.outcome?.headline ?? fresh.missing[0] ?? null;
  return now && words(now) === words(outcome.headline) ? null : { now };
}

/** What a trial's kind says of it, as its page shows it. */
export function saidByKind(
  { kind, arms }: Pick<Planned, "kind" | "arms">,
  advised: number | null,
): Pick<TrialView, "kind" | "keptNames"> {
  const { name, sweep, warmOnly, keptName } = kindOf(kind);
  return { kind: { name, sweep, warmOnly }, keptNames: arms.map((arm, at) => keptName(arm, at === advised)) };
}

/** What a trial comes to by the runs it has; nothing is kept. */
export async function viewOutcome(id: string): Promise<TrialOutcome> {
  const { facts } = await loadTrial(id);
  return outcomeOr409((await understoodAtHand(id, facts)) ?? (await understoodAfresh(facts)));
}

/**
 * What a trial comes to by the runs it has, made once for them and kept.
 * @throws Problem 409 that says what is missing
 */
export async function reckonTrial(id: string): Promise<TrialOutcome> {
  const { facts } = await loadTrial(id);
  return outcomeOr409(await understood(id, facts));
}

/** An outcome, or the refusal that names what is missing for it. */
export function outcomeOr409({ outcome, missing }: Awaited<ReturnType<typeof understood>>): TrialOutcome {
  if (outcome) return outcome;
  const [first] = missing;
  const title = first ? words(first) : "There is nothing to decide on yet.";
  throw new Problem(409, title, "Nothing was decided.", {}, { missing });
}
