/** Chance from which a number of further runs is named as settling a comparison. */
export const enoughChance = 0.85;

/** So many further runs a side, and the chance that they settle a comparison. */
export interface Step {
  more: number;
  chance: number;
}
/** A chance under which the last step isn't worth anybody's evening. */
const worthwhile = 0.6;
/** Whether further runs that somebody would make settle a comparison. */
export const settles = (steps: Step[]) => (steps.at(-1)?.chance ?? 0) >= worthwhile;
