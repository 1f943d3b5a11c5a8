import type { Said } from "@/core/said";
import type { SignCodes } from "./codes";
import { weights } from "./weights";

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

/** One sign: what it speaks for (or against, below 0), how strongly, and what was seen. */
export interface Evidence {
  cause: Cause;
  weight: number;
  sign: Said;
}

/** A sign with the weight that its code has in the table. */
export function evidence<Sign extends keyof SignCodes>(
  cause: Cause,
  code: Sign,
  figures: SignCodes[Sign],
  weight: number = weights[code].weight,
): Evidence {
  return { cause, weight, sign: { code, figures: figures ?? {} } };
}
