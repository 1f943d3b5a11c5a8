import {
  aims,
  cacheStates,
  hardnesses,
  newEngineSchema,
  newFaultSchema,
  newJobSchema,
  newRigSchema,
  newRunSchema,
  newSystemSchema,
  newTitleSchema,
  preflightItemSchema,
  mostCatalogueBytes,
  strategies,
  conditionsSchema,
  settingValueSchema,
} from "@/core/kit";
import { grades, houseRulesSchema } from "@/core/verdict";
import { choiceSchema, newTrialSchema } from "@/core/trial";
import { layers, mostProfileValues, profileFileSchema } from "@/core/profile";
import { cursorSchema, longList, z } from "@/core/schema";
import { mostStills, stillPixels } from "@/core/capture";
import { channelUnits, mostRunMs, traceRole, type ChannelRole } from "@/core/trace";
import * as answers from "./answers";
import { doorsAbove } from "./above";
import { doorsOfTrust } from "./trust";
import { askedId, door, type Door } from "./door";
import { jobBeginnings, jobOrders, jobStates } from "./lists";

const megabyte = 1024 * 1024;
const text = (most: number) => z.string().trim().max(most);

/* What doors take, where it isn't declared with the thing itself. */
export const addedJobSchema = newJobSchema.extend({
  strategy: z.enum(strategies).default("climb"),
  beginsFrom: z
    .enum(jobBeginnings)
    .default("profile")
    .describe("What the layers say, or the engine's defaults."),
});
const named = (what: string) =>
  text(120).default("").describe(`${what} by name; what isn't on the shelf is made.`);
/** A job by the names of what it is made from; what has no name yet is called so. */
export const namedJobSchema = z.object({
  rig: text(80).min(1, "Give the rig a name.").describe("The rig by name; made with what is known of it."),
  title: named("The title"),
  system: named("The system"),
  engine: named("The engine"),
  build: text(60).default("").describe("The engine's build; its first one where none is named."),
  nativeFps: z
    .number()
    .min(1)
    .max(1000)
    .describe("The rate that the title was built for, where it is made here."),
  tied: z.boolean().default(true).describe("Whether its speed hangs on its rate, where it is made here."),
  refreshHz: z.number().min(10).max(1000).describe("Refresh of the rig's screen, where it is made here."),
  targetFps: z.number().min(1).max(1000).nullable().default(null),
  houseRulesId: z.uuid().nullable().default(null),
});
/** Small pictures of a run, as bare pixels. */
export const stillsSchema = z.object({
  stills: z
    .array(
      z.object({
        atMs: z.number().min(0).max(mostRunMs),
        why: z.enum(["mark", "slow"]),
        label: text(120),
        lastsMs: z.number().min(0).max(mostRunMs),
        width: z.number().int().min(1).max(stillPixels),
        height: z.number().int().min(1).max(stillPixels),
        pixels: z
          .base64()
          .max(4 * stillPixels ** 2)
          .describe("Red, green and blue of every pixel, row by row."),
      }),
    )
    .min(1)
    .max(mostStills),
});
export const jobChangeSchema = z
  .object({
    strategy: z.enum(strategies),
    aim: z.enum(aims),
    targetFps: z.number().min(1).max(1000).nullable(),
    titleId: z.uuid(),
    buildId: z.uuid(),
    houseRulesId: z.uuid(),
    deleted: z.boolean(),
  })
  .partial();
export const closeSchema = z.object({ note: text(1000).default("") }).default({ note: "" });
/** What is said about a run, changed after it was made; what it measured stays as it is. */
export const runChangeSchema = z
  .object({
    label: text(120),
    notes: text(2000),
    tags: z.array(text(40).min(1)).max(12),
    scene: text(120),
    fileName: text(255).nullable(),
    cacheState: z.enum(cacheStates),
    crashed: z.boolean(),
    conditions: conditionsSchema,
    place: z
      .object({
        jobId: z.uuid().optional().describe("Another job on the same rig."),
        trialId: z.uuid().nullable(),
        arm: z.number().int().min(0).max(23).nullable(),
      })
      .refine(
        ({ trialId, arm }) => (trialId === null) === (arm === null),
        "A run of a trial belongs to an arm.",
      )
      .describe("The arm it was made for, or none."),
    overruled: z
      .object({ grade: z.enum(grades), reason: text(400).min(1, "Say why.") })
      .nullable()
      .describe("The light that somebody gives it, shown beside the computed one; null takes it back."),
    fromMemory: z.boolean(),
    deleted: z.boolean(),
  })
  .partial();
export const revisionSchema = newRigSchema.extend({ note: text(200).default("") });
export const manyTitlesSchema = z.object({
  ids: z.array(z.uuid()).min(1).max(5000),
  retired: z.boolean().optional(),
  hardness: z.enum(hardnesses).optional(),
});
export const manyRigsSchema = manyTitlesSchema.omit({ hardness: true });
export const namedRulesSchema = z.object({
  name: text(80).min(1, "Give them a name."),
  rules: houseRulesSchema,
});
export const rejudgeSchema = z.object({ rules: houseRulesSchema, apply: z.boolean() });
export const benchChangeSchema = z.object({
  rigId: z.uuid().optional(),
  jobId: z.uuid().nullable().optional(),
  houseRulesId: z.uuid().optional(),
  conditions: conditionsSchema.optional(),
});
const channelRoles = Object.keys(channelUnits) as ChannelRole[];
/** A hand tally: numbers read off a screen, each with the second at which it was read. */
export const tallySchema = z.object({
  run: newRunSchema,
  madeAt: z.iso
    .datetime()
    .optional()
    .describe("When it was seen, of a run that is told from memory; now otherwise."),
  readings: z
    .array(
      z.object({
        fps: z.number().min(0).max(1000),
        second: z.number().min(0).max(86_400),
        scene: text(120).default(""),
        /** What was read beside it, in the units of a run's channels. */
        channels: z.partialRecord(z.enum(channelRoles), z.number().min(0).max(1e7)).optional(),
      }),
    )
    .min(1, "Enter at least one reading.")
    .max(2000),
});
export const trialChangeSchema = z.object({
  rounds: z.number().int().min(1).max(40).optional(),
  arm: z.looseObject({}).describe("An arm, as in a new trial.").optional(),
  deleted: z.boolean().optional(),
});
export const openRunSchema = z.object({ run: newRunSchema, form: z.enum(["frames", "interval"]) });
/** Values in one piece, at most; larger ones are cut by whoever sends them. */
const mostValues = 150_000;
/** In one go: a hundred thousand figures aren't looked at by a schema each. */
const isFigures = (values: unknown) =>
  Array.isArray(values) &&
  values.length > 0 &&
  values.length <= mostValues &&
  values.every((value) => Number.isFinite(value));
export const appendSchema = z.object({
  role: z.enum([traceRole, ...channelRoles]).describe("The trace itself, or a channel beside it."),
  sequence: z.number().int().min(0).max(1_000_000).describe("Its place among the pieces of its role, from 0."),
  values: z
    .custom<number[]>(isFigures, `Figures are wanted, 1 to ${mostValues.toLocaleString("en-GB")} of them.`)
    .meta({ type: "array", items: { type: "number" }, minItems: 1, maxItems: mostValues })
    .describe("Frame times in ms; for readings pairs of duration and rate, for channels of time and value."),
});
const mostMarks = 10_000;
export const finishSchema = z.object({
  state: z.enum(["whole", "cut off", "crashed"]),
  marks: longList(
    z
      .object({ label: text(120), startMs: z.number().min(0), endMs: z.number() })
      .refine(({ startMs, endMs }) => endMs >= startMs, "A mark ends before it begins."),
    { most: mostMarks },
  ).default([]),
});

/* Profiles: a rig with an engine, and a place in its layers. */
const placeShape = { rigId: z.uuid(), engineId: z.uuid() };
const saw = z.number().int().min(0).describe("The newest change that was seen, as the profile says it.");
export const profileQuery = z.object({
  rig: z.uuid(),
  engine: z.uuid(),
  system: askedId,
  title: askedId,
  build: askedId,
  asOf: z.string().max(40).catch("").describe("As it stood at this moment, ISO 8601; empty for now."),
});
const profileKey = z.string().min(1).max(120);
export const profileValuesSchema = z
  .object({
    ...placeShape,
    layer: z.enum(layers),
    systemId: z.uuid().nullable().default(null),
    titleId: z.uuid().nullable().default(null),
    buildId: z.uuid().nullable().default(null).describe("Only for this build; null for every one."),
    values: z
      .array(
        z.object({ key: profileKey, value: settingValueSchema.nullable().describe("null: inherits again") }),
      )
      .min(1)
      .max(500),
    origin: z
      .discriminatedUnion("kind", [
        z.object({ kind: z.literal("by hand") }),
        z.object({ kind: z.literal("file"), name: text(200) }),
        z.object({ kind: z.literal("carried"), from: text(200) }),
        z.object({ kind: z.literal("run"), runId: z.uuid() }),
      ])
      .default({ kind: "by hand" }),
    saw,
  })
  .refine(
    ({ layer, systemId, titleId }) =>
      (layer === "system") === (systemId !== null) && (layer === "title") === (titleId !== null),
    { path: ["layer"], message: "Name the layer's own title or system, and no other." },
  );
export const undoValueSchema = z.object({ ...placeShape, id: z.number().int().min(1) });
export const liftSchema = z.object({
  ...placeShape,
  systemId: z.uuid(),
  key: profileKey,
  value: settingValueSchema,
  saw,
});
export const carrySchema = z.object({
  fromRigId: z.uuid(),
  toRigId: z.uuid(),
  engineId: z.uuid(),
  systemId: z.uuid(),
  titleId: z.uuid().nullable(),
  buildId: z.uuid().nullable(),
});
export const takenProfileSchema = z.object({ ...placeShape, file: profileFileSchema, saw });
export const checkSchema = z.object({
  ...placeShape,
  titleId: z.uuid(),
  buildId: z.uuid(),
  keys: z.array(profileKey).min(1).max(100),
});

/** Which jobs a list shows, and in which order. */
export const jobsQuery = z.object({
  search: z.string().max(200).catch(""),
  filter: z.enum(["", ...jobStates]).catch(""),
  sort: z.enum(jobOrders).catch("worked"),
  cursor: cursorSchema,
  limit: z.coerce.number().int().min(1).max(200).catch(50),
});
export const listQuery = jobsQuery.omit({ filter: true, sort: true }).extend({
  filter: z.string().max(60).catch(""),
  sort: z.string().max(30).catch("name"),
  descending: z
    .enum(["true", "false"])
    .catch("false")
    .transform((yes) => yes === "true"),
});

const doorsByName = {
  viewBench: door({
    method: "GET",
    path: "/bench",
    group: "Bench",
    summary: "What lies on the bench.",
    output: answers.benchSchema,
  }),
  changeBench: door({
    method: "PUT",
    path: "/bench",
    group: "Bench",
    summary: "Put a rig, a job, house rules or conditions on the bench.",
    body: benchChangeSchema,
    output: answers.benchSchema,
    edits: "required",
    refusals: [404, 409, 422],
  }),

  find: door({
    method: "GET",
    path: "/find",
    group: "Store",
    summary: "Jobs, trials, titles, rigs and settings by name, a few of each.",
    query: z.object({ search: z.string().trim().max(200).catch("") }),
    output: answers.foundSchema,
  }),
  viewDemo: door({
    method: "GET",
    path: "/demo",
    group: "Store",
    summary: "How much of the demo data is there.",
    output: answers.demoSchema,
  }),
  bringDemo: door({
    method: "PUT",
    path: "/demo",
    group: "Store",
    summary: "Bring the demo data back.",
    output: answers.nothingSchema,
    refusals: [409],
  }),
  removeDemo: door({
    method: "DELETE",
    path: "/demo",
    group: "Store",
    summary: "Take the demo data away; jobs with runs of somebody's own stay.",
    output: answers.nothingSchema,
  }),

  listJobs: door({
    method: "GET",
    path: "/jobs",
    group: "Jobs",
    summary: "Jobs: the last worked on first unless sorted otherwise; those left out on demand.",
    query: jobsQuery,
    output: answers.jobsSchema,
  }),
  addJob: door({
    method: "POST",
    path: "/jobs",
    group: "Jobs",
    summary: "Open a job and put it on the bench.",
    body: addedJobSchema,
    output: answers.madeSchema,
    creates: true,
    refusals: [409, 422],
  }),
  nameJob: door({
    method: "POST",
    path: "/jobs/named",
    group: "Jobs",
    summary: "Open a job by the names of rig, title, system and engine; what isn't on the shelf is made.",
    body: namedJobSchema,
    output: answers.namedSchema,
    creates: true,
    refusals: [409, 422],
  }),
  viewJob: door({
    method: "GET",
    path: "/jobs/{id}",
    group: "Jobs",
    summary: "A job as it happened: runs, trials, faults, what holds, what to do next.",
    output: answers.jobViewSchema,
    refusals: [404],
  }),
  changeJob: door({
    method: "PATCH",
    path: "/jobs/{id}",
    group: "Jobs",
    summary: "Change a job, leave it out, or take it back. What its first run fixed can't be changed after it.",
    body: jobChangeSchema,
    output: answers.nothingSchema,
    edits: "required",
    refusals: [404, 409, 422],
  }),
  viewJobChoices: door({
    method: "GET",
    path: "/jobs/{id}/choices",
    group: "Jobs",
    summary: "What a job that hasn't begun may still be changed to, its title aside.",
    output: answers.jobChoicesSchema,
    refusals: [404],
  }),
  saveJob: door({
    method: "GET",
    path: "/jobs/{id}/file",
    group: "Jobs",
    summary: "A job as a file: its story, what each trial came to, and each run's frames.",
    output: answers.nothingSchema,
    gives: "file",
    refusals: [404],
  }),
  copyJob: door({
    method: "POST",
    path: "/jobs/{id}/copy",
    group: "Jobs",
    summary: "Open a job like another, beginning with what holds there.",
    output: answers.madeSchema,
    creates: true,
    refusals: [404],
  }),
  closeJob: door({
    method: "POST",
    path: "/jobs/{id}/closing",
    group: "Jobs",
    summary: "Close a job with its profile.",
    body: closeSchema,
    output: answers.closingSchema,
    status: 201,
    edits: "optional",
    refusals: [404, 409, 422],
  }),
  reopenJob: door({
    method: "DELETE",
    path: "/jobs/{id}/closing",
    group: "Jobs",
    summary: "Open a closed job again.",
    output: answers.nothingSchema,
    edits: "optional",
    refusals: [404, 409],
  }),
  judgeAnew: door({
    method: "POST",
    path: "/jobs/{id}/judging",
    group: "Jobs",
    summary: "Judge runs by what their title says now, where that was corrected after they were made.",
    output: answers.changedSchema,
    refusals: [404, 409],
  }),
  viewDiagnosis: door({
    method: "GET",
    path: "/jobs/{id}/diagnosis",
    group: "Jobs",
    summary: "What holds one run back.",
    query: z.object({ run: askedId }),
    output: answers.diagnosisSchema,
    refusals: [404],
  }),

  importRun: door({
    method: "POST",
    who: "runs",
    path: "/runs",
    group: "Runs",
    summary: "Keep a whole run sent as a packed trace.",
    takes: "bytes",
    mostBytes: 64 * megabyte,
    bounds: null,
    output: answers.importedSchema,
    creates: true,
    refusals: [404, 409, 422],
  }),
  tallyRun: door({
    method: "POST",
    who: "runs",
    path: "/tallies",
    group: "Runs",
    summary: "Keep a hand tally as a run.",
    body: tallySchema,
    output: answers.importedSchema,
    creates: true,
    refusals: [404, 409, 422],
  }),
  openRun: door({
    method: "POST",
    who: "runs",
    path: "/runs/open",
    group: "Runs",
    summary: "Open a run that grows.",
    body: openRunSchema,
    output: answers.openedSchema,
    creates: true,
    refusals: [404, 409, 422],
  }),
  appendRun: door({
    method: "POST",
    who: "runs",
    path: "/runs/{id}/pieces",
    group: "Runs",
    summary: "Append a piece to an open run; one seen before changes nothing.",
    body: appendSchema,
    bounds: { keys: 100, texts: 100, values: mostValues + 100 },
    output: answers.appendedSchema,
    status: 201,
    refusals: [404, 409, 422],
  }),
  finishRun: door({
    method: "POST",
    who: "runs",
    path: "/runs/{id}/finish",
    group: "Runs",
    summary: "End an open run: measured and judged from what was appended.",
    body: finishSchema,
    bounds: { keys: 3 * mostMarks + 100, values: 5 * mostMarks, texts: 4 * mostMarks + 200 },
    output: answers.importedSchema,
    refusals: [404, 409, 422],
  }),
  changeRun: door({
    method: "PATCH",
    path: "/runs/{id}",
    group: "Runs",
    summary: "Change what is said about a run, move it to another arm or job, leave it out, or take it back.",
    body: runChangeSchema,
    output: answers.nothingSchema,
    edits: "required",
    refusals: [404, 409, 422],
  }),
  readRunCsv: door({
    method: "GET",
    path: "/runs/{id}/csv",
    group: "Runs",
    summary: "A run as CSV, with its marks: a log that can be read again.",
    output: answers.textSchema,
    gives: "csv",
    refusals: [404],
  }),
  viewRunEdits: door({
    method: "GET",
    path: "/runs/{id}/edits",
    group: "Runs",
    summary: "What was changed about a run since it was made, the newest first.",
    output: answers.editsSchema,
    refusals: [404],
  }),
  viewPlaces: door({
    method: "GET",
    path: "/runs/{id}/places",
    group: "Runs",
    summary: "A run place by place, where it names more than one.",
    output: answers.placesSchema,
    refusals: [404],
  }),
  readTrace: door({
    method: "GET",
    path: "/runs/{id}/trace",
    group: "Runs",
    summary: "A run's trace, packed.",
    output: answers.bytesSchema,
    gives: "bytes",
    refusals: [404],
  }),

  addStills: door({
    method: "POST",
    who: "runs",
    path: "/runs/{id}/stills",
    group: "Runs",
    summary: "Keep up to twelve small pictures of a run measured from a video, as bare pixels; once.",
    body: stillsSchema,
    mostBytes: 4 * megabyte,
    output: z.object({ kept: z.number().int() }),
    creates: true,
    refusals: [404, 409, 422],
  }),
  listStills: door({
    method: "GET",
    path: "/runs/{id}/stills",
    group: "Runs",
    summary: "A run's stills: which moments they are of.",
    output: answers.stillsAnswerSchema,
    refusals: [404],
  }),
  readStill: door({
    method: "GET",
    path: "/stills/{id}",
    group: "Runs",
    summary: "A still as a PNG picture.",
    output: answers.bytesSchema,
    gives: "png",
    refusals: [404],
  }),

  addFault: door({
    method: "POST",
    path: "/faults",
    group: "Faults",
    summary: "Note a fault of a run; its verdict follows.",
    body: newFaultSchema,
    output: answers.madeSchema,
    creates: true,
    refusals: [404, 409, 422],
  }),
  removeFault: door({
    method: "DELETE",
    path: "/faults/{id}",
    group: "Faults",
    summary: "Take a fault back.",
    output: answers.nothingSchema,
    refusals: [404, 409],
  }),
  restoreFault: door({
    method: "PUT",
    path: "/faults/{id}",
    group: "Faults",
    summary: "Bring a fault back.",
    output: answers.nothingSchema,
    refusals: [404, 409],
  }),

  addTrial: door({
    method: "POST",
    path: "/trials",
    group: "Trials",
    summary: "Begin a trial or a sweep.",
    body: newTrialSchema,
    output: answers.openedSchema,
    creates: true,
    refusals: [404, 409, 422],
  }),
  viewTrial: door({
    method: "GET",
    path: "/trials/{id}",
    group: "Trials",
    summary: "A trial with all that is made of its runs.",
    output: answers.trialViewSchema,
    refusals: [404],
  }),
  changeTrial: door({
    method: "PATCH",
    path: "/trials/{id}",
    group: "Trials",
    summary: "More rounds, another level, or the trial left out and taken back.",
    body: trialChangeSchema,
    output: answers.nothingSchema,
    edits: "required",
    refusals: [404, 409, 422],
  }),
  viewOutcome: door({
    method: "GET",
    path: "/trials/{id}/outcome",
    group: "Trials",
    summary: "What a trial comes to by the runs it has; nothing is kept by asking.",
    output: answers.outcomeSchema,
    refusals: [404, 409],
  }),
  reckonTrial: door({
    method: "POST",
    who: "reads",
    path: "/trials/{id}/outcome",
    group: "Trials",
    summary: "What a trial comes to by the runs it has, made once for them and kept.",
    output: answers.outcomeSchema,
    refusals: [404, 409],
  }),
  decideTrial: door({
    method: "POST",
    path: "/trials/{id}/decision",
    group: "Trials",
    summary: "Keep an arm, or put everything back.",
    body: choiceSchema,
    output: answers.decidedSchema,
    status: 201,
    edits: "optional",
    refusals: [404, 409, 422],
  }),
  undecideTrial: door({
    method: "DELETE",
    path: "/trials/{id}/decision",
    group: "Trials",
    summary: "Take a decision back.",
    output: answers.undecidedSchema,
    edits: "optional",
    refusals: [404, 409],
  }),

  listProfiles: door({
    method: "GET",
    path: "/profiles",
    group: "Profiles",
    summary: "Where profiles are: rigs with engines.",
    output: answers.profilesSchema,
  }),
  viewProfile: door({
    method: "GET",
    path: "/profile",
    group: "Profiles",
    summary: "A profile in its layers: what each holds, which of them holds, how far it is proven.",
    query: profileQuery,
    output: answers.profileSchema,
    refusals: [404, 422],
  }),
  setProfileValues: door({
    method: "POST",
    path: "/profile/values",
    group: "Profiles",
    summary: "Set values in one layer, or have it inherit them again.",
    body: profileValuesSchema,
    output: answers.changedSchema,
    creates: true,
    refusals: [404, 409, 422],
  }),
  undoProfileValue: door({
    method: "POST",
    path: "/profile/undo",
    group: "Profiles",
    summary: "Take a change back: what stood there before it stands again.",
    body: undoValueSchema,
    output: answers.changedSchema,
    creates: true,
    refusals: [404, 422],
  }),
  liftValue: door({
    method: "POST",
    path: "/profile/lift",
    group: "Profiles",
    summary: "Move a value that titles share up to their system.",
    body: liftSchema,
    output: answers.changedSchema,
    creates: true,
    refusals: [409, 422],
  }),
  carryProfile: door({
    method: "POST",
    path: "/profile/carry",
    group: "Profiles",
    summary: "Take what holds to another rig, as a hypothesis there.",
    body: carrySchema,
    output: answers.changedSchema,
    creates: true,
    refusals: [404, 422],
  }),
  planCheck: door({
    method: "POST",
    path: "/profile/checks",
    group: "Profiles",
    summary: "Plan a short check of values for a title: one round against the engine's defaults.",
    body: checkSchema,
    output: answers.plannedCheckSchema,
    creates: true,
    refusals: [404, 409, 422],
  }),
  viewRecipe: door({
    method: "GET",
    path: "/jobs/{id}/recipe",
    group: "Profiles",
    summary: "What somebody else needs to set a job's title up the same way.",
    output: answers.recipeAnswerSchema,
    refusals: [404],
  }),
  viewProfileRecipe: door({
    method: "GET",
    path: "/profile/recipe",
    group: "Profiles",
    summary: "What somebody else needs to set up what a profile says, without a run of its own.",
    query: profileQuery,
    output: answers.recipeAnswerSchema,
    refusals: [404, 422],
  }),
  recipeSchema: door({
    method: "GET",
    path: "/recipe-schema",
    group: "Profiles",
    summary: "JSON Schema of recipes.",
    output: answers.nothingSchema,
    gives: "file",
  }),
  saveProfile: door({
    method: "GET",
    path: "/profile/file",
    group: "Profiles",
    summary: "A profile as a file: what is set in each layer, where it came from and when.",
    query: profileQuery.pick({ rig: true, engine: true }),
    output: answers.nothingSchema,
    gives: "file",
    refusals: [404],
  }),
  profileSchema: door({
    method: "GET",
    path: "/profile-schema",
    group: "Profiles",
    summary: "JSON Schema of profile files.",
    output: answers.nothingSchema,
    gives: "file",
  }),
  takeProfile: door({
    method: "PUT",
    path: "/profile/file",
    group: "Profiles",
    summary: "Take a profile file in as a hypothesis: systems and titles by their names.",
    body: takenProfileSchema,
    bounds: { keys: 9 * mostProfileValues, values: 10 * mostProfileValues, texts: 18 * mostProfileValues },
    output: answers.takenProfileSchema,
    refusals: [404, 409, 422],
  }),

  listRigs: door({
    method: "GET",
    path: "/rigs",
    group: "Kit",
    summary: "Rigs on the shelf.",
    query: listQuery,
    output: answers.rigsSchema,
  }),
  addRig: door({
    method: "POST",
    path: "/rigs",
    group: "Kit",
    summary: "Put a rig on the shelf.",
    body: newRigSchema,
    output: answers.madeSchema,
    creates: true,
    refusals: [409, 422],
  }),
  changeRigs: door({
    method: "PATCH",
    path: "/rigs",
    group: "Kit",
    summary: "Retire rigs, or bring them back.",
    body: manyRigsSchema,
    output: answers.changedSchema,
    refusals: [422],
  }),
  viewRig: door({
    method: "GET",
    path: "/rigs/{id}",
    group: "Kit",
    summary: "A rig with its revisions.",
    output: answers.rigSchema,
    refusals: [404],
  }),
  reviseRig: door({
    method: "PUT",
    path: "/rigs/{id}",
    group: "Kit",
    summary: "Change a rig: another description is another revision.",
    body: revisionSchema,
    output: z.looseObject({ revision: z.number().int() }),
    edits: "required",
    refusals: [404, 409, 422],
  }),
  duplicateRig: door({
    method: "POST",
    path: "/rigs/{id}/duplicate",
    group: "Kit",
    summary: "A rig like another.",
    output: answers.madeSchema,
    creates: true,
    refusals: [404],
  }),
  addSystem: door({
    method: "POST",
    path: "/systems",
    group: "Kit",
    summary: "Add a system.",
    body: newSystemSchema,
    output: answers.madeSchema,
    creates: true,
    refusals: [409, 422],
  }),
  viewSystem: door({
    method: "GET",
    path: "/systems/{id}",
    group: "Kit",
    summary: "A system.",
    output: answers.systemSchema,
    refusals: [404],
  }),
  changeSystem: door({
    method: "PUT",
    path: "/systems/{id}",
    group: "Kit",
    summary: "Change a system.",
    body: newSystemSchema,
    output: answers.nothingSchema,
    edits: "required",
    refusals: [404, 409, 422],
  }),
  listTitles: door({
    method: "GET",
    path: "/titles",
    group: "Kit",
    summary: "Titles on the shelf.",
    query: listQuery,
    output: answers.titlesSchema,
  }),
  addTitle: door({
    method: "POST",
    path: "/titles",
    group: "Kit",
    summary: "Add a title.",
    body: newTitleSchema,
    output: answers.madeSchema,
    creates: true,
    refusals: [409, 422],
  }),
  changeTitles: door({
    method: "PATCH",
    path: "/titles",
    group: "Kit",
    summary: "Change many titles at once.",
    body: manyTitlesSchema,
    output: answers.changedSchema,
    refusals: [422],
  }),
  viewTitle: door({
    method: "GET",
    path: "/titles/{id}",
    group: "Kit",
    summary: "A title with its scenes.",
    output: answers.titleSchema,
    refusals: [404],
  }),
  changeTitle: door({
    method: "PUT",
    path: "/titles/{id}",
    group: "Kit",
    summary: "Change a title.",
    body: newTitleSchema,
    output: answers.nothingSchema,
    edits: "required",
    refusals: [404, 409, 422],
  }),
  addEngine: door({
    method: "POST",
    path: "/engines",
    group: "Kit",
    summary: "Add an engine.",
    body: newEngineSchema,
    output: answers.madeSchema,
    creates: true,
    refusals: [409, 422],
  }),
  viewEngine: door({
    method: "GET",
    path: "/engines/{id}",
    group: "Kit",
    summary: "An engine with its builds and settings.",
    output: answers.engineSchema,
    refusals: [404],
  }),
  changeEngine: door({
    method: "PUT",
    path: "/engines/{id}",
    group: "Kit",
    summary: "Change an engine.",
    body: newEngineSchema,
    output: answers.nothingSchema,
    edits: "required",
    refusals: [404, 409, 422],
  }),
  exportCatalogue: door({
    method: "GET",
    path: "/engines/{id}/catalogue",
    group: "Kit",
    summary: "An engine's settings catalogue as a file.",
    output: answers.catalogueAnswerSchema,
    gives: "file",
    refusals: [404],
  }),
  importCatalogue: door({
    method: "PUT",
    path: "/engines/{id}/catalogue",
    group: "Kit",
    summary: "Replace an engine's settings catalogue by a file's.",
    takes: "bytes",
    mostBytes: mostCatalogueBytes,
    output: z.looseObject({ settings: z.number().int() }),
    edits: "optional",
    status: 201,
    refusals: [404, 409, 422],
  }),
  catalogueSchema: door({
    method: "GET",
    path: "/catalogue-schema",
    group: "Kit",
    summary: "JSON Schema of settings catalogues.",
    output: answers.nothingSchema,
    gives: "file",
  }),
  addPreflight: door({
    method: "POST",
    path: "/preflight",
    group: "Kit",
    summary: "Add a pre-flight item.",
    body: preflightItemSchema,
    output: answers.nothingSchema,
    creates: true,
    refusals: [422],
  }),
  removePreflight: door({
    method: "DELETE",
    path: "/preflight/{id}",
    group: "Kit",
    summary: "Remove a pre-flight item.",
    output: answers.nothingSchema,
    refusals: [404],
  }),
  addHouseRules: door({
    method: "POST",
    path: "/house-rules",
    group: "Kit",
    summary: "Add a set of house rules.",
    body: namedRulesSchema,
    output: answers.madeSchema,
    creates: true,
    refusals: [409, 422],
  }),
  viewHouseRules: door({
    method: "GET",
    path: "/house-rules/{id}",
    group: "Kit",
    summary: "A set of house rules.",
    output: answers.houseRulesRowSchema,
    refusals: [404],
  }),
  changeHouseRules: door({
    method: "PUT",
    path: "/house-rules/{id}",
    group: "Kit",
    summary: "Change house rules for runs to come.",
    body: namedRulesSchema,
    output: answers.nothingSchema,
    edits: "required",
    refusals: [404, 409, 422],
  }),
  rejudge: door({
    method: "POST",
    path: "/house-rules/{id}/rejudge",
    group: "Kit",
    summary: "What other thresholds would change; done when `apply` is set.",
    body: rejudgeSchema,
    output: answers.rejudgedSchema,
    refusals: [404, 422],
  }),

  ...doorsAbove,
  ...doorsOfTrust,

  events: door({
    method: "GET",
    path: "/events",
    group: "Application",
    summary: "What changes, as server-sent events; after `since`, or after the Last-Event-ID a browser sends.",
    query: z.object({
      since: z
        .string()
        .regex(/^\d{1,18}$/)
        .optional(),
    }),
    output: answers.nothingSchema,
    gives: "events",
  }),
  viewWork: door({
    method: "GET",
    path: "/work",
    group: "Application",
    summary: "What is being done in the background.",
    output: answers.workSchema,
  }),
  viewHealth: door({
    method: "GET",
    path: "/health",
    group: "Application",
    summary:
      "Whether the application and its database answer; which versions and process is told to who may read.",
    who: "anybody",
    output: answers.healthSchema,
  }),
  metrics: door({
    method: "GET",
    path: "/metrics",
    group: "Application",
    summary: "Counts and times of this process in the open text format (OpenMetrics).",
    who: "metrics",
    output: answers.textSchema,
    gives: "plain",
  }),
  openapi: door({
    method: "GET",
    path: "/openapi.json",
    group: "Application",
    summary: "This description.",
    output: answers.nothingSchema,
    gives: "file",
  }),
} as const;

type DoorsByName = typeof doorsByName;
export type DoorName = keyof DoorsByName;

/** Every door, by name. */
export const doors = Object.fromEntries(
  Object.entries(doorsByName).map(([id, own]) => [id, { id, ...own }]),
) as { [Name in DoorName]: DoorsByName[Name] & { id: Name } };
export const doorList = Object.values(doors) as unknown as Door[];

type QueryOf<D> = D extends { query: z.ZodType<infer Q> | null } ? Q : never;
type InputOf<D> = D extends { body: infer S | null } ? (S extends z.ZodType ? z.input<S> : never) : never;
/** What a door takes and gives, by its name. */
export type DoorQuery<Name extends DoorName> = QueryOf<DoorsByName[Name]>;
export type DoorBody<Name extends DoorName> = InputOf<DoorsByName[Name]>;
export type DoorOutput<Name extends DoorName> = DoorsByName[Name] extends { output: z.ZodType<infer O> }
  ? O
  : never;
