import type { TrialPlan } from "./shapesSchema";

/** What an arm is in its trial; nothing is decided by its name. */
export const armRoles = [
  /** What was in force. */
  "as it is",
  "changed",
  /** A place on an ordered factor: a scale, a mode, a step of a ladder. */
  "level",
  /** A row of a screening design. */
  "row",
  /** The cap lifted, the cap set, and the emulated clock overdriven without a cap. */
  "free",
  "capped",
  "overdriven",
] as const;
export type ArmRole = (typeof armRoles)[number];
export const emptyPlan: TrialPlan = { minutes: null, soakMinutes: null, elsewhereWatts: null, keys: [] };

/** Arms that one trial holds at most: a screening of 23 switches, folded over. */
export const mostArms = 48;
