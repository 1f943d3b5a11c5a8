import { deedRowSchema, foundRowSchema } from "@/core/records";
import { workshopViewSchema } from "@/core/records";
import { z } from "@/core/schema";
import { nothingSchema } from "./common";
import { endpoint, fileOutput } from "./endpoint";

/* The application itself: how it fares, what changes, what is found in it. */

const healthSchema = z.object({
  application: z.literal("velvet-lamp"),
  version: z.string(),
  live: z.literal(true).describe("This process answers."),
  ready: z.boolean().describe("The database answers, and is of this version."),
  database: z.boolean(),
  migrations: z.object({ done: z.number().int(), known: z.number().int() }),
  process: z.number().int(),
});

/** Where files may be brought into. */
export const incomingPlacesSchema = z.object({
  rigs: z.array(z.object({ id: z.uuid(), name: z.string() })),
  engines: z.array(
    z.object({
      id: z.uuid(),
      name: z.string(),
      files: z.array(z.string()).describe("Names of its config files."),
      keys: z.array(z.string()).describe("Its settings' keys as they stand in those files."),
    }),
  ),
  titles: z
    .array(z.object({ id: z.uuid(), name: z.string(), system: z.string() }))
    .describe("Titles by the name that was asked for."),
  bench: z.object({
    rigId: z.uuid().nullable(),
    job: z
      .object({ id: z.uuid(), title: z.string(), titleId: z.uuid(), engineId: z.uuid() })
      .nullable()
      .describe("The open job in hand."),
  }),
});

export const systemEndpoints = {
  listDeeds: endpoint({
    method: "GET",
    path: "/deeds",
    group: "Store",
    summary:
      "The last hundred things that were done: to a job, the kit, a campaign, a profile, or to anything.",
    query: z.object({
      kind: z.enum(["", "job", "kit", "campaign", "profile", "bench", "trial"]).catch(""),
      id: z.string().max(60).catch(""),
      own: z
        .enum(["", "yes"])
        .catch("")
        .transform((own) => own === "yes")
        .describe("Only what the caller did."),
    }),
    output: z.object({ rows: z.array(deedRowSchema) }),
  }),
  undoDeed: endpoint({
    method: "POST",
    path: "/deeds/{id}/undo",
    group: "Store",
    summary: "Undo one thing that was done, all of it or nothing; what rests on it is judged anew.",
    output: nothingSchema,
    refusals: [404, 409],
  }),
  viewIncoming: endpoint({
    method: "GET",
    path: "/incoming",
    group: "Store",
    summary: "Where a file may be brought into: rigs, engines with their keys, titles of a name.",
    query: z.object({ title: z.string().trim().max(200).catch("") }),
    output: incomingPlacesSchema,
  }),
  find: endpoint({
    method: "GET",
    path: "/find",
    group: "Store",
    summary: "Jobs, trials, titles, rigs and settings by name, a few of each.",
    query: z.object({ search: z.string().trim().max(200).catch("") }),
    output: z.object({ rows: z.array(foundRowSchema) }),
  }),
  viewDemo: endpoint({
    method: "GET",
    path: "/demo",
    group: "Store",
    summary: "How much of the demo data is there.",
    output: z.object({
      jobs: z.number().int().describe("Its jobs that are there."),
      own: z.number().int().describe("Of them those that somebody brought runs of their own into."),
    }),
  }),
  bringDemo: endpoint({
    method: "PUT",
    path: "/demo",
    group: "Store",
    summary: "Bring the demo data back.",
    output: nothingSchema,
    refusals: [409],
  }),
  removeDemo: endpoint({
    method: "DELETE",
    path: "/demo",
    group: "Store",
    summary: "Take the demo data away; jobs with runs of somebody's own stay.",
    output: nothingSchema,
  }),
  events: endpoint({
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
    output: nothingSchema,
    streams: true,
  }),
  viewWork: endpoint({
    method: "GET",
    path: "/work",
    group: "Application",
    summary: "What is being done in the background.",
    output: z.object({ outdatedRuns: z.number().int().describe("Runs whose figures are being made anew.") }),
  }),
  viewHealth: endpoint({
    method: "GET",
    path: "/health",
    group: "Application",
    summary:
      "Whether the application and its database answer; which versions and process is told to who may read.",
    who: "anybody",
    output: healthSchema,
  }),
  metrics: endpoint({
    method: "GET",
    path: "/metrics",
    group: "Application",
    summary: "Counts and times of this process in the open text format (OpenMetrics).",
    who: "metrics",
    output: fileOutput,
    file: { type: "text/plain; charset=utf-8" },
  }),
  openapi: endpoint({
    method: "GET",
    path: "/openapi.json",
    group: "Application",
    summary: "This description.",
    output: fileOutput,
    file: { type: "application/json", holds: nothingSchema },
  }),
  viewWorkshop: endpoint({
    method: "GET",
    path: "/workshop",
    group: "Application",
    summary:
      "How the application itself fares: sizes, slow endpoints and statements, work that waits, the last backup.",
    who: "metrics",
    output: workshopViewSchema,
  }),
};
