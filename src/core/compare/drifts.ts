import { centredOver } from "./places";

/** What a rig did by itself while its runs were made. */
export const driftNames = ["none", "steady", "wandering", "warming", "step"] as const;
export type DriftName = (typeof driftNames)[number];

/** One way in which a rig may have drifted, and how likely it is before the runs are looked at. */
export interface Drift {
  name: DriftName;
  weight: number;
  /** Covariance of the drift at the places of two runs, for runs whose spread is 1. */
  between: (a: number, b: number) => number;
  /** The run after which the level stepped; of a step alone. */
  after?: number;
}

/** How likely each kind is, before a run is looked at; ours, from what tuners tell of their rigs. */
const chances: Record<DriftName, number> = {
  none: 0.5,
  steady: 0.1,
  wandering: 0.2,
  warming: 0.1,
  step: 0.1,
};
/** SD of a drift's whole size, in spreads of one run. */
const sizes = [2, 6];
/** SD by which a wandering level moves from one run to the next, in spreads of one run. */
const steps = [0.5, 1, 2, 4];
/** Runs after which a rig that warms up has two thirds of its way behind it. */
const settlings = [0.7, 1.5, 3];
/** Steps are looked for at no more places than this. */
const mostSteps = 12;

/** All ways together, weights summing to 1. @param places of the runs, in any order; none or alike where the order isn't known */
export function driftsOver(places: number[]): Drift[] {
  const sorted = [...new Set(places)].sort((a, b) => a - b);
  if (sorted.length < 2) return [{ name: "none", weight: 1, between: () => 0 }];
  const centred = centredOver(sorted);
  const first = sorted[0] ?? 0;
  const shaped = (name: DriftName, shapes: ((at: number) => number)[], after?: number[]): Drift[] =>
    shapes.flatMap((shape, index) =>
      sizes.map((size) => ({
        name,
        weight: chances[name] / shapes.length / sizes.length,
        between: (a: number, b: number) => size ** 2 * shape(a) * shape(b),
        ...(after ? { after: after[index] } : {}),
      })),
    );
  const gaps = sorted.slice(0, -1).map((at, index) => (at + (sorted[index + 1] ?? at)) / 2);
  const every = Math.max(1, Math.ceil(gaps.length / mostSteps));
  const cuts = gaps.filter((_, index) => index % every === 0);
  return [
    { name: "none", weight: chances.none, between: () => 0 },
    ...shaped("steady", [(at) => centred(at) / 2]),
    ...steps.map((step): Drift => ({
      name: "wandering",
      weight: chances.wandering / steps.length,
      between: (a, b) => step ** 2 * (Math.min(a, b) - first),
    })),
    ...shaped(
      "warming",
      settlings.map((runs) => (at) => 1 - Math.exp(-(at - first) / runs)),
    ),
    ...shaped(
      "step",
      cuts.map((cut) => (at) => (at > cut ? 1 : 0)),
      cuts.map((cut) => sorted.filter((at) => at < cut).length),
    ),
  ];
}
