import { diagnosisSchema } from "@/core/diagnose/shape";
import { aims, conditionsSchema, newJobSchema, ownSwitchSchema, settingsSchema, strategies } from "@/core/kit";
import { jobChoicesSchema, jobClosingSchema } from "@/core/records";
import { z } from "@/core/schema";
import { benchViewSchema, jobViewSchema, jobsViewSchema } from "./answers/jobs";
import { changedSchema, madeSchema, nothingSchema, pageQuery, text } from "./common";
import { askedId, endpoint, fileOutput } from "./endpoint";
import { jobBeginnings, jobOrders, jobStates } from "./lists";

/* Jobs, and the bench that the next run is made on. */

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
  tied: z.boolean().default(true).describe("Whether its speed is tied to its rate, where it is made here."),
  refreshHz: z.number().min(10).max(1000).describe("Refresh of the rig's screen, where it is made here."),
  targetFps: z.number().min(1).max(1000).nullable().default(null),
  houseRulesId: z.uuid().nullable().default(null),
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

export const benchChangeSchema = z.object({
  rigId: z.uuid().optional(),
  jobId: z.uuid().nullable().optional(),
  houseRulesId: z.uuid().optional(),
  conditions: conditionsSchema.optional(),
});

/** Which jobs a list shows, and in which order. */
export const jobsQuery = pageQuery.extend({
  filter: z.enum(["", ...jobStates]).catch(""),
  sort: z.enum(jobOrders).catch("worked"),
});

export const jobsEndpoints = {
  viewBench: endpoint({
    method: "GET",
    path: "/bench",
    group: "Bench",
    summary: "What lies on the bench.",
    output: benchViewSchema,
  }),
  changeBench: endpoint({
    method: "PUT",
    path: "/bench",
    group: "Bench",
    summary: "Put a rig, a job, house rules or conditions on the bench.",
    body: benchChangeSchema,
    output: benchViewSchema,
    edits: "required",
    refusals: [404, 409, 422],
  }),
  listJobs: endpoint({
    method: "GET",
    path: "/jobs",
    group: "Jobs",
    summary: "Jobs: the last worked on first unless sorted otherwise; those left out on demand.",
    query: jobsQuery,
    output: jobsViewSchema,
  }),
  addJob: endpoint({
    method: "POST",
    path: "/jobs",
    group: "Jobs",
    summary: "Open a job and put it on the bench.",
    body: addedJobSchema,
    output: madeSchema,
    creates: true,
    refusals: [409, 422],
  }),
  beginTitle: endpoint({
    method: "POST",
    path: "/jobs/begun",
    group: "Jobs",
    summary:
      "A title's job with everything chosen as it was last, on the bench's rig; the open one where there is one.",
    body: z.object({
      titleId: z.uuid(),
      rigId: z.uuid().optional().describe("The bench's rig where none is named."),
    }),
    output: madeSchema,
    creates: true,
    refusals: [404, 409, 422],
  }),
  nameJob: endpoint({
    method: "POST",
    path: "/jobs/named",
    group: "Jobs",
    summary: "Open a job by the names of rig, title, system and engine; what isn't on the shelf is made.",
    body: namedJobSchema,
    output: z.object({ id: z.uuid(), conditions: conditionsSchema, settings: settingsSchema }),
    creates: true,
    refusals: [409, 422],
  }),
  nameSwitch: endpoint({
    method: "POST",
    path: "/jobs/{id}/switches",
    group: "Jobs",
    summary:
      "List something that can be set in a job and stands in no catalogue yet: with its engine, its device or its title.",
    body: z.object({
      owner: z.enum(["engine", "rig", "title"]),
      label: ownSwitchSchema.shape.label,
      values: ownSwitchSchema.shape.values.describe("The one in force first."),
    }),
    output: z.object({ key: z.string().describe("As it stands in settings.") }),
    refusals: [404, 409, 422],
  }),
  viewJob: endpoint({
    method: "GET",
    path: "/jobs/{id}",
    group: "Jobs",
    summary: "A job as it happened: runs, trials, faults, what holds, what to do next.",
    output: jobViewSchema,
    refusals: [404],
  }),
  changeJob: endpoint({
    method: "PATCH",
    path: "/jobs/{id}",
    group: "Jobs",
    summary: "Change a job, leave it out, or take it back. What its first run fixed can't be changed after it.",
    body: jobChangeSchema,
    output: nothingSchema,
    edits: "required",
    refusals: [404, 409, 422],
  }),
  viewJobChoices: endpoint({
    method: "GET",
    path: "/jobs/{id}/choices",
    group: "Jobs",
    summary: "What a job that hasn't begun may still be changed to, its title aside.",
    output: jobChoicesSchema,
    refusals: [404],
  }),
  saveJob: endpoint({
    method: "GET",
    path: "/jobs/{id}/file",
    group: "Jobs",
    summary: "A job as a file: its story, what each trial came to, and each run's frames.",
    output: fileOutput,
    file: { type: "application/json", holds: nothingSchema },
    refusals: [404],
  }),
  copyJob: endpoint({
    method: "POST",
    path: "/jobs/{id}/copy",
    group: "Jobs",
    summary: "Open a job like another, beginning with what holds there.",
    output: madeSchema,
    creates: true,
    refusals: [404],
  }),
  mendJob: endpoint({
    method: "POST",
    path: "/jobs/{id}/mending",
    group: "Jobs",
    summary: "Say that a job, with all its runs, is of another title, rig or build; judged anew by it.",
    body: z
      .object({ titleId: z.uuid(), rigId: z.uuid(), buildId: z.uuid() })
      .partial()
      .refine((to) => Object.values(to).some((each) => each !== undefined), "Say what it is of."),
    output: nothingSchema,
    refusals: [404, 409, 422],
  }),
  closeJob: endpoint({
    method: "POST",
    path: "/jobs/{id}/closing",
    group: "Jobs",
    summary: "Close a job with its profile.",
    body: closeSchema,
    output: jobClosingSchema,
    status: 201,
    edits: "optional",
    refusals: [404, 409, 422],
  }),
  reopenJob: endpoint({
    method: "DELETE",
    path: "/jobs/{id}/closing",
    group: "Jobs",
    summary: "Open a closed job again.",
    output: nothingSchema,
    edits: "optional",
    refusals: [404, 409],
  }),
  judgeAnew: endpoint({
    method: "POST",
    path: "/jobs/{id}/judging",
    group: "Jobs",
    summary: "Judge runs by what their title says now, where that was corrected after they were made.",
    output: changedSchema,
    refusals: [404, 409],
  }),
  viewDiagnosis: endpoint({
    method: "GET",
    path: "/jobs/{id}/diagnosis",
    group: "Jobs",
    summary: "What holds one run back.",
    query: z.object({ run: askedId }),
    output: diagnosisSchema,
    refusals: [404],
  }),
};
