import type { Override, Standing, Decidable } from "./shape";
import { changesBetween, type Settings } from "@/core/kit";
import { kindOf, type ArmConditions, type Before } from "@/core/trial";
import { saying, type Said, type SharedCodes } from "@/core/said";

const said = saying<SharedCodes>();

/** A decided trial, in as far as it changes what holds. */
export interface Decided {
  number: number;
  /** What held when the trial began. */
  before: Before;
  /** What was kept; null when all was put back. A target of `undefined` leaves it as it is. */
  kept: {
    settings: Settings;
    conditions: ArmConditions;
    buildId: string | null;
    targetFps?: number | null;
  } | null;
  proof: Said | null;
}

/** What proves a decision, in figures. */
function proofOf({ outcome, keptArm }: Decidable): Said | null {
  if (!outcome) return null;
  const pair = outcome.pairs.find(({ a, b }) => a === 0 && b === keptArm);
  // Where the rate is the same something else decided, and the headline says what.
  const isByRate = pair?.decision === "better" || pair?.decision === "worse";
  return pair && isByRate ? said("effect.pair", { pair }) : outcome.headline;
}

/** The decisions among a job's trials, in the order they were made. */
export function decisionsOf(trials: Decidable[]): Decided[] {
  const at = ({ decidedAt }: Decidable) => (decidedAt ? new Date(decidedAt).getTime() : 0);
  return trials
    .filter(({ decidedAt }) => decidedAt !== null)
    .sort((a, b) => at(a) - at(b))
    .map((trial) => {
      const kind = kindOf(trial.kind);
      const arm = trial.keptArm === null ? undefined : trial.arms[trial.keptArm];
      return {
        number: trial.number,
        before: trial.before,
        kept: arm
          ? {
              settings: kind.keptSettings(trial, arm, trial.outcome),
              conditions: arm.conditions,
              buildId: arm.buildId,
              ...(kind.setsTarget && arm.level !== null ? { targetFps: arm.level } : {}),
            }
          : null,
        proof: proofOf(trial),
      };
    });
}

/**
 * What holds after a job's decisions, in their order: the one place where settings, conditions, build and
 * target come from. Each kept arm changes what it changed, and nothing else, so taking back an earlier decision
 * leaves later ones standing.
 */
export function inForce(baseline: Standing, decided: Decided[]): Standing {
  return decided.reduce((held, { before, kept }) => {
    if (!kept) return held;
    const changes = changesBetween(before.settings, kept.settings).flatMap(({ key, to }) =>
      to !== null ? [[key, to] as const] : [],
    );
    return {
      settings: { ...held.settings, ...Object.fromEntries(changes) },
      conditions: { ...held.conditions, ...kept.conditions },
      buildId: kept.buildId ?? held.buildId,
      targetFps: kept.targetFps === undefined ? held.targetFps : kept.targetFps,
    };
  }, baseline);
}

/** A profile's overrides: what differs from the engine's defaults, each with the last trial that kept it. */
export function overrides(
  defaults: Settings,
  standing: Pick<Standing, "settings">,
  decided: Decided[],
): Override[] {
  return changesBetween(defaults, standing.settings).map(({ key, from, to }) => {
    const by = [...decided]
      .reverse()
      .find(({ before, kept }) => kept !== null && kept.settings[key] === to && before.settings[key] !== to);
    return { key, from, to, trial: by?.number ?? null, proof: by?.proof ?? null };
  });
}
