import { faultKinds, faultSeverities } from "@/core/kit";
import { mostCells, publicationKinds, publicationSchema } from "@/core/publication";
import { pageFontsSchema } from "@/core/publication/shape";
import { boardTitlesSchema, boardViewSchema } from "@/core/records";
import { buildViewSchema, crashRowSchema, logViewSchema } from "@/core/records";
import { otherPublicationSchema, otherViewSchema } from "@/core/records";
import { observationRowSchema } from "@/core/records";
import { wayRowSchema, ways } from "@/core/best";
import { cursorSchema, momentCursorSchema, z } from "@/core/schema";
import { madeSchema, nothingSchema, text } from "./common";
import { askedId, endpoint, fileOutput, usualBounds } from "./endpoint";

/* What stands above one job: the board, what is published, the log of faults. */

const asText = (most: number) => z.string().max(most).catch("");

export const logQuery = z.object({
  search: z.string().trim().max(200).catch(""),
  kind: z.enum(["", ...faultKinds]).catch(""),
  severity: z.enum(["", ...faultSeverities]).catch(""),
  rig: askedId,
  engine: askedId,
  still: z.enum(["", "still", "gone"]).catch("").describe("Seen in the newest run, or not in any since."),
  cursor: momentCursorSchema,
});

export const boardQuery = z.object({
  search: z.string().trim().max(200).catch(""),
  system: askedId,
  hardness: asText(20),
  cursor: cursorSchema,
});

const onRigSchema = z.object({
  systemId: z.uuid(),
  system: z.string(),
  rigId: z.uuid(),
  rig: z.string(),
});
const bestViewSchema = z.object({
  way: z.enum(ways),
  best: z.array(
    onRigSchema.extend({
      rows: z.array(wayRowSchema),
      notRun: z.array(z.string()).describe("What could have been compared there, and wasn't."),
    }),
  ),
  watts: z
    .array(
      onRigSchema.extend({
        name: z.string().describe("Power mode and engine."),
        meanWatts: z.number(),
        titles: z.array(z.object({ title: z.string(), jobId: z.uuid(), runId: z.uuid(), watts: z.number() })),
      }),
    )
    .describe("With what titles are Steady on the least watts."),
});

const choice = z.enum(["yes", "no"]);

export const publicationQuery = z.object({
  of: z.enum(publicationKinds),
  id: askedId.describe("Of the campaign or the device; empty for the board."),
  names: choice.catch("yes").describe("Whether devices are called by their names."),
  notes: choice.catch("yes").describe("Whether notes on faults and workarounds go along."),
});

export const takenPublicationSchema = z.object({
  from: text(120).default("").describe("Who it is from."),
  publication: publicationSchema,
});

export const boardEndpoints = {
  viewBoard: endpoint({
    method: "GET",
    path: "/board",
    group: "Board",
    summary: "Systems by rigs, with the titles at each verdict, and the first page of titles by rigs.",
    query: boardQuery,
    output: boardViewSchema,
  }),
  viewBest: endpoint({
    method: "GET",
    path: "/board/best",
    group: "Board",
    summary:
      "Which engine, driver or power mode is best by system on every rig, and what holds on the least watts.",
    query: z.object({ way: z.enum(ways).catch("engine") }),
    output: bestViewSchema,
  }),
  viewBoardTitles: endpoint({
    method: "GET",
    path: "/board/titles",
    group: "Board",
    summary: "Titles by rigs, a page.",
    query: boardQuery,
    output: boardTitlesSchema,
  }),
  publish: endpoint({
    method: "GET",
    path: "/publications",
    group: "Publications",
    summary:
      "A campaign, a device or the board as what is handed to others: its sentences, what they rest on, tables.",
    query: publicationQuery,
    output: publicationSchema,
    refusals: [404, 422],
  }),
  publicationSchema: endpoint({
    method: "GET",
    path: "/publications/schema",
    group: "Publications",
    summary: "The JSON Schema of a publication.",
    output: fileOutput,
    file: { type: "application/json", holds: nothingSchema },
  }),
  pageFonts: endpoint({
    method: "GET",
    path: "/publications/fonts",
    group: "Publications",
    summary: "The application's fonts in Base64, for a page that brings its own.",
    output: pageFontsSchema,
  }),
  listOthers: endpoint({
    method: "GET",
    path: "/others",
    group: "Publications",
    summary: "Publications of others, as they were brought in.",
    output: z.object({ rows: z.array(otherPublicationSchema) }),
  }),
  takePublication: endpoint({
    method: "POST",
    path: "/others",
    group: "Publications",
    summary: "Bring in what somebody else published: shown beside one's own, never counted with it.",
    body: takenPublicationSchema,
    bounds: { keys: usualBounds.keys, values: 2 * mostCells, texts: 2 * mostCells },
    mostBytes: 8 * 1024 * 1024,
    output: madeSchema,
    creates: true,
    refusals: [422],
  }),
  viewOther: endpoint({
    method: "GET",
    path: "/others/{id}",
    group: "Publications",
    summary: "Somebody's publication: its sentences, what they rest on, and the first 200 rows of each table.",
    output: otherViewSchema,
    refusals: [404],
  }),
  dropPublication: endpoint({
    method: "DELETE",
    path: "/others/{id}",
    group: "Publications",
    summary: "Take away what was brought in.",
    output: nothingSchema,
    refusals: [404],
  }),
  listObservations: endpoint({
    method: "GET",
    path: "/predictions/observations",
    group: "Board",
    summary: "What predictions are made from: rates by title, engine, rig, mode and scale.",
    output: z.object({ rows: z.array(observationRowSchema) }),
  }),
  viewLog: endpoint({
    method: "GET",
    path: "/log",
    group: "Log",
    summary: "Faults and crashes over all jobs, one row for each kind of it, the last seen first.",
    query: logQuery,
    output: logViewSchema,
  }),
  listCrashes: endpoint({
    method: "GET",
    path: "/log/crashes",
    group: "Log",
    summary: "Crashes an hour of every title with a build, with exact intervals (Garwood 1936).",
    query: z.object({ engine: askedId }),
    output: z.object({ rows: z.array(crashRowSchema) }),
  }),
  viewBuild: endpoint({
    method: "GET",
    path: "/builds/{id}",
    group: "Log",
    summary:
      "What a build fixed and broke against the one before it, and which profiles were measured with another.",
    output: buildViewSchema,
    refusals: [404],
  }),
};
