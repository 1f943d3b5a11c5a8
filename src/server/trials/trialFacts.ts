import { createHash } from "node:crypto";
import { runsOf, usefulScaleOf } from "@/core/job";
import { methodVersion } from "@/core/metrics";
import { kindOf, tracesNeeded, type TrialFacts, type Understood } from "@/core/trial";
import { targetOf } from "@/core/verdict";
import type { TrialNode } from "@/core/records";
import type { KeptTrace } from "@/core/trace";
import * as data from "@/data";
import { heavy } from "@/server/system/heavy";
import { loadOnRig, type OnRig } from "@/server/jobs/loadStory";
import { notFound } from "@/server/problem";

export interface LoadedTrial extends OnRig {
  trial: TrialNode;
  facts: TrialFacts;
}

/** A trial with all that it is understood from. */
export async function loadTrial(id: string): Promise<LoadedTrial> {
  const row = await data.findTrial(id);
  if (!row) throw notFound("trial");
  const onRig = await loadOnRig(row.jobId, { segments: true });
  const trial = onRig.story.trials.find((each) => each.id === id);
  if (!trial) throw notFound("trial");
  return { ...onRig, trial, facts: factsOf(onRig, trial) };
}

function factsOf({ job, story, rig, system, title, noise }: OnRig, trial: TrialNode): TrialFacts {
  const runs = runsOf(trial, story.runs);
  const { kind, name, arms, rounds, cold, plan, before } = trial;
  return {
    trial: { kind, name, arms, rounds, cold, plan, before },
    runs,
    nativeFps: job.nativeFps,
    tied: job.tied,
    targetFps: targetOf({ ...job, targetFps: story.standing.targetFps }),
    aim: job.aim,
    rules: job.rules,
    rig: { name: rig.name, revision: rig.revision, revisionId: rig.revisionId, spec: rig.spec },
    screens: system?.screens ?? [],
    usefulScale: usefulScaleOf(rig, system, runs.at(-1)?.conditions.display),
    patches: title.patches,
    catalogue: story.catalogue,
    noise,
  };
}

/** Raised whenever what is made of a trial's runs changes its meaning. */
const understandingVersion = 6;

/**
 * What a trial's runs, their figures, and all else that is read come to, as one short text: equal for equal
 * facts.
 */
export function fingerprintOf({ runs, ...facts }: TrialFacts): string {
  const told = runs.map(({ id, arm, crashed, cold, faults, verdict, summary, yardstick, rules }) => [
    [id, arm, crashed, cold, faults, verdict.grade, summary.version],
    [yardstick, rules],
  ]);
  const text = JSON.stringify([understandingVersion, methodVersion, facts, told]);
  return createHash("sha256").update(text).digest("hex");
}

async function tracesOf(facts: TrialFacts): Promise<ReadonlyMap<string, KeptTrace>> {
  const ids = tracesNeeded(facts);
  const found = await data.together(...ids.map((id) => async () => data.findKept(id)));
  return new Map(ids.flatMap((id, at) => (found[at] ? [[id, found[at]] as const] : [])));
}

/** What a trial comes to where that is at hand: kept for these very facts, or quick to make. Null otherwise. */
export async function understoodAtHand(id: string, facts: TrialFacts): Promise<Understood | null> {
  if (!kindOf(facts.trial.kind).slow) return understoodAfresh(facts);
  const kept = await data.findUnderstood(id);
  return kept?.fingerprint === fingerprintOf(facts) ? kept.understood : null;
}

/** What a trial comes to, made now and not kept. */
export const understoodAfresh = async (facts: TrialFacts): Promise<Understood> =>
  heavy("understand", [facts, await tracesOf(facts)]);

/** What a trial comes to: as kept for these very facts, else made now, once, and kept. */
export async function understood(id: string, facts: TrialFacts): Promise<Understood> {
  const atHand = await understoodAtHand(id, facts);
  if (atHand) return atHand;
  const made = await understoodAfresh(facts);
  await data.putUnderstood(id, fingerprintOf(facts), made);
  return made;
}
