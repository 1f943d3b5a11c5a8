import type { Decision } from "@/core/compare";
import { changesBetween, driverKey, type Settings } from "@/core/kit";
import { z } from "@/core/schema";
import type { ArmConditions } from "@/core/trial";

/** What can be best: an engine, a driver, a power mode. */
export const ways = ["engine", "driver", "power mode"] as const;
export type Way = (typeof ways)[number];

/** An arm of a decided comparison, as far as two arms are held against each other. */
export interface ComparedArm {
  engine: string;
  build: string;
  driver: string;
  powerMode: string | null;
  /** Everything else that was set, so that arms that differ in it too aren't taken for a comparison of one thing. */
  settings: Settings;
  /** Conditions that it was run under, the power mode among them. */
  conditions: ArmConditions;
}

/** Arms of one trial of a title, and what their pairs came to. */
export interface ComparedTrial {
  systemId: string;
  rigId: string;
  titleId: string;
  title: string;
  jobId: string;
  trialId: string;
  arms: ComparedArm[];
  /** b against a. */
  pairs: { a: number; b: number; decision: Decision }[];
}

const proofSchema = z.object({ title: z.string(), jobId: z.string(), trialId: z.string() });
/** How one engine, driver or mode fares on a system's titles. */
export const wayRowSchema = z.object({
  name: z.string(),
  wins: z.array(proofSchema).describe("Titles that it wins: it beats another there, and nothing beats it."),
  ties: z.array(proofSchema).describe("Titles where it and the best of the others are no different."),
  losses: z.array(proofSchema).describe("Titles where another beats it."),
  open: z.array(proofSchema).describe("Titles where it isn't settled."),
});
export type WayRow = z.output<typeof wayRowSchema>;

const valueOf = (arm: ComparedArm, way: Way): string | null =>
  way === "engine" ? arm.engine : way === "driver" ? arm.driver || null : arm.powerMode;

/** Whether two sets of values differ in one key at most. */
const differIn = (a: Settings, b: Settings, key: string) =>
  changesBetween(a, b).every((change) => change.key === key);

/** Conditions as values; what isn't said isn't there. */
const saidOf = (conditions: ArmConditions): Settings =>
  Object.fromEntries(
    Object.entries(conditions).flatMap(([key, value]) =>
      value === null || value === undefined ? [] : [[key, value]],
    ),
  );

/** Whether two arms differ in one way and in nothing else; another engine has settings of its own. */
function differOnly(a: ComparedArm, b: ComparedArm, way: Way): boolean {
  const [one, other] = [valueOf(a, way), valueOf(b, way)];
  return (
    one !== null &&
    other !== null &&
    one !== other &&
    ways.every((each) => each === way || valueOf(a, each) === valueOf(b, each)) &&
    differIn(saidOf(a.conditions), saidOf(b.conditions), "powerMode") &&
    (way === "engine" || (a.build === b.build && differIn(a.settings, b.settings, driverKey)))
  );
}

const reversed: Record<Decision, Decision> = {
  better: "worse",
  worse: "better",
  "no difference": "no difference",
  undecided: "undecided",
};

/**
 * How engines, drivers or power modes fare on the titles of one system on one rig, by comparisons in which they were
 * all that differed. Of several comparisons of the same two on one title the newest counts.
 * @param trials of one system and one rig, the oldest first
 */
export function bestOf(trials: readonly ComparedTrial[], way: Way): WayRow[] {
  const titles = new Map<
    string,
    { title: string; pairs: Map<string, { x: string; y: string; decision: Decision; trial: ComparedTrial }> }
  >();
  for (const trial of trials)
    for (const { a, b, decision } of trial.pairs) {
      const [one, other] = [trial.arms[a], trial.arms[b]];
      if (!one || !other || !differOnly(one, other, way)) continue;
      const [x, y] = [valueOf(one, way) ?? "", valueOf(other, way) ?? ""];
      const held = titles.get(trial.titleId) ?? { title: trial.title, pairs: new Map() };
      titles.set(trial.titleId, held);
      // One key for both directions: the decision is told of the name that comes later.
      const [first, last, told] = x < y ? [x, y, decision] : [y, x, reversed[decision]];
      held.pairs.set(JSON.stringify([first, last]), { x: first, y: last, decision: told, trial });
    }
  const rows = new Map<string, WayRow>();
  const rowOf = (name: string) => {
    const row = rows.get(name) ?? { name, wins: [], ties: [], losses: [], open: [] };
    rows.set(name, row);
    return row;
  };
  for (const { title, pairs } of titles.values()) {
    const all = [...pairs.values()];
    const names = [...new Set(all.flatMap(({ x, y }) => [x, y]))];
    const own = (name: string) => all.filter(({ x, y }) => x === name || y === name);
    /** What a name is against the other of a pair. */
    const against = (name: string, { x, decision }: { x: string; decision: Decision }) =>
      x === name ? reversed[decision] : decision;
    for (const name of names) {
      const told = own(name).map((pair) => against(name, pair));
      const row = rowOf(name);
      const { trial } = own(name).at(-1) ?? {};
      if (!trial) continue;
      const proof = { title, jobId: trial.jobId, trialId: trial.trialId };
      if (told.includes("worse")) row.losses.push(proof);
      else if (told.includes("undecided")) row.open.push(proof);
      else if (told.includes("no difference")) row.ties.push(proof);
      else row.wins.push(proof);
    }
  }
  return [...rows.values()].sort(
    (a, b) =>
      b.wins.length - a.wins.length ||
      b.ties.length - a.ties.length ||
      a.losses.length - b.losses.length ||
      a.name.localeCompare(b.name, "en"),
  );
}
