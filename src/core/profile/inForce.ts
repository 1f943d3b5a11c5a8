import { changesBetween, type ArmConditions, type Settings, type SettingValue } from "@/core/kit";

/** What holds for a job now: settings, conditions that were kept, and the build. */
export interface Standing {
  settings: Settings;
  conditions: ArmConditions;
  buildId: string | null;
}

/** A decided trial, in as far as it changes what holds. */
export interface Decided {
  /** What held when the trial began. */
  before: Settings;
  /** The arm that was kept; null when all was put back. */
  kept: { settings: Settings; conditions: ArmConditions; buildId: string | null } | null;
  /** What the decision is about, where the trial also set other things for its own sake; empty for all it changed. */
  keys?: string[];
}

/**
 * What holds after a job's decisions, in their order: each kept arm changes what it changed, and nothing else, so taking
 * back an earlier decision leaves later ones standing.
 */
export function inForce(base: Standing, decided: Decided[]): Standing {
  return decided.reduce((held, { before, kept, keys = [] }) => {
    if (!kept) return held;
    const changes = changesBetween(before, kept.settings)
      .filter(({ key, to }) => to !== null && (keys.length === 0 || keys.includes(key)))
      .map(({ key, to }) => [key, to]);
    return {
      settings: { ...held.settings, ...Object.fromEntries(changes) },
      conditions: { ...held.conditions, ...kept.conditions },
      buildId: kept.buildId ?? held.buildId,
    };
  }, base);
}

/** One override of a profile, with where it comes from. */
export interface Override {
  key: string;
  from: SettingValue | null;
  to: SettingValue | null;
  /** Number of the trial that put it there; null where it was so from the start. */
  trial: number | null;
  /** The trial's effect in words; empty where nothing proved it. */
  proof: string;
}

/** A profile's overrides: what differs from the engine's defaults, each with the last trial that kept it. */
export function overrides(
  defaults: Settings,
  standing: Standing,
  decided: (Decided & { number: number; proof: string })[],
): Override[] {
  return changesBetween(defaults, standing.settings).map(({ key, from, to }) => {
    const by = [...decided]
      .reverse()
      .find(({ before, kept }) => kept !== null && kept.settings[key] === to && before[key] !== to);
    return { key, from, to, trial: by?.number ?? null, proof: by?.proof ?? "" };
  });
}
