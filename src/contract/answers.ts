import { z } from "@/core/schema";
import type { PlaceRow } from "@/core/job";
import type { Diagnosis } from "@/core/diagnose";
import {
  conditionsSchema,
  newSystemSchema,
  newTitleSchema,
  rigSpecSchema,
  settingsSchema,
  settingValueSchema,
  type Catalogue,
  type Conditions,
  type Settings,
} from "@/core/kit";
import type {
  BenchSet,
  EngineDetail,
  FoundRow,
  HouseRulesRow,
  JobClosing,
  ProfileListRow,
  ListView,
  RigDetail,
  RigListRow,
  JobChoices,
  RunEditsView,
  StillRow,
  SystemRow,
  TitleDetail,
  TitleListRow,
} from "@/core/records";
import type { BenchView, JobView, JobsView, ProfileView, Rejudged, TrialView } from "./views";
import { layers, staleKinds } from "@/core/profile";
import { recipeSchema, type Recipe } from "@/core/recipe";
import { runStates } from "@/core/records";
import { armConditionsSchema, armRoles, trialPlanSchema, type TrialOutcome } from "@/core/trial";
import { grades, houseRulesSchema } from "@/core/verdict";

/*
 * What doors answer, as schemas: the shape that callers may rely on. Objects may hold more than is named here.
 * Moments are texts of ISO 8601; figures may be null where a form of trace can't say.
 */

const moment = z.string().describe("ISO 8601");
const id = z.uuid();
const figure = z.number().nullable();
const version = z.number().int().min(0).describe("What If-Match has to say to edit this.");
export const open = <Shape extends z.ZodRawShape>(shape: Shape) => z.looseObject(shape);
/**
 * A schema for what is typed elsewhere: the type is the application's own, the schema what is promised of it.
 */
export const of = <T>(schema: z.ZodType) => schema as unknown as z.ZodType<T>;

export const madeSchema = of<{ id: string }>(open({ id }));
export const namedSchema = of<{ id: string; conditions: Conditions | null; settings: Settings }>(
  open({ id, conditions: conditionsSchema.nullable(), settings: settingsSchema }),
);
export const nothingSchema = of<Record<string, never>>(z.looseObject({}));
export const demoSchema = of<{ jobs: number; own: number }>(
  open({
    jobs: z.number().int().describe("Its jobs that are there."),
    own: z.number().int().describe("Of them those that somebody brought runs of their own into."),
  }),
);
/** A file of text, with the name that it is saved under. */
export const textSchema = of<{ name: string; text: string }>(z.string().describe("CSV (RFC 4180)."));
export const foundSchema = of<{ rows: FoundRow[] }>(
  open({
    rows: z.array(
      open({
        kind: z.enum(["job", "trial", "title", "rig", "setting"]),
        id,
        path: z.string().describe("Where its page is."),
        name: z.string(),
        note: z.string(),
      }),
    ),
  }),
);
export const editsSchema = of<RunEditsView>(
  open({
    rows: z.array(
      open({
        at: moment,
        actor: z.string(),
        changes: z.array(open({ field: z.string(), from: z.unknown(), to: z.unknown() })),
      }),
    ),
  }),
);
export const stillsAnswerSchema = of<{ rows: StillRow[] }>(
  open({
    rows: z.array(
      open({
        id,
        atMs: z.number(),
        why: z.enum(["mark", "slow"]),
        label: z.string(),
        lastsMs: z.number().describe("How long the picture stood, ms."),
        width: z.number().int(),
        height: z.number().int(),
      }),
    ),
  }),
);
const profileRow = open({
  key: z.string(),
  label: z.string(),
  cells: open({ rig: z.unknown(), system: z.unknown(), title: z.unknown() }),
  from: z.enum(layers).nullable().describe("The layer that holds; null where the engine's default does."),
  value: settingValueSchema,
  standing: z.enum(["default", "proven", "untested", "stale", "against", "checked"]),
  stale: z.array(z.enum(staleKinds)),
  together: z.array(z.string()).describe("Keys that were held along with it in every trial that proves it."),
});
export const profilesSchema = of<{ rows: ProfileListRow[] }>(
  open({ rows: z.array(open({ rigId: id, engineId: id, values: z.number().int(), jobs: z.number().int() })) }),
);
const grade = z.enum(grades);
export const overruledSchema = z.looseObject({ grade: z.string(), reason: z.string(), by: z.string() });
export const profileSchema = of<ProfileView>(
  open({
    rows: z.array(profileRow),
    saw: z.number().int(),
    buildId: z.string(),
    systemId: z.string(),
    titleId: id.nullable(),
    light: open({
      jobId: id,
      runId: id,
      grade: grade.nullable(),
      overruled: overruledSchema.nullable(),
    }).nullable(),
  }),
);
export const plannedCheckSchema = of<{ jobId: string; trialId: string }>(open({ jobId: id, trialId: id }));
export const takenProfileSchema = of<{ changed: number; unknown: string[] }>(
  open({
    changed: z.number().int(),
    unknown: z.array(z.string()).describe("What the file names and isn't here."),
  }),
);
export const recipeAnswerSchema = of<Recipe>(recipeSchema);
export const changedSchema = of<{ changed: number }>(open({ changed: z.number().int() }));

/** A sentence as data, with its words beside it. */
export const saidSchema = open({
  code: z.string().describe("Which sentence; stable."),
  figures: z.unknown().describe("The figures in it."),
  words: z.string().describe("The sentence in English."),
});

const interval = open({ low: figure, high: figure });
const ratio = open({ ratio: z.number(), low: figure, high: figure });

const verdict = open({
  grade: grade.nullable(),
  reasons: z.array(open({ rule: z.string(), value: figure, limit: z.number(), met: z.boolean() })),
  partial: z.boolean(),
  between: z
    .tuple([grade, grade])
    .optional()
    .describe("The worst and the best light that readings leave open, where that is more than one."),
  remarks: z.array(saidSchema),
});
const summary = open({
  version: z.number().int(),
  form: z.enum(["frames", "interval"]),
  frames: z.number().int(),
  durationMs: z.number(),
  averageFps: z.number(),
  speedPercent: z.number(),
  reportedSpeedPercent: figure,
  medianFrameTimeMs: figure,
  p99FrameTimeMs: figure,
  fullSpeedTimePercent: figure,
});
const evidence = open({
  name: z.string(),
  runs: z.number().int(),
  grades: z.array(grade),
  faulted: z.boolean(),
  crashes: z.number().int(),
  hours: z.number(),
});
const pair = open({
  a: z.number().int(),
  b: z.number().int(),
  by: z.enum(["frames", "engine speed"]),
  p: z.number(),
  decision: z.enum(["better", "worse", "no difference", "undecided"]),
  worstTimeLow: ratio.nullable(),
  fullSpeedTime: interval.nullable(),
  hitchesPerMinute: interval.nullable(),
  barred: saidSchema.nullable().optional(),
  moreRunsPerSide: z.number(),
  chanceSettled: z.number().optional(),
}).and(ratio);
const advice = open({
  choice: z.enum(["keep", "put back"]),
  arm: z.number().int().nullable(),
  sentence: saidSchema,
});
const outcome = open({
  kind: z.string(),
  arms: z.array(evidence),
  pairs: z.array(pair),
  best: z.array(z.number().int()),
  advice,
  headline: saidSchema,
  notes: z.array(saidSchema),
});
export const outcomeSchema = of<TrialOutcome>(outcome);
const benchSet = open({ version, sentence: saidSchema, before: conditionsSchema })
  .nullable()
  .describe("What the decision set on the bench; null where nothing was.");
export const decidedSchema = of<{ outcome: TrialOutcome; bench: BenchSet | null }>(
  open({ outcome, bench: benchSet }),
);
export const undecidedSchema = of<{ bench: BenchSet | null }>(open({ bench: benchSet }));

const arm = open({
  name: z.string(),
  role: z.enum(armRoles),
  settings: settingsSchema,
  conditions: armConditionsSchema,
  buildId: id.nullable(),
  level: figure,
});
const trial = open({
  id,
  version,
  jobId: id,
  number: z.number().int(),
  kind: z.string(),
  name: z.string(),
  arms: z.array(arm),
  rounds: z.number().int(),
  cold: z.boolean(),
  plan: trialPlanSchema,
  createdAt: moment,
  choice: z.enum(["keep", "put back"]).nullable(),
  keptArm: z.number().int().nullable(),
  reason: z.string(),
  decidedAt: moment.nullable(),
  outcome: outcome.nullable(),
  runs: z.array(z.number().int()),
  left: z.array(z.number().int()),
});
const run = open({
  id,
  version,
  number: z.number().int(),
  state: z.enum(runStates),
  source: z.enum(["log", "tally", "simulated", "capture"]),
  form: z.enum(["frames", "interval"]),
  label: z.string(),
  madeAt: moment,
  settings: settingsSchema,
  conditions: conditionsSchema,
  crashed: z.boolean(),
  cold: z.boolean(),
  outdated: z.boolean(),
  trialId: id.nullable(),
  arm: z.number().int().nullable(),
  summary,
  verdict,
  warnings: z.array(saidSchema),
});
const standing = open({
  settings: settingsSchema,
  conditions: armConditionsSchema,
  buildId: id,
  targetFps: figure,
});
const holds = standing
  .extend({ decided: armConditionsSchema, driver: z.string() })
  .describe("What any run is made under unless something is tried.");
const jobListed = open({
  id,
  version,
  rigId: id,
  rig: z.string(),
  titleId: id,
  title: z.string(),
  system: z.string(),
  engine: z.string(),
  build: z.string(),
  aim: z.enum(["speed", "picture", "battery"]),
  nativeFps: z.number(),
  targetFps: figure,
  createdAt: moment,
  closedAt: moment.nullable(),
});
const closing = open({
  overrides: z.array(
    open({ key: z.string(), trial: z.number().int().nullable(), proof: saidSchema.nullable() }),
  ),
  conditions: armConditionsSchema,
  targetFps: z.number(),
  grade: grade.nullable(),
  averageFps: z.number(),
  confirmationRunId: id,
});
const job = jobListed.extend({ rules: houseRulesSchema, closing: closing.nullable() });
const fault = open({ id, runId: id, kind: z.string(), severity: z.string(), note: z.string() });
const noise = open({ sd: z.number(), freedom: z.number() });
const diagnosis = open({
  causes: z.array(
    open({
      cause: z.string(),
      weight: z.number(),
      evidence: z.array(open({ cause: z.string(), weight: z.number(), sign: saidSchema })),
    }),
  ),
  sentence: saidSchema,
  settle: saidSchema.nullable(),
});
export const placesSchema = of<{ rows: PlaceRow[] }>(
  open({
    rows: z.array(
      open({
        label: z.string(),
        grade: grade.nullable(),
        visits: z.number().int(),
        averageFps: z.number(),
        interval: z.object({ low: z.number(), high: z.number() }).nullable(),
        targetFps: z.number(),
        worstFps: figure,
        readings: figure,
        seconds: z.number(),
      }),
    ),
  }),
);
export const diagnosisSchema = of<Diagnosis>(diagnosis);
export const closingSchema = of<JobClosing>(closing);

export const jobViewSchema = of<JobView>(
  open({
    job,
    runs: z.array(run),
    trials: z.array(trial),
    faults: z.array(fault),
    standing,
    holds,
    tellingRunId: id.nullable().describe("The run that says how things stand."),
    diagnosis: open({ runId: id, diagnosis }).nullable(),
    suggestions: z.array(
      open({ sentence: saidSchema, minutes: z.number(), expected: z.number(), cautions: z.array(saidSchema) }),
    ),
    next: open({ action: z.string(), sentence: saidSchema }),
    noise,
    noiseMeasured: z.boolean(),
  }),
);
export const trialViewSchema = of<TrialView>(
  open({
    job,
    trial,
    kind: open({ name: z.string(), sweep: z.boolean(), warmOnly: z.boolean() }),
    keptNames: z.array(z.string()).describe("What is kept when an arm is, one an arm."),
    targetFps: z.number(),
    runs: z.array(run),
    faults: z.array(fault),
    noise,
    drifted: z.array(saidSchema),
    reading: open({ kind: z.string() }).nullable().describe("What the runs show, by kind of trial."),
    outcome: outcome.nullable(),
    advice: advice.nullable(),
    missing: z.array(saidSchema),
    pending: z.string().nullable().describe("Which facts still have to be reckoned; null when nothing has."),
    evidence: z.array(evidence),
  }),
);

const listed = { total: z.number().int(), next: z.string().nullable().describe("Cursor of the next rows.") };
export const jobsSchema = of<JobsView>(open({ rows: z.array(jobListed), ...listed }));
export const rigsSchema = of<ListView<RigListRow>>(
  open({ rows: z.array(open({ id, name: z.string(), spec: rigSpecSchema })), ...listed }),
);
export const titlesSchema = of<ListView<TitleListRow>>(
  open({ rows: z.array(open({ id, name: z.string(), systemId: id, nativeFps: z.number() })), ...listed }),
);

export const benchSchema = of<BenchView>(
  open({
    version,
    conditions: conditionsSchema.nullable(),
    jobId: id.nullable(),
    houseRulesId: id.nullable(),
    warnings: z.array(z.string()).describe("Conditions that go against the house rules."),
  }),
);
export const rigSchema = of<RigDetail>(open({ id, version, name: z.string(), spec: rigSpecSchema }));
export const systemSchema = of<SystemRow>(newSystemSchema.loose().extend({ id, version }));
export const titleSchema = of<TitleDetail>(newTitleSchema.loose().extend({ id, version }));
export const engineSchema = of<EngineDetail>(
  z.looseObject({ id, version, name: z.string(), catalogue: z.array(z.looseObject({ key: z.string() })) }),
);
export const jobChoicesSchema = of<JobChoices>(
  open({
    builds: z.array(open({ id, engine: z.string(), version: z.string() })),
    houseRules: z.array(open({ id, name: z.string() })),
  }),
);
export const houseRulesRowSchema = of<HouseRulesRow>(
  open({ id, version, name: z.string(), rules: houseRulesSchema }),
);
export const catalogueAnswerSchema = of<Catalogue>(
  z.looseObject({ format: z.string(), engine: z.string(), settings: z.array(z.unknown()) }),
);
export const rejudgedSchema = of<{ judged: number; closed: number; changes: Rejudged[] }>(
  open({
    judged: z.number().int(),
    closed: z.number().int().describe("Runs of closed jobs, which stay as they were."),
    changes: z.array(
      open({ runId: id, jobId: id, number: z.number().int(), from: grade.nullable(), to: grade.nullable() }),
    ),
  }),
);
export const importedSchema = of<{ id: string; number: number; grade: (typeof grades)[number] | null }>(
  open({ id, number: z.number().int(), grade: grade.nullable() }),
);
export const openedSchema = of<{ id: string; number: number }>(open({ id, number: z.number().int() }));
export const appendedSchema = of<{ kept: boolean }>(
  open({ kept: z.boolean().describe("False where the piece was there already.") }),
);
export const healthSchema = of<{
  application: "velvet-lamp";
  version: string;
  live: true;
  ready: boolean;
  database: boolean;
  migrations: { done: number; known: number };
  process: number;
}>(
  open({
    application: z.literal("velvet-lamp"),
    version: z.string(),
    live: z.literal(true).describe("This process answers."),
    ready: z.boolean().describe("The database answers, and is of this version."),
    database: z.boolean(),
    migrations: open({ done: z.number().int(), known: z.number().int() }),
    process: z.number().int(),
  }),
);
export const workSchema = of<{ outdatedRuns: number }>(
  open({ outdatedRuns: z.number().int().describe("Runs whose figures are being made anew.") }),
);
export const bytesSchema = of<Uint8Array>(z.unknown());
export const problemSchema = z.object({
  type: z.string(),
  status: z.number().int(),
  title: z.string().describe("What is wrong."),
  detail: z.string().describe("What to do."),
  fields: z.record(z.string(), z.string()).describe("Field → what is wrong with it."),
});
