import type { Evidence } from "./shape";
import type { Cause } from "./causes";
import type { SignCodes } from "./codes";
import { weights } from "./weights";

/** A sign with the weight that its code has in the table. */
export function evidence<Sign extends keyof SignCodes>(
  cause: Cause,
  code: Sign,
  figures: SignCodes[Sign],
  weight: number = weights[code].weight,
): Evidence {
  return { cause, weight, sign: { code, figures: figures ?? {} } };
}
