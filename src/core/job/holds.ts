import type { Holding } from "./shape";
import { defaultsOf, firstConditions, inSetUp, labelsIn, type Conditions, type RigSpec } from "@/core/kit";
import type { Arm, ArmConditions } from "@/core/trial";
import type { Differing } from "./codes";
import type { Story, StoryRun } from "./story";

/** Conditions that hold from run to run; the room's temperature and the capture path are each run's own. */
export const heldConditions = [
  "powerMode",
  "setUp",
  "clocks",
  "cooler",
  "pluggedIn",
  "docked",
  "display",
] as const satisfies (keyof ArmConditions)[];
type HeldCondition = (typeof heldConditions)[number];

/** Whether something is said of a condition; a set-up of null is the rig's usual one. */
const isSaid = (key: HeldCondition, value: ArmConditions[HeldCondition]) =>
  value !== undefined && (value !== null || key === "setUp");

/** The runs that say how a job is played where nothing was decided, the most telling first. */
function witnesses({ runs, trials }: Pick<Story, "runs" | "trials">): StoryRun[] {
  const made = (trialId: string, arm: number) =>
    runs.filter((run) => run.trialId === trialId && run.arm === arm).reverse();
  const decided = trials
    .filter(({ decidedAt }) => decidedAt !== null)
    .sort((a, b) => new Date(b.decidedAt ?? 0).getTime() - new Date(a.decidedAt ?? 0).getTime());
  const kept = decided.flatMap(({ id, keptArm, arms }) => {
    if (keptArm !== null) return made(id, keptArm);
    return arms[0]?.role === "as it is" ? made(id, 0) : [];
  });
  return [...kept, ...runs.filter(({ trialId }) => trialId === null)];
}

/**
 * What holds in a job: what was decided or the profile says; of other conditions what the runs of what was kept
 * last were made under, else the job's first run; else what held when its first trial began, what the bench says
 * of the rig, or the rig's first.
 *
 * @param bench the rig's conditions as they were last on the bench; null where it never lay there
 */
export function whatHolds(
  { standing, runs, trials }: Pick<Story, "standing" | "runs" | "trials">,
  spec: RigSpec,
  bench: Conditions | null = null,
): Holding {
  const decided = Object.fromEntries(
    heldConditions.flatMap((key) =>
      isSaid(key, standing.conditions[key]) ? [[key, standing.conditions[key]]] : [],
    ),
  ) as ArmConditions;
  const told: ArmConditions[] = [
    decided,
    ...witnesses({ runs, trials }).map(({ conditions }) => conditions),
    ...trials.map(({ before }) => before.conditions),
    ...(bench ? [bench] : []),
    firstConditions(spec),
  ];
  const conditions = Object.fromEntries(
    heldConditions.flatMap((key) => {
      const from = told.find((each) => isSaid(key, each[key]));
      return from ? [[key, from[key]]] : [];
    }),
  ) as ArmConditions;
  const under = inSetUp(spec, conditions.setUp) ?? spec;
  return { ...standing, conditions, decided, driver: under.driver.version };
}

/** What holds while an arm is run: what holds in the job, with what the arm changes of it. */
export const underArm = (
  holds: Holding,
  { settings, conditions, buildId = null }: Pick<Arm, "settings" | "conditions"> & { buildId?: string | null },
): Holding => ({
  ...holds,
  settings,
  conditions: { ...holds.conditions, ...conditions },
  buildId: buildId ?? holds.buildId,
});

/** What a run is made under, in as far as it is known. */
export interface MadeUnder {
  settings: StoryRun["settings"];
  conditions: Partial<Pick<Conditions, HeldCondition>>;
  buildId?: string;
  driver?: string;
  targetFps?: number;
}

/**
 * In what a run is made otherwise than what holds; nothing where it is made under it. What isn't known of
 * either is no difference.
 *
 * @param catalogue the engine's settings: one that a run doesn't name, as it had no such then, was at its
 *   default
 */
export function differing(
  holds: Holding,
  { settings, conditions, buildId, driver, targetFps }: MadeUnder,
  catalogue: Story["catalogue"],
): Differing[] {
  const own = { ...defaultsOf(catalogue), ...settings };
  const labelOf = labelsIn(catalogue);
  const of = (what: Differing["what"], is: Differing["is"], held: Differing["holds"], label = "") =>
    is === held ? [] : [{ what, label, is, holds: held }];
  return [
    ...Object.entries(holds.settings).flatMap(([key, held]) =>
      of("setting", own[key] ?? null, held, labelOf(key)),
    ),
    ...heldConditions.flatMap((key) => {
      const is = conditions[key],
        held = holds.conditions[key];
      if (key !== "setUp" && !(isSaid(key, held) && isSaid(key, is))) return [];
      return of(key, is ?? null, held ?? null);
    }),
    ...(buildId === undefined ? [] : of("build", buildId, holds.buildId)),
    ...(!driver || !holds.driver ? [] : of("driver", driver, holds.driver)),
    ...(targetFps === undefined || holds.targetFps === null ? [] : of("targetFps", targetFps, holds.targetFps)),
  ];
}

/** Whether a kept run was made under what holds. */
export const isUnder = (holds: Holding, run: StoryRun, catalogue: Story["catalogue"]): boolean =>
  differing(holds, { ...run, targetFps: run.yardstick.targetFps }, catalogue).length === 0;
