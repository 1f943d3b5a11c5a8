import type { Said } from "@/core/said";
import type { Cause } from "./causes";
import type { SignCodes } from "./codes";
import { weights } from "./weights";

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
