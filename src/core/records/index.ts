/**
 * The shapes in which kept things are handed from the database to a screen: types only.
 * Declared once here, so that repositories, use-cases and views can't drift apart.
 */
import type { NextStep, Opening, Suggestion } from "@/core/advise";
import type { NoiseFloor } from "@/core/compare";
import type { Diagnosis } from "@/core/diagnose";
import type {
  Conditions,
  NewEngine,
  NewFault,
  NewJob,
  NewRun,
  NewSystem,
  NewTitle,
  PreflightItem,
  RigSpec,
  Setting,
  Settings,
  SettingValue,
  Severity,
} from "@/core/kit";
import type { Summary, TallyFigures, Yardstick } from "@/core/metrics";
import type { Decidable, Override, Standing } from "@/core/profile";
import type { Trace } from "@/core/trace";
import type {
  ArmConditions,
  ArmFigures,
  ArmEvidence,
  Choice,
  Progress,
  Reading,
  Understood,
  Visits,
} from "@/core/trial";
import type { Grade, HouseRules, Verdict } from "@/core/verdict";
import type { Said } from "@/core/words";

/** What every thing that can be edited carries: an edit says which version it saw. */
export interface Versioned {
  version: number;
}

export interface RigRow extends Versioned {
  id: string;
  name: string;
  /** The newest revision. */
  revisionId: string;
  revision: number;
  spec: RigSpec;
}

export interface SystemRow extends NewSystem, Versioned {
  id: string;
}

export interface TitleRow extends Pick<
  NewTitle,
  "name" | "systemId" | "nativeFps" | "tied" | "region" | "hardness"
> {
  id: string;
  system: string;
}

export interface BuildRow {
  id: string;
  engineId: string;
  engine: string;
  /** The build's own number. */
  version: string;
  branch: "stable" | "experimental";
  systemIds: string[];
}

export interface HouseRulesRow extends Versioned {
  id: string;
  name: string;
  rules: HouseRules;
  isDefault: boolean;
}

export interface JobRow extends NewJob, Versioned {
  id: string;
  rig: string;
  title: string;
  system: string;
  hardness: NewTitle["hardness"];
  engineId: string;
  engine: string;
  build: string;
  nativeFps: number;
  tied: boolean;
  houseRules: string;
  rules: HouseRules;
  createdAt: Date;
  closedAt: Date | null;
  closing: JobClosing | null;
  /** What it began from; null until its first run. */
  baseline: Standing | null;
}

/** What a job came to: the profile with its proofs, and what it took. */
export interface JobClosing {
  overrides: Override[];
  conditions: ArmConditions;
  targetFps: number;
  grade: Grade;
  averageFps: number;
  confirmationRunId: string;
  runs: number;
  runningMinutes: number;
  days: number;
  note: string;
}

export interface TrialRow extends Decidable, Versioned {
  id: string;
  jobId: string;
  createdAt: Date;
  choice: Choice["choice"] | null;
  reason: string;
}

/** A trial with how far its runs have come. */
export interface TrialNode extends TrialRow, Progress {}

export interface FaultRow extends NewFault {
  id: string;
  createdAt: Date;
}

export interface JobListRow extends Omit<JobRow, "rules" | "closing" | "baseline"> {
  runs: number;
  lastRunAt: Date | null;
  /** Light and rate of the newest run. */
  grade: Grade | null;
  averageFps: number | null;
}

/** How far a run has come: growing, whole, or ended before its time. */
export const runStates = ["open", "whole", "cut off", "crashed"] as const;
export type RunState = (typeof runStates)[number];

export interface RunRow extends Omit<NewRun, "jobId">, Versioned {
  id: string;
  number: number;
  form: Trace["form"];
  madeAt: Date;
  buildId: string;
  rigRevisionId: string;
  rules: HouseRules;
  yardstick: Yardstick;
  faults: Severity[];
  state: RunState;
  summary: Summary | null;
  verdict: Verdict | null;
}

/** What lies on the bench now. */
export interface BenchRow extends Versioned {
  rigId: string | null;
  jobId: string | null;
  houseRulesId: string | null;
  conditions: Conditions | null;
}

/** The bench strip: what is on the bench and what can be put there. */
export interface BenchView extends Versioned {
  rigs: Pick<RigRow, "id" | "name">[];
  rig: RigRow | null;
  conditions: Conditions | null;
  houseRules: HouseRulesRow[];
  houseRulesId: string | null;
  jobId: string | null;
}

/** Everything a job is made from. */
export interface KitView {
  rigs: RigRow[];
  systems: SystemRow[];
  titles: TitleRow[];
  builds: BuildRow[];
  houseRules: HouseRulesRow[];
}

/** A setting that changed from one run to the next; null where it was not in force. */
export interface Change {
  key: string;
  from: SettingValue | null;
  to: SettingValue | null;
}

/** A run in a job's thread: figures, verdict, and what was changed since the run before. */
export interface ThreadRun extends Omit<
  RunRow,
  "summary" | "verdict" | "rules" | "buildId" | "rigRevisionId" | "faults"
> {
  /** Without its segments: a screen that draws two hundred runs needs none. */
  summary: Omit<Summary, "segments">;
  verdict: Verdict;
  changes: Change[];
  /** Conditions that break the job's house rules. */
  warnings: Said[];
  /** Its figures are of an older method, and are being made anew. */
  outdated: boolean;
  /** It compiled effects on first sight, or was said to have. */
  cold: boolean;
  tally: TallyFigures | null;
}

export interface JobView {
  job: JobRow;
  runs: ThreadRun[];
  trials: TrialNode[];
  faults: FaultRow[];
  /** What was kept so far, as the difference from the engine's defaults. */
  overrides: Override[];
  standing: Standing;
  /** Of the newest run that can be diagnosed, with its id. */
  diagnosis: { runId: string; diagnosis: Diagnosis } | null;
  suggestions: Suggestion[];
  opening: Opening | null;
  next: NextStep;
  noise: NoiseFloor;
  noiseMeasured: boolean;
  /** What changes can be begun from. */
  catalogue: Setting[];
  spec: RigSpec;
  scenes: string[];
}

/** A trial with all that its screen shows. */
export interface TrialView {
  job: JobRow;
  trial: TrialNode;
  /** The rate wanted of its runs, fps. */
  targetFps: number;
  runs: ThreadRun[];
  faults: FaultRow[];
  noise: NoiseFloor;
  noiseMeasured: boolean;
  /** What first and later visits to scenes lost. */
  visits: Visits[];
  /** Rigs, engines and conditions that drifted since it was begun. */
  drifted: Said[];
  reading: Reading | null;
  outcome: Understood["outcome"];
  /** What to do, by the runs there are; as kept where it is decided. */
  advice: Understood["advice"];
  missing: Said[];
  /** Says which facts still have to be reckoned, where that takes long and wasn't done; null when nothing has. */
  pending: string | null;
  evidence: ArmEvidence[];
  figures: ArmFigures[];
  limits: { temperatureC: number | null; batteryWh: number | null };
  display: { name: string; width: number; height: number; diagonalInch: number | null };
  screens: NewSystem["screens"];
}

/** What a trial can be made from. */
export interface PlanView {
  job: JobRow;
  catalogue: Setting[];
  standing: Standing;
  spec: RigSpec;
  builds: BuildRow[];
  usefulScale: number | null;
  sceneMinutes: number;
  /** Between runs, as the job's last heat sweep measured it. */
  coolDownMinutes: number | null;
}

export interface JobsView {
  rows: JobListRow[];
  total: number;
  search: string;
  /** Where the next rows begin; null at the end. */
  next: string | null;
}

/** What a new run starts from. */
export interface NewRunView {
  job: JobRow;
  catalogue: Setting[];
  settings: Settings;
  bench: BenchView;
  preflight: PreflightItemRow[];
  /** How many rate patches the title has. */
  patches: number;
  scenes: string[];
  /** The trial it is made for, where it is. */
  trial: {
    id: string;
    name: string;
    arm: number;
    armName: string;
    arms: { name: string; settings: Settings; conditions: ArmConditions }[];
    conditions: ArmConditions;
    cold: boolean;
    isSweep: boolean;
  } | null;
}

/** What a list is asked for. An unknown `sort` falls back to the name. */
export interface PageQuery {
  search: string;
  filter: string;
  sort: string;
  descending: boolean;
  /** As the page before gave it; empty for the first. */
  cursor: string;
  limit: number;
}

export interface Page<Row> {
  rows: Row[];
  total: number;
  /** Where the next rows begin; null at the end. */
  next: string | null;
}

export interface RigListRow extends Pick<RigRow, "id" | "name" | "revision" | "spec"> {
  retired: boolean;
  jobs: number;
}

export interface TitleListRow extends TitleRow {
  retired: boolean;
  jobs: number;
}

/** A page of a list with the question it answers. */
export interface ListView<Row> extends Page<Row> {
  query: PageQuery;
}

export interface TitleDetail extends NewTitle, Versioned {
  id: string;
  retired: boolean;
}

export interface EngineDetail extends NewEngine, Versioned {
  id: string;
}

export interface RigDetail extends RigRow {
  retired: boolean;
  revisions: { number: number; note: string; createdAt: Date; runs: number }[];
}

export interface PreflightItemRow extends PreflightItem {
  id: string;
  own: boolean;
}

/** A run whose light other thresholds would change. */
export interface Rejudged {
  runId: string;
  jobId: string;
  title: string;
  rig: string;
  number: number;
  from: Grade;
  to: Grade;
}
