import type { TrialView } from "@/contract";

const colours = ["var(--series-a)", "var(--series-b)", "var(--series-c)", "var(--series-d)"] as const;
const dashes = [undefined, "5 3", "2 3", "8 3 2 3"] as const;
/** Lines of several runs are told apart by colour and dash. */
export const strokeOf = (index: number) => ({
  colour: colours[index % colours.length] ?? colours[0],
  dash: dashes[index % dashes.length],
});
/** Two columns of figures as points. */
export const pointsOf = (x: number[], y: number[]) => x.map((at, k) => ({ x: at, y: y[k] ?? NaN }));
/** The top of an axis: the greatest value with some room over it. */
export const upTo = (values: number[], room = 1.12) => Math.max(1, ...values.filter(Number.isFinite)) * room;
export const cell = "px-2 py-1.5";

/** What a trial's page hands the drawing of its evidence. */
export interface EvidenceProps<Kind> {
  reading: Kind;
  view: TrialView;
  onAdd?: (scale: number) => void;
}
