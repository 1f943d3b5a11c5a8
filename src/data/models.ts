import {
  DataTypes,
  Model,
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  type ModelAttributes,
  type ModelStatic,
  type Sequelize,
} from "sequelize";
import type {
  CaptureFacts,
  Conditions,
  NewEngine,
  NewFault,
  NewJob,
  NewRun,
  NewSystem,
  NewTitle,
  PreflightItem,
  PreflightTick,
  RigSpec,
  Setting,
  Settings,
} from "@/core/kit";
import type { StillMoment } from "@/core/capture";
import type { Summary, Yardstick } from "@/core/metrics";
import type { Standing } from "@/core/profile";
import type { JobClosing, Overruled, RunState } from "@/core/records";
import type { Trace } from "@/core/trace";
import type { Arm, Before, TrialOutcome, TrialPlan } from "@/core/trial";
import type { Grade, HouseRules, Verdict } from "@/core/verdict";
import { database } from "./connection";

export class Rig extends Model<InferAttributes<Rig>, InferCreationAttributes<Rig>> {
  declare id: CreationOptional<string>;
  declare version: CreationOptional<number>;
  declare name: string;
  declare retiredAt: CreationOptional<string | null>;
}

export class RigRevision extends Model<InferAttributes<RigRevision>, InferCreationAttributes<RigRevision>> {
  declare id: CreationOptional<string>;
  declare rigId: string;
  declare number: number;
  declare note: CreationOptional<string>;
  declare spec: RigSpec;
}

export class ConsoleSystem extends Model<
  InferAttributes<ConsoleSystem>,
  InferCreationAttributes<ConsoleSystem>
> {
  declare id: CreationOptional<string>;
  declare version: CreationOptional<number>;
  declare name: string;
  declare screens: NewSystem["screens"];
  declare rates: NewSystem["rates"];
  declare note: CreationOptional<string>;
}

export class Title extends Model<InferAttributes<Title>, InferCreationAttributes<Title>> {
  declare id: CreationOptional<string>;
  declare version: CreationOptional<number>;
  declare systemId: string;
  declare name: string;
  declare nativeFps: number;
  declare tied: boolean;
  declare region: CreationOptional<string>;
  declare hardness: NewTitle["hardness"];
  declare memoryNeededGb: number | null;
  declare notes: CreationOptional<string>;
  declare patches: NewTitle["patches"];
  declare needs: CreationOptional<NewTitle["needs"]>;
  declare options: CreationOptional<NewTitle["options"]>;
  declare copy: CreationOptional<NewTitle["copy"] | null>;
  declare retiredAt: CreationOptional<string | null>;
}

export class Scene extends Model<InferAttributes<Scene>, InferCreationAttributes<Scene>> {
  declare id: CreationOptional<string>;
  declare titleId: string;
  declare position: number;
  declare name: string;
  declare how: string;
  declare seconds: number | null;
  declare worst: boolean;
  declare fps: CreationOptional<number | null>;
}

export class Engine extends Model<InferAttributes<Engine>, InferCreationAttributes<Engine>> {
  declare id: CreationOptional<string>;
  declare version: CreationOptional<number>;
  declare name: string;
  declare notes: CreationOptional<string>;
  declare backEnds: NewEngine["backEnds"];
  declare configFiles: CreationOptional<NewEngine["configFiles"]>;
  declare layers: CreationOptional<NewEngine["layers"]>;
}

export class EngineSystem extends Model<InferAttributes<EngineSystem>, InferCreationAttributes<EngineSystem>> {
  declare engineId: string;
  declare systemId: string;
}

export class Build extends Model<InferAttributes<Build>, InferCreationAttributes<Build>> {
  declare id: CreationOptional<string>;
  declare engineId: string;
  declare version: string;
  declare branch: "stable" | "experimental";
  declare date: string | null;
  declare notes: CreationOptional<string>;
  declare link: CreationOptional<string>;
  declare sha256: CreationOptional<string>;
}

export class CatalogueSetting extends Model<
  InferAttributes<CatalogueSetting>,
  InferCreationAttributes<CatalogueSetting>
> {
  declare id: CreationOptional<string>;
  declare engineId: string;
  declare position: number;
  declare key: string;
  declare definition: Setting;
}

export class HouseRuleSet extends Model<InferAttributes<HouseRuleSet>, InferCreationAttributes<HouseRuleSet>> {
  declare id: CreationOptional<string>;
  declare version: CreationOptional<number>;
  declare name: string;
  declare rules: HouseRules;
  declare isDefault: CreationOptional<boolean>;
}

export class Job extends Model<InferAttributes<Job>, InferCreationAttributes<Job>> {
  declare id: CreationOptional<string>;
  declare version: CreationOptional<number>;
  declare rigId: string;
  declare titleId: string;
  declare buildId: string;
  declare houseRulesId: string;
  declare aim: NewJob["aim"];
  declare targetFps: number | null;
  declare strategy: CreationOptional<NewJob["strategy"]>;
  declare createdAt: CreationOptional<string>;
  declare closedAt: CreationOptional<string | null>;
  declare deletedAt: CreationOptional<string | null>;
  declare closing: CreationOptional<JobClosing | null>;
  declare baseline: CreationOptional<Standing | null>;
}

export class Trial extends Model<InferAttributes<Trial>, InferCreationAttributes<Trial>> {
  declare id: CreationOptional<string>;
  declare version: CreationOptional<number>;
  declare jobId: string;
  declare number: number;
  declare kind: string;
  declare name: string;
  declare arms: Arm[];
  declare rounds: number;
  declare cold: boolean;
  declare plan: TrialPlan;
  declare before: Before;
  declare createdAt: CreationOptional<string>;
  declare choice: CreationOptional<"keep" | "put back" | null>;
  declare keptArm: CreationOptional<number | null>;
  declare reason: CreationOptional<string>;
  declare outcome: CreationOptional<TrialOutcome | null>;
  declare decidedAt: CreationOptional<string | null>;
  declare decidedBy: CreationOptional<string | null>;
  /** Whether what it keeps has reached its title's layer. */
  declare landed: CreationOptional<boolean>;
  declare deletedAt: CreationOptional<string | null>;
}

export class Fault extends Model<InferAttributes<Fault>, InferCreationAttributes<Fault>> {
  declare id: CreationOptional<string>;
  declare runId: string;
  declare kind: NewFault["kind"];
  declare severity: NewFault["severity"];
  declare scene: string;
  declare atMs: number | null;
  declare note: string;
  declare workaround: string;
  declare deletedAt: CreationOptional<string | null>;
}

export class Run extends Model<InferAttributes<Run>, InferCreationAttributes<Run>> {
  declare id: CreationOptional<string>;
  declare version: CreationOptional<number>;
  declare jobId: string;
  declare number: number;
  declare rigRevisionId: string;
  declare buildId: string;
  declare source: NewRun["source"];
  declare form: Trace["form"];
  declare label: string;
  declare fileName: string | null;
  declare madeAt: CreationOptional<string>;
  declare settings: Settings;
  declare conditions: Conditions;
  declare rules: HouseRules;
  declare yardstick: Yardstick;
  declare cacheState: "warm" | "cold" | "unknown";
  declare state: RunState;
  declare skippedRows: number;
  declare preflight: PreflightTick[];
  declare notes: string;
  declare trialId: CreationOptional<string | null>;
  declare arm: CreationOptional<number | null>;
  declare fileHash: CreationOptional<string | null>;
  declare scene: CreationOptional<string>;
  declare tags: CreationOptional<string[]>;
  declare capture: CreationOptional<CaptureFacts | null>;
  declare overruled: CreationOptional<Overruled | null>;
  declare fromMemory: CreationOptional<boolean>;
  declare deletedAt: CreationOptional<string | null>;
}

export class Still extends Model<InferAttributes<Still>, InferCreationAttributes<Still>> {
  declare id: CreationOptional<string>;
  declare runId: string;
  declare position: number;
  declare atMs: number;
  declare why: StillMoment["why"];
  declare label: string;
  declare lastsMs: number;
  declare width: number;
  declare height: number;
  declare png: Buffer;
}

export class RunMark extends Model<InferAttributes<RunMark>, InferCreationAttributes<RunMark>> {
  declare runId: string;
  declare position: number;
  declare label: string;
  declare startMs: number;
  declare endMs: number;
}

export class RunSummary extends Model<InferAttributes<RunSummary>, InferCreationAttributes<RunSummary>> {
  declare runId: string;
  declare methodVersion: number;
  declare grade: Grade | null;
  declare averageFps: number;
  declare held: boolean;
  declare summary: Summary;
  declare verdict: Verdict;
}

export class BenchState extends Model<InferAttributes<BenchState>, InferCreationAttributes<BenchState>> {
  declare id: CreationOptional<number>;
  declare version: CreationOptional<number>;
  declare rigId: string | null;
  declare jobId: string | null;
  declare houseRulesId: string | null;
  declare conditions: Conditions | null;
}

export class PreflightRow extends Model<InferAttributes<PreflightRow>, InferCreationAttributes<PreflightRow>> {
  declare id: CreationOptional<string>;
  declare position: number;
  declare definition: PreflightItem;
  declare own: CreationOptional<boolean>;
}

const id = { type: DataTypes.UUID, primaryKey: true, defaultValue: DataTypes.UUIDV4 };
const key = { type: DataTypes.UUID, allowNull: false };
const partOfKey = { ...key, primaryKey: true };
const position = { type: DataTypes.INTEGER, allowNull: false };
const words = { type: DataTypes.TEXT, allowNull: false };
const emptyWords = { ...words, defaultValue: "" };
const maybeWords = { type: DataTypes.TEXT };
const real = { type: DataTypes.DOUBLE };
const flag = { type: DataTypes.BOOLEAN, allowNull: false };
const json = { type: DataTypes.JSONB, allowNull: false };
const moment = { type: DataTypes.DATE };
const now = { ...moment, defaultValue: DataTypes.NOW };
/** Raised by the database at every change. */
const version = { type: DataTypes.INTEGER };
const bytes = { type: DataTypes.BLOB, allowNull: false };

/** Model, table and columns; the constraints themselves are the migrations'. */
const tables: [ModelStatic<Model>, string, ModelAttributes][] = [
  [Rig, "rigs", { id, version, name: words, retiredAt: moment }],
  [RigRevision, "rig_revisions", { id, rigId: key, number: position, note: emptyWords, spec: json }],
  [ConsoleSystem, "systems", { id, version, name: words, screens: json, rates: json, note: emptyWords }],
  [
    Title,
    "titles",
    {
      id,
      version,
      systemId: key,
      name: words,
      nativeFps: real,
      tied: flag,
      region: emptyWords,
      hardness: words,
      memoryNeededGb: real,
      notes: emptyWords,
      patches: json,
      needs: { ...json, defaultValue: [] },
      options: { ...json, defaultValue: [] },
      copy: { type: DataTypes.JSONB },
      retiredAt: moment,
    },
  ],
  [
    Scene,
    "scenes",
    { id, titleId: key, position, name: words, how: emptyWords, seconds: real, worst: flag, fps: real },
  ],
  [
    Engine,
    "engines",
    {
      id,
      version,
      name: words,
      notes: emptyWords,
      backEnds: json,
      configFiles: { ...json, defaultValue: [] },
      layers: { ...json, defaultValue: [] },
    },
  ],
  [EngineSystem, "engine_systems", { engineId: partOfKey, systemId: partOfKey }],
  [
    Build,
    "builds",
    {
      id,
      engineId: key,
      version: words,
      branch: words,
      date: { type: DataTypes.DATEONLY },
      notes: emptyWords,
      link: emptyWords,
      sha256: emptyWords,
    },
  ],
  [CatalogueSetting, "settings", { id, engineId: key, position, key: words, definition: json }],
  [
    HouseRuleSet,
    "house_rules",
    { id, version, name: words, rules: json, isDefault: { ...flag, defaultValue: false } },
  ],
  [
    Job,
    "jobs",
    {
      id,
      version,
      rigId: key,
      titleId: key,
      buildId: key,
      houseRulesId: key,
      aim: words,
      targetFps: real,
      strategy: { ...words, defaultValue: "climb" },
      createdAt: now,
      closedAt: moment,
      deletedAt: moment,
      closing: { type: DataTypes.JSONB },
      baseline: { type: DataTypes.JSONB },
    },
  ],
  [
    Run,
    "runs",
    {
      id,
      version,
      jobId: key,
      number: position,
      rigRevisionId: key,
      buildId: key,
      source: words,
      form: words,
      label: emptyWords,
      fileName: maybeWords,
      madeAt: now,
      settings: json,
      conditions: json,
      rules: json,
      yardstick: json,
      cacheState: words,
      state: words,
      skippedRows: position,
      preflight: json,
      notes: emptyWords,
      trialId: { type: DataTypes.UUID },
      arm: { type: DataTypes.INTEGER },
      fileHash: maybeWords,
      scene: emptyWords,
      tags: { ...json, defaultValue: [] },
      capture: { type: DataTypes.JSONB },
      overruled: { type: DataTypes.JSONB },
      fromMemory: { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false },
      deletedAt: moment,
    },
  ],
  [
    Trial,
    "trials",
    {
      id,
      version,
      jobId: key,
      number: position,
      kind: words,
      name: words,
      arms: json,
      rounds: position,
      cold: flag,
      plan: json,
      before: json,
      createdAt: now,
      choice: maybeWords,
      keptArm: { type: DataTypes.INTEGER },
      reason: emptyWords,
      outcome: { type: DataTypes.JSONB },
      decidedAt: moment,
      decidedBy: maybeWords,
      landed: { ...flag, defaultValue: false },
      deletedAt: moment,
    },
  ],
  [
    Fault,
    "faults",
    {
      id,
      runId: key,
      kind: words,
      severity: words,
      scene: emptyWords,
      atMs: real,
      note: emptyWords,
      workaround: emptyWords,
      deletedAt: moment,
    },
  ],
  [
    Still,
    "stills",
    {
      id,
      runId: key,
      position,
      atMs: real,
      why: words,
      label: words,
      lastsMs: real,
      width: position,
      height: position,
      png: bytes,
    },
  ],
  [
    RunMark,
    "marks",
    { runId: partOfKey, position: { ...position, primaryKey: true }, label: words, startMs: real, endMs: real },
  ],
  [
    RunSummary,
    "run_summaries",
    {
      runId: partOfKey,
      methodVersion: position,
      grade: { ...words, allowNull: true },
      averageFps: real,
      held: flag,
      summary: json,
      verdict: json,
    },
  ],
  [PreflightRow, "preflight_items", { id, position, definition: json, own: { ...flag, defaultValue: true } }],
  [
    BenchState,
    "bench_state",
    {
      id: { ...position, primaryKey: true, defaultValue: 1 },
      version,
      rigId: { type: DataTypes.UUID },
      jobId: { type: DataTypes.UUID },
      houseRulesId: { type: DataTypes.UUID },
      conditions: { type: DataTypes.JSONB },
    },
  ],
];

const bound = new WeakSet<Sequelize>();

/** The pool with every model bound to it; the endpoint of all repositories. */
export function store(): Sequelize {
  const sequelize = database();
  if (bound.has(sequelize)) return sequelize;
  bound.add(sequelize);
  for (const [model, tableName, attributes] of tables) {
    // Sequelize writes into the descriptions it is given; those above are shared.
    const own = Object.fromEntries(
      Object.entries(attributes).map(([name, described]) => [name, { ...(described as object) }]),
    ) as ModelAttributes;
    model.init(own, { sequelize, tableName, modelName: tableName });
  }
  Title.belongsTo(ConsoleSystem, { foreignKey: "systemId", as: "system" });
  Title.hasMany(Scene, { foreignKey: "titleId", as: "scenes" });
  Engine.hasMany(Build, { foreignKey: "engineId", as: "builds" });
  Engine.hasMany(EngineSystem, { foreignKey: "engineId", as: "systems" });
  Build.belongsTo(Engine, { foreignKey: "engineId", as: "engine" });
  Rig.hasMany(RigRevision, { foreignKey: "rigId", as: "revisions" });
  Job.belongsTo(Rig, { foreignKey: "rigId", as: "rig" });
  Job.belongsTo(Title, { foreignKey: "titleId", as: "title" });
  Job.belongsTo(Build, { foreignKey: "buildId", as: "build" });
  Job.belongsTo(HouseRuleSet, { foreignKey: "houseRulesId", as: "houseRules" });
  Run.hasOne(RunSummary, { foreignKey: "runId", as: "summary" });
  return sequelize;
}
