import type { Setting, Settings } from "@/core/kit";
import { kindOf } from "./kinds";
import type { Draft } from "./drafting";

/** What a plan costs beside its runs. */
export interface Costs {
  catalogue: Pick<Setting, "key" | "restart">[];
  settings: Settings;
  /** Minutes of one pass of the scene. */
  sceneMinutes: number;
  /** Between runs, as a heat sweep measured it; null where none did. */
  coolDownMinutes: number | null;
}

const restartMinutes = 2,
  breathMinutes = 1;

/**
 * Minutes that a plan takes: runs, restarts where a setting needs one, cool-down between runs, else a breath.
 */
export function planMinutes(
  draft: Pick<Draft, "arms" | "rounds" | "plan" | "kind">,
  { catalogue, settings: now, sceneMinutes, coolDownMinutes }: Costs,
): number {
  const kind = kindOf(draft.kind);
  const one = kind.runMinutes(draft, sceneMinutes);
  const needsRestart = (settings: Settings) =>
    catalogue.some(({ key, restart }) => restart && settings[key] !== now[key]);
  const restarts = draft.arms.filter(({ settings }) => needsRestart(settings)).length;
  const between = coolDownMinutes ?? breathMinutes;
  return Math.ceil(kind.runs(draft) * (one + between) + restarts * draft.rounds * restartMinutes);
}
