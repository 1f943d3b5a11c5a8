/**
 * The shapes in which kept things are handed from the database to a screen: types only.
 * Declared once here, so that repositories, use-cases and views can't drift apart.
 */
import type { NextStep, Opening, RateDecision, Suggestion, TrialOutcome, Overdriven } from "@/core/advise";
import type { NoiseFloor } from "@/core/compare";
import type { Diagnosis } from "@/core/diagnose";
import type {
  Arm,
  ArmConditions,
  Choice,
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
  TrialKind,
  TrialPlan,
} from "@/core/kit";
import type { Summary, TallyFigures, Yardstick } from "@/core/metrics";
import type { Override } from "@/core/profile";
import type { SweepFit } from "@/core/sweep";
import type { Trace } from "@/core/trace";
import type { Grade, HouseRules, Severity, Verdict } from "@/core/verdict";

export interface RigRow {
  id: string;
  name: string;
  /** The newest revision. */
  revisionId: string;
  revision: number;
  spec: RigSpec;
}

export interface SystemRow extends NewSystem {
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
  version: string;
  branch: "stable" | "experimental";
  systemIds: string[];
}

export interface HouseRulesRow {
  id: string;
  name: string;
  rules: HouseRules;
  isDefault: boolean;
}

export interface JobRow extends NewJob {
  id: string;
  rig: string;
  title: string;
  system: string;
  hardness: NewTitle["hardness"];
  engineId: string;
  engine: string;
  version: string;
  nativeFps: number;
  tied: boolean;
  houseRules: string;
  rules: HouseRules;
  createdAt: Date;
  closedAt: Date | null;
  closing: JobClosing | null;
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

export interface TrialRow {
  id: string;
  jobId: string;
  number: number;
  kind: TrialKind;
  name: string;
  arms: Arm[];
  rounds: number;
  cold: boolean;
  plan: TrialPlan;
  /** What held when it was begun. */
  before: { settings: Settings; conditions: ArmConditions; targetFps: number | null };
  createdAt: Date;
  choice: Choice["choice"] | null;
  keptArm: number | null;
  reason: string;
  outcome: TrialOutcome | null;
  decidedAt: Date | null;
}

/** A trial with how far its runs have come. */
export interface TrialNode extends TrialRow {
  /** Usable runs of every arm. */
  runs: number[];
  /** Arms still to run, in order. */
  left: number[];
}

export interface FaultRow extends NewFault {
  id: string;
  createdAt: Date;
}

export interface JobListRow extends Omit<JobRow, "rules" | "closing"> {
  runs: number;
  lastRunAt: Date | null;
  /** Light and rate of the newest run. */
  grade: Grade | null;
  averageFps: number | null;
}

export interface RunRow extends Omit<NewRun, "jobId"> {
  id: string;
  number: number;
  form: Trace["form"];
  madeAt: Date;
  buildId: string;
  rigRevisionId: string;
  rules: HouseRules;
  yardstick: Yardstick;
  faults: Severity[];
  methodVersion: number | null;
  summary: Summary | null;
  verdict: Verdict | null;
}

/** What lies on the bench now. */
export interface BenchRow {
  rigId: string | null;
  jobId: string | null;
  houseRulesId: string | null;
  conditions: Conditions | null;
}

/** The bench strip: what is on the bench and what can be put there. */
export interface BenchView {
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
  "summary" | "verdict" | "rules" | "methodVersion" | "buildId" | "rigRevisionId" | "faults"
> {
  /** Without its segments: a screen that draws two hundred runs needs none. */
  summary: Omit<Summary, "segments">;
  verdict: Verdict;
  changes: Change[];
  /** Conditions that break the job's house rules, in words. */
  warnings: string[];
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
  standing: { settings: Settings; conditions: ArmConditions };
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
  runs: ThreadRun[];
  faults: FaultRow[];
  noise: NoiseFloor;
  noiseMeasured: boolean;
  /** Cold and warm side by side: mean lost on first and on later visits to a scene, ms. */
  passes: {
    runId: string;
    number: number;
    arm: number;
    firstLostMs: number;
    laterLostMs: number;
    scenes: number;
  }[];
  /** Rigs, engines and conditions that drifted since it was begun, in words. */
  drifted: string[];
  fit: SweepFit | null;
  rate: (RateDecision & { overdriven: Overdriven[]; missing: string[] }) | null;
  effects: TrialOutcome["effects"];
  limits: { temperatureC: number | null; batteryWh: number | null };
  display: { name: string; width: number; height: number; diagonalInch: number | null };
  screens: NewSystem["screens"];
}

/** What a trial can be made from. */
export interface PlanView {
  job: JobRow;
  catalogue: Setting[];
  standing: { settings: Settings; conditions: ArmConditions };
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
  page: number;
  pageSize: number;
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
  page: number;
  pageSize: number;
}

export interface Page<Row> {
  rows: Row[];
  total: number;
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

export interface TitleDetail extends NewTitle {
  id: string;
  retired: boolean;
}

export interface EngineDetail extends NewEngine {
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
