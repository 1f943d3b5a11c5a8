/** A scale to try first, what it renders, what it costs, and the lines it is shown at. */
interface ScaleSaid {
  scale: number;
  width: number;
  height: number;
  /** Pixels against those of ×1. */
  cost: number;
  lines: number;
}

const times = (n: number) => (n >= 10 ? n.toFixed(0) : n.toFixed(1)).replace(/\.0$/, "");
const first = ({ scale, width, height }: ScaleSaid) => `Try ×${scale} first (${width}×${height}): `;
const costing = ({ cost }: ScaleSaid) => `, at ${times(cost)} times the pixels of ×1`;
const pastIt = (next: number | null) =>
  next === null ? "" : `; ×${next} is past the screen and buys only smoothing`;

/** Which scale to try first on a display, and why. */
export const scaleSentences = {
  "scale.underAll": (of: ScaleSaid) =>
    `${first(of)}even the largest scale listed stays under the ${of.lines} lines the display gives it${costing(of)}.`,
  "scale.exact": ({ next, ...of }: ScaleSaid & { next: number | null }) =>
    `${first(of)}it meets the ${of.lines} lines it is shown at exactly${costing(of)}${pastIt(next)}.`,
  "scale.fills": ({ next, ...of }: ScaleSaid & { next: number | null }) =>
    `${first(of)}it is the least that fills the ${of.lines} lines it is shown at${costing(of)}${pastIt(next)}.`,
  "scale.within": ({ useful, usefulCost, ...of }: ScaleSaid & { useful: number; usefulCost: number }) =>
    `${first(of)}it lies within the ${of.lines} lines it is shown at${costing(of)}; ×${useful} would fill them for ${times(usefulCost)} times as much.`,
};
