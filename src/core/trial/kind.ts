import { stillToRun } from "@/core/compare";
import type { Setting, Settings } from "@/core/kit";
import type { Said } from "@/core/said";
import type { Judged, TrialFacts, TrialRun, Traces } from "./facts";
import type { Planned } from "./shape";
import type { Outcome } from "./shape";
import type { ArmRole } from "./armRoles";
import type { Arm } from "./shapesSchema";
import type { PlanBase } from "./drafting";

/** What a trial comes to, or what is missing for it. */
export type Advised = { ok: true; outcome: Outcome } | { ok: false; missing: Said[] };

/**
 * A kind of trial: how it is planned, which runs count, what they say, what it advises.
 * One folder a kind, under `kinds/`; everything else asks the list.
 */
export interface KindOfTrial<Kind extends string = string, Reading = unknown> {
  /** As kept with every trial. */
  kind: Kind;
  /** Its place among those that are offered. */
  place: number;
  name: string;
  question: string;
  /** A trial over an ordered factor: keeping an arm changes what was swept, and nothing else. */
  sweep: boolean;
  leastArms: number;
  /** A run that ended in a crash is an answer, not a failure. */
  crashCounts: boolean;
  /** First passes are kept apart unless they are the question. */
  warmOnly: boolean;
  /** Whose traces `read` needs, of the runs that count. */
  tracesFor: (usable: TrialRun[], trial: Planned) => TrialRun[];
  /** Reading the runs takes so long that it is done once and kept, not at every look. */
  slow: boolean;
  /** A run made before it as things were counts as the first of what is in force. */
  takesBaseline: boolean;
  /** Role of an arm that doesn't say. */
  roleOf: (arm: Pick<Arm, "level" | "conditions">, at: number) => ArmRole;
  /** Arms still to run, in order. */
  left: (trial: Planned, done: number[]) => number[];
  /** Minutes of one run, and runs in all. */
  runMinutes: (trial: Pick<Planned, "plan">, sceneMinutes: number) => number;
  runs: (trial: Pick<Planned, "arms" | "rounds">) => number;
  /** Settings that hold once an arm is kept, whole: what the trial set for its own sake isn't among them. */
  keptSettings: (trial: Planned, arm: Arm, outcome: Pick<Outcome, "advice" | "effects"> | null) => Settings;
  /** What is kept, by name, when an arm is. */
  keptName: (arm: Arm, isAdvised: boolean) => string;
  /** Whether a decision to keep an arm sets the rate wanted. */
  setsTarget: boolean;
  /** The plan to begin from where nothing was chosen; null where this rig or engine has nothing to try. */
  usual: (base: PlanBase) => Omit<Planned, "before"> | null;
  /** What the runs show; null while nothing can be read from them. */
  read: (facts: TrialFacts, traces: Traces) => Reading | null;
  advise: (judged: Judged, reading: Reading | null) => Advised;
}

/** An arm's settings as they are. */
export const wholeArm = (_trial: Planned, arm: Arm): Settings => arm.settings;

/** What a sweep swept, over what held when it began; all of the arm where it swept no setting. */
function sweptOnly({ before, plan }: Planned, { settings }: Arm): Settings {
  if (plan.keys.length === 0) return settings;
  const swept = Object.entries(settings).filter(([key]) => plan.keys.includes(key));
  return { ...before.settings, ...Object.fromEntries(swept) };
}

/** What most kinds do: crashes don't count, cold runs do, turns until every arm has its rounds. */
const usually = {
  sweep: true,
  leastArms: 1,
  crashCounts: false,
  warmOnly: false,
  takesBaseline: false,
  slow: false,
  setsTarget: false,
  keptSettings: sweptOnly,
  keptName: ({ name }) => name,
  tracesFor: () => [],
  roleOf: () => "level",
  left: ({ arms, rounds }, done) => stillToRun(arms.length, rounds, done),
  runMinutes: ({ plan }, sceneMinutes) => plan.minutes ?? sceneMinutes,
  runs: ({ arms, rounds }) => arms.length * rounds,
} satisfies Partial<KindOfTrial>;

type Own<Kind extends string, Reading> = Omit<KindOfTrial<Kind, Reading>, keyof typeof usually> &
  Partial<Pick<KindOfTrial<Kind, Reading>, keyof typeof usually>>;

export const defineKind = <Kind extends string, Reading>(
  own: Own<Kind, Reading>,
): KindOfTrial<Kind, Reading> => ({
  ...usually,
  ...own,
});

export const labelIn = (catalogue: Setting[], key: string) =>
  catalogue.find((setting) => setting.key === key)?.label ?? key;
