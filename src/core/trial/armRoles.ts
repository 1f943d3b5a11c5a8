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
