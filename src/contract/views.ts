import type { NextStep, Opening, Suggestion } from "@/core/advise";
import type { NoiseFloor } from "@/core/compare";
import type { Diagnosis } from "@/core/diagnose";
import type {
  Conditions,
  ConfigFile,
  Display,
  NewSystem,
  RigSpec,
  Setting,
  Settings,
  SettingValue,
} from "@/core/kit";
import type { ComparedPlace, Holding, PlacesHeld } from "@/core/job";
import type { Summary, TallyFigures } from "@/core/metrics";
import type { Layer, LayerValue, Liftable, Override, ProfileRow, Standing } from "@/core/profile";
import type { ArmConditions, ArmFigures, ArmEvidence, Reading, Understood, Visits } from "@/core/trial";
import type { Grade, Verdict } from "@/core/verdict";
import type { Said } from "@/core/said";
import type {
  BoardCell,
  BuildRow,
  FaultRow,
  HouseRulesRow,
  JobListRow,
  JobRow,
  LeftOut,
  PreflightItemRow,
  RigRow,
  RunRow,
  TrialNode,
  Versioned,
} from "@/core/records";

/** The bench strip: what is on the bench and what can be put there. */
export interface BenchView extends Versioned {
  rigs: Pick<RigRow, "id" | "name">[];
  rig: RigRow | null;
  conditions: Conditions | null;
  houseRules: HouseRulesRow[];
  houseRulesId: string | null;
  jobId: string | null;
  /** Conditions that go against the house rules, a sentence each. */
  warnings: string[];
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
  "summary" | "verdict" | "rules" | "buildId" | "rigRevisionId" | "driver" | "faults"
> {
  /** Without its segments: a page that draws two hundred runs needs none. */
  summary: Omit<Summary, "segments" | "scenes">;
  verdict: Omit<Verdict, "scenes">;
  changes: Change[];
  /** Conditions that break the job's house rules. */
  warnings: Said[];
  /** Its figures are of an older method, and are being made anew. */
  outdated: boolean;
  /** It compiled effects on first sight, or was said to have. */
  cold: boolean;
  tally: TallyFigures | null;
  /** How many of its places hold; null where it names fewer than two. */
  places: PlacesHeld | null;
}

export interface JobView {
  job: JobRow;
  runs: ThreadRun[];
  trials: TrialNode[];
  faults: FaultRow[];
  /** What was kept so far, as the difference from the engine's defaults. */
  overrides: Override[];
  standing: Standing;
  /** What any run is made under unless something is tried: what was decided, and how the job is played. */
  holds: Holding;
  /** The run that says how things stand. */
  tellingRunId: string | null;
  /** Engine and build that hold now, and the trial that put them there; null where they are the job's own. */
  inForce: { engine: string; build: string; trial: number | null };
  /** Runs and trials left out, which can be taken back. */
  leftOut: { runs: LeftOut[]; trials: LeftOut[] };
  /** Runs that were judged by another rate, or tie, of the title than it has now. */
  otherYardstick: number;
  /** The rig that lies on the bench, where it isn't the job's. */
  otherOnBench: string | null;
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

/** A trial with all that its page shows. */
export interface TrialView {
  job: JobRow;
  trial: TrialNode;
  /** Number of the run made before it that counts as the first of what is in force; null for none. */
  firstRun: number | null;
  /** What its kind says: its name, whether it sweeps, whether first passes are kept apart. */
  kind: { name: string; sweep: boolean; warmOnly: boolean };
  /** What is kept, by name, when an arm is: one an arm. */
  keptNames: string[];
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
  /**
   * Says which facts still have to be reckoned, where that takes long and wasn't done; null when nothing has.
   */
  pending: string | null;
  evidence: ArmEvidence[];
  figures: ArmFigures[];
  /** Every arm place by place, where runs name places. */
  places: ComparedPlace[];
  catalogue: Setting[];
  limits: { temperatureC: number | null; batteryWh: number | null };
  display: Pick<Display, "name" | "width" | "height" | "diagonalInch">;
  screens: NewSystem["screens"];
}

/** What a trial can be made from. */
export interface PlanView {
  job: JobRow;
  catalogue: Setting[];
  standing: Standing;
  holds: Holding;
  spec: RigSpec;
  builds: BuildRow[];
  usefulScale: number | null;
  sceneMinutes: number;
  /** The job's newest run was read off a screen. */
  byEye: boolean;
  /** Between runs, as the job's last heat sweep measured it. */
  coolDownMinutes: number | null;
}

/** What isn't proven for a title as the rig is now. */
export interface ProfileCheck {
  titleId: string;
  title: string;
  settings: {
    key: string;
    label: string;
    value: SettingValue;
    default: SettingValue;
    stale: ProfileRow["stale"];
  }[];
}

/** A profile in its layers. */
export interface ProfileView {
  rig: Pick<RigRow, "id" | "name" | "revision">;
  rigs: { id: string; name: string }[];
  engine: { id: string; name: string; configFiles: ConfigFile[] };
  builds: Pick<BuildRow, "id" | "version" | "branch">[];
  buildId: string;
  systems: { id: string; name: string }[];
  systemId: string;
  /** Those tuned here, the one asked for, and the first of the others; `moreTitles` are found by typing. */
  titles: { id: string; name: string; systemId: string; worked: boolean }[];
  moreTitles: number;
  titleId: string | null;
  /** How the title's telling run here came out; null of a system's profile, or where none was made. */
  light: Pick<BoardCell, "jobId" | "runId" | "grade" | "overruled"> | null;
  rows: ProfileRow[];
  /** Every value ever set here, the newest first. */
  history: LayerValue[];
  lifts: Liftable[];
  drops: Record<Layer, string[]>;
  checks: ProfileCheck[];
  catalogue: Setting[];
  /**
   * What the layers hold beside the engine's settings: the rig's power mode, clock option and cooler, the
   * title's rate.
   */
  beside: Setting[];
  /** The newest change that this shows; a change of it says so. */
  saw: number;
}

export interface JobsView {
  rows: JobListRow[];
  total: number;
  search: string;
  filter: string;
  sort: string;
  /** Where the next rows begin; null at the end. */
  next: string | null;
}

/** What a new run starts from. */
export interface NewRunView {
  job: JobRow;
  catalogue: Setting[];
  settings: Settings;
  /** What holds in the job: a run that is made otherwise says so before it is kept. */
  holds: Holding;
  bench: BenchView;
  preflight: PreflightItemRow[];
  /**
   * Checked before the newest run on this rig, when that was within the same sitting; null where there is none.
   */
  ticked: { run: number; labels: string[] } | null;
  /** How many rate patches the title has. */
  patches: number;
  /** The job's newest run was read off a screen: so is the next, most likely. */
  byEye: boolean;
  scenes: string[];
  /**
   * The campaign it is made for, the scene that is run there where one is named, and the engine that its arm is
   * run with; null outside any.
   */
  campaign: { id: string; name: string; scene: string; engine: string } | null;
  /** The trial it is made for, where it is. */
  trial: {
    id: string;
    name: string;
    arm: number;
    armName: string;
    /** Arms still to run after this one, in running order. */
    left: number[];
    arms: { name: string; settings: Settings; conditions: ArmConditions }[];
    conditions: ArmConditions;
    cold: boolean;
    isSweep: boolean;
  } | null;
}

/** A run whose light other thresholds would change. */
export interface Rejudged {
  runId: string;
  jobId: string;
  title: string;
  rig: string;
  number: number;
  from: Grade | null;
  to: Grade | null;
}

/** What a log is looked at by before it belongs to a job: names on the shelf, and the house rules there are. */
export interface LookView {
  rigs: { name: string; refreshHz: number }[];
  systems: string[];
  engines: string[];
  houseRules: Pick<HouseRulesRow, "id" | "name" | "rules">[];
  houseRulesId: string | null;
  /** The job on the bench, if it is open: where its next run is brought in. */
  inHand: { title: string; rig: string; newRun: string } | null;
}
