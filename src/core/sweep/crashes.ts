import type { CrashRate } from "./shape";
import { garwood, poissonUpper } from "@/core/stats";

/**
 * Poisson rate with the exact interval of Garwood (1936); none in t hours rules out more than 2.996/t.
 * @param hours of running, > 0
 * @throws RangeError without time
 * @example crashRate(1, 1) // → 1 an hour, 0.03 … 5.57
 */
export function crashRate(crashes: number, hours: number): CrashRate {
  if (!(hours > 0)) throw new RangeError("a rate needs time");
  const { low, high } = garwood(crashes);
  return {
    crashes,
    hours,
    perHour: crashes / hours,
    low: low / hours,
    high: high / hours,
    ruledOutAbove: poissonUpper(crashes) / hours,
  };
}
