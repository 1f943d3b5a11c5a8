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

const restartMinutes = 2;
/** Runs over so many minutes heat a device enough to plan a cool-down that nobody measured; ours. */
const warmingMinutes = 5,
  coolDownUnmeasured = 3;

/**
 * Minutes that a plan takes: runs, restarts where a setting needs one, and cool-down between runs where it was
 * measured or runs are long. To a tenth.
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
  const between = coolDownMinutes ?? (one > warmingMinutes ? coolDownUnmeasured : 0);
  const all = kind.runs(draft) * (one + between) + restarts * draft.rounds * restartMinutes;
  return Math.ceil(10 * all - 1e-9) / 10;
}
