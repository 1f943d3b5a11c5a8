/** What can hold a run back. */
export const causes = [
  "processor",
  "graphics",
  "power split",
  "governor",
  "heat",
  "memory",
  "shaders",
  "storage",
  "cap or sync",
  "engine or driver",
] as const;
export type Cause = (typeof causes)[number];
