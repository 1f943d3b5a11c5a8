import type { NextScale } from "./shape";
import { said } from "./codes";
import type { ScaleLaw } from "./shape";

/**
 * Which scale to measure next: the nearest unmeasured one to where the law crosses the target, while the
 * largest scale is still open.
 *
 * @param measured scales with runs, at least three before anything is proposed
 * @param offered  scales that the setting takes
 * @returns null when the sweep is settled or has too few levels
 */
export function nextScale(
  law: ScaleLaw,
  measured: number[],
  offered: number[],
  targetFps: number,
): NextScale | null {
  if (measured.length < 3) return null;
  if (!law.limitedByPixels) return null;
  const [low, high] = law.largestScaleInterval ?? [0, 0];
  if (law.largestScale !== null && measured.includes(law.largestScale) && low === high) return null;
  const open = offered.filter(
    (scale) => !measured.includes(scale) && scale >= Math.max(1, low) && scale <= high + 1,
  );
  const crossing = law.predicted.filter(({ holds }) => holds).at(-1)?.scale ?? offered[0];
  const at = open.sort((a, b) => Math.abs(a - crossing) - Math.abs(b - crossing))[0];
  if (at === undefined) return null;
  return {
    scale: at,
    sentence: said("resolution.next", { scale: at, targetFps, low, high }),
  };
}
