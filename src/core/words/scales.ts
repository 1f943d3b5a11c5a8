import type { Sentences } from "./said";
import type { ResolutionCodes, ScaleSaid } from "@/core/resolution";

const times = (n: number) => (n >= 10 ? n.toFixed(0) : n.toFixed(1)).replace(/\.0$/, "");
const first = ({ scale, width, height }: ScaleSaid) => `Try ×${scale} first (${width}×${height}): `;
const costing = ({ cost }: ScaleSaid) => `, at ${times(cost)} times the pixels of ×1`;
const pastIt = (next: number | null) =>
  next === null ? "" : `; ×${next} is past the screen and buys only smoothing`;

/** Which scale to try first on a display, and why. */
export const scaleSentences = {
  "scale.underAll": (of) =>
    `${first(of)}even the largest scale listed stays under the ${of.lines} lines the display gives it${costing(of)}.`,
  "scale.exact": ({ next, ...of }) =>
    `${first(of)}it meets the ${of.lines} lines it is shown at exactly${costing(of)}${pastIt(next)}.`,
  "scale.fills": ({ next, ...of }) =>
    `${first(of)}it is the least that fills the ${of.lines} lines it is shown at${costing(of)}${pastIt(next)}.`,
  "scale.within": ({ useful, usefulCost, ...of }) =>
    `${first(of)}it lies within the ${of.lines} lines it is shown at${costing(of)}; ×${useful} would fill them for ${times(usefulCost)} times as much.`,
} satisfies Partial<Sentences<ResolutionCodes>>;
