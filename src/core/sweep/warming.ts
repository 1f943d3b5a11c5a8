import type { HeatPart } from "./shape";

/** What a warming curve is told by, °C and s; two parts where a fast and a slow one show. */
export interface Curve {
  startC: number;
  settledC: number;
  settleSeconds: number;
  parts?: [HeatPart, HeatPart];
}

/** Temperature on a warming curve: T∞ − (T∞ − T0)·e^(−t/τ), or the sum of its parts, °C. */
export const heatAt = ({ startC, settledC, settleSeconds, parts }: Curve, seconds: number) =>
  parts
    ? parts.reduce((sum, part) => sum + part.riseC * (1 - Math.exp(-seconds / part.settleSeconds)), startC)
    : settledC - (settledC - startC) * Math.exp(-seconds / settleSeconds);
