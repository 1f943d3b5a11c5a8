import type { Settings } from "@/core/kit";
import {
  besideKeys,
  besideSettings,
  besideValues,
  decisionsOf,
  effectiveSettings,
  HeldValues,
  isBeside,
  type LayerValue,
} from "@/core/profile";
import { kindOf } from "@/core/trial";
import * as data from "@/data";
import { theApplication, type Actor } from "@/server/actor";
import { writing } from "@/server/writing";

/**
 * What a trial was about: settings swept, else those that its arms differ in from what was in force; conditions
 * and rates that its arms differ in.
 */
export function keysTriedIn({ kind, before, arms, plan }: data.DecidedOnRig): string[] {
  const settings = Object.keys(before.settings).filter(
    (key) =>
      (plan.keys.length === 0 || plan.keys.includes(key)) &&
      arms.some((arm) => arm.settings[key] !== before.settings[key]),
  );
  const beside = arms.map(({ conditions, level }) =>
    besideValues({ conditions, targetFps: kindOf(kind).setsTarget ? level : null }),
  );
  const keys = Object.values(besideKeys).filter((key) => new Set(beside.map((each) => each[key])).size > 1);
  return [...settings, ...keys];
}

/**
 * What held when a trial began: its settings, and of what is beside them what is known. A sweep's first arm is
 * no more in force than the others.
 */
function heldBefore({ before, arms: [first] }: data.DecidedOnRig): Settings {
  const asItIs = first?.role === "as it is" ? first.conditions : {};
  const conditions = { ...asItIs, ...before.conditions };
  return { ...before.settings, ...besideValues({ conditions, targetFps: before.targetFps }) };
}

/** What a decision left in force. */
export function leftBy(trial: data.DecidedOnRig): Settings {
  const kept = decisionsOf([trial])[0]?.kept;
  return kept ? { ...heldBefore(trial), ...kept.settings, ...besideValues(kept) } : heldBefore(trial);
}

/**
 * Lands what a decision keeps in the title's layer; what was put back, or taken back, stands there as it did
 * before. Runs in the transaction of the decision.
 * @param onlyNew leaves alone what the title's layer ever said something of
 */
export async function landDecision(
  actor: Actor,
  jobId: string,
  trialId: string,
  { onlyNew = false } = {},
): Promise<void> {
  const job = await data.findJob(jobId);
  if (!job) return;
  const place = { rigId: job.rigId, engineId: job.engineId };
  await data.lockProfile(place);
  const [decided, ofEngine, title, rig, own] = await data.together(
    async () => data.decidedOnRig(place),
    async () => data.catalogueAt(job),
    async () => data.findTitle(job.titleId),
    async () => data.findRig(job.rigId),
    async () => data.valuesOfTitle(place, job.titleId),
  );
  const catalogue = rig ? [...ofEngine, ...besideSettings(rig.spec, job.nativeFps)] : ofEngine;
  const systemId = title?.systemId ?? null;
  const trial = decided.find(({ id }) => id === trialId);
  const [decision] = trial ? decisionsOf([trial]) : [];
  const of = { systemId, titleId: job.titleId, buildId: job.buildId };
  const held = await data.standingValues(place, { only: of });
  const base = {
    layer: "title" as const,
    systemId: null,
    titleId: job.titleId,
    buildId: null,
    actor: actor.name,
  };
  const current = new HeldValues(own).all;
  const isOf = ({ origin }: LayerValue) => origin.kind === "trial" && origin.trialId === trialId;
  // What a decision leaves in force lands: what it changed, and what it was about where the layers say
  // otherwise.
  const says = effectiveSettings(catalogue, held, of);
  const known = new Set(catalogue.map(({ key }) => key));
  const everSet = new Set(own.map(({ key }) => key));
  const left = trial ? leftBy(trial) : {};
  const before = trial ? { ...says, ...heldBefore(trial) } : {};
  const tried = trial ? keysTriedIn(trial) : [];
  const changed = Object.keys(left).filter(
    (key) =>
      known.has(key) &&
      !(onlyNew && everSet.has(key)) &&
      (isBeside(key) ? tried.includes(key) : true) &&
      (left[key] !== before[key] || (tried.includes(key) && left[key] !== says[key])),
  );
  const build = trial ? await data.findBuild(trial.ranBuildId) : null;
  const landed = changed.flatMap((key) => {
    const value = left[key];
    if (value === undefined || !trial) return [];
    return [
      {
        ...base,
        key,
        value,
        origin: {
          kind: "trial" as const,
          jobId,
          trialId,
          number: trial.number,
          proof: decision?.proof ?? null,
        },
        measuredOn: {
          revisionId: trial.revisionId,
          revision: trial.revision,
          driver: trial.driver,
          setUp: trial.setUp,
          buildId: trial.ranBuildId,
          build: build?.version ?? "",
        },
        at: trial.decidedAt ?? undefined,
      },
    ];
  });
  const back = (onlyNew ? [] : current)
    .filter((one) => isOf(one) && !changed.includes(one.key))
    .map((one) => {
      const before = own.findLast((each) => each.id < one.id && each.key === one.key && !isOf(each));
      return {
        ...base,
        key: one.key,
        value: before?.value ?? null,
        origin: before?.origin ?? { kind: "by hand" as const },
        measuredOn: before?.measuredOn ?? null,
      };
    });
  await data.addLayerValues(place, [...back, ...landed]);
}

/** Decisions landed in one go. */
const batch = 20;

/**
 * Lands decisions that were made before there were layers, where nothing was ever set since. @returns how many
 * are left
 */
export async function landEarlier(): Promise<number> {
  return writing(theApplication, async (touch) => {
    const waiting = await data.decisionsToLand(batch);
    for (const { id, jobId } of waiting) {
      await data.markLanded(id);
      await landDecision(theApplication, jobId, id, { onlyNew: true });
    }
    if (waiting.length > 0) touch({ kind: "profile", id: "" });
    return data.decisionsToLandCount();
  });
}
