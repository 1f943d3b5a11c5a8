/**
 * The shapes in which kept things are handed from the database to a screen: types only.
 * Declared once here, so that repositories, use-cases and views can't drift apart.
 */
import type { NextStep } from "@/core/advise";
import type { Conditions, NewEngine, NewJob, NewRun, NewSystem, NewTitle, PreflightItem, RigSpec, Setting, Settings, SettingValue } from "@/core/kit";
import type { Summary, TallyFigures, Yardstick } from "@/core/metrics";
import type { Trace } from "@/core/trace";
import type { Grade, HouseRules, Verdict } from "@/core/verdict";

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

export interface TitleRow extends Pick<NewTitle, "name" | "systemId" | "nativeFps" | "tied" | "region" | "hardness"> {
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
}

export interface JobListRow extends Omit<JobRow, "rules"> {
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
  rules: HouseRules;
  yardstick: Yardstick;
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
export interface ThreadRun extends Omit<RunRow, "summary" | "verdict" | "rules" | "methodVersion"> {
  summary: Summary;
  verdict: Verdict;
  changes: Change[];
  /** Conditions that break the job's house rules, in words. */
  warnings: string[];
  tally: TallyFigures | null;
}

export interface JobView {
  job: JobRow;
  runs: ThreadRun[];
  next: NextStep;
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
