import type { Step } from "./shape";
/** Chance from which a number of further runs is named as settling a comparison. */
export const enoughChance = 0.85;
/** A chance under which the last step isn't worth anybody's evening. */
const worthwhile = 0.6;
/** Whether further runs that somebody would make settle a comparison. */
export const settles = (steps: Step[]) => (steps.at(-1)?.chance ?? 0) >= worthwhile;
