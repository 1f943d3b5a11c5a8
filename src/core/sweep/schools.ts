import type { SchoolChoice } from "./shape";
import { said } from "./codes";

/** One way to run clocks, with what it came to over a long run. */
export interface School {
  name: string;
  sustainedFps: number;
  hottestC: number | null;
  watts: number | null;
}

/**
 * Force clocks or let the device manage: decided by what is sustained, then by heat and fps per watt.
 *
 * Of those that hold the target, the one with the most fps per watt; else the fastest that stays under the
 * limit.
 *
 * @throws RangeError without schools
 */
export function chooseSchool(
  schools: School[],
  targetFps: number,
  limitC: number | null,
  tolerance = 0.01,
): SchoolChoice {
  if (schools.length === 0) throw new RangeError("there is nothing to choose from");
  const fpsPerWatt = schools.map(({ sustainedFps, watts }) =>
    watts === null || watts <= 0 ? null : sustainedFps / watts,
  );
  const cool = ({ hottestC }: School) => limitC === null || hottestC === null || hottestC < limitC;
  const order = schools.map((_, i) => i);
  const holding = order.filter(
    (i) => schools[i].sustainedFps >= targetFps * (1 - tolerance) && cool(schools[i]),
  );
  if (holding.length > 0) {
    const at = holding.sort(
      (a, b) =>
        (fpsPerWatt[b] ?? 0) - (fpsPerWatt[a] ?? 0) || schools[b].sustainedFps - schools[a].sustainedFps,
    )[0];
    const { name, sustainedFps, hottestC } = schools[at];
    return {
      name,
      fpsPerWatt,
      sentence: said("school.holds", {
        name,
        fps: sustainedFps,
        celsius: hottestC,
        alone: holding.length === 1,
      }),
    };
  }
  const under = order.filter((i) => cool(schools[i]));
  const at = (under.length > 0 ? under : order).sort(
    (a, b) => schools[b].sustainedFps - schools[a].sustainedFps,
  )[0];
  const { name, sustainedFps } = schools[at];
  return {
    name,
    fpsPerWatt,
    sentence: said("school.none", { name, fps: sustainedFps, cool: under.length > 0 }),
  };
}
