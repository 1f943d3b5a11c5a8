import { mostStills, stillPixels } from "@/core/capture";
import { placeRowSchema } from "@/core/job/shape";
import { cacheStates, conditionsSchema, newFaultSchema, newRunSchema } from "@/core/kit";
import { stillRowSchema } from "@/core/records";
import { runEditsViewSchema } from "@/core/records";
import { longList, z } from "@/core/schema";
import { channelRoles, mostRunMs, traceRole } from "@/core/trace";
import { grades } from "@/core/verdict";
import { madeSchema, nothingSchema, openedSchema, text } from "./common";
import { bytesBody, endpoint, fileOutput } from "./endpoint";

/* Runs, their faults and their stills. */

const megabyte = 1024 * 1024;

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

export const openRunSchema = z.object({ run: newRunSchema, form: z.enum(["frames", "interval"]) });

/** Values in one piece, at most; larger ones are cut by whoever sends them. */
export const mostValues = 150_000;

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

export const markRunSchema = z.object({
  label: text(120).min(1).nullable().describe("What begins here; null only ends what was marked before."),
  atMs: z.number().min(0).max(86_400_000).describe("ms from the run's start."),
});

export const mostMarks = 10_000;

export const finishSchema = z.object({
  state: z.enum(["whole", "cut off", "crashed"]),
  marks: longList(
    z
      .object({ label: text(120), startMs: z.number().min(0), endMs: z.number() })
      .refine(({ startMs, endMs }) => endMs >= startMs, "A mark ends before it begins."),
    { most: mostMarks },
  ).default([]),
});

export const importedSchema = z.object({
  id: z.uuid(),
  number: z.number().int(),
  grade: z.enum(grades).nullable(),
});

export const runsEndpoints = {
  importRun: endpoint({
    method: "POST",
    who: "runs",
    path: "/runs",
    group: "Runs",
    summary: "Keep a whole run sent as a packed trace.",
    body: bytesBody,
    mostBytes: 64 * megabyte,
    bounds: null,
    output: importedSchema,
    creates: true,
    refusals: [404, 409, 422],
  }),
  tallyRun: endpoint({
    method: "POST",
    who: "runs",
    path: "/tallies",
    group: "Runs",
    summary: "Keep a hand tally as a run.",
    body: tallySchema,
    output: importedSchema,
    creates: true,
    refusals: [404, 409, 422],
  }),
  openRun: endpoint({
    method: "POST",
    who: "runs",
    path: "/runs/open",
    group: "Runs",
    summary: "Open a run that grows.",
    body: openRunSchema,
    output: openedSchema,
    creates: true,
    refusals: [404, 409, 422],
  }),
  appendRun: endpoint({
    method: "POST",
    who: "runs",
    path: "/runs/{id}/pieces",
    group: "Runs",
    summary: "Append a piece to an open run; one seen before changes nothing.",
    body: appendSchema,
    bounds: { keys: 100, texts: 100, values: mostValues + 100 },
    output: z.object({ kept: z.boolean().describe("False where the piece was there already.") }),
    status: 201,
    refusals: [404, 409, 422],
  }),
  markRun: endpoint({
    method: "POST",
    who: "runs",
    path: "/runs/{id}/marks",
    group: "Runs",
    summary:
      "Mark a run that grows from a moment on: a scene, a loading, a visit; the mark before it ends there.",
    body: markRunSchema,
    output: nothingSchema,
    refusals: [404, 409, 422],
  }),
  finishRun: endpoint({
    method: "POST",
    who: "runs",
    path: "/runs/{id}/finish",
    group: "Runs",
    summary: "End an open run: measured and judged from what was appended.",
    body: finishSchema,
    bounds: { keys: 3 * mostMarks + 100, values: 5 * mostMarks, texts: 4 * mostMarks + 200 },
    output: importedSchema,
    refusals: [404, 409, 422],
  }),
  changeRun: endpoint({
    method: "PATCH",
    path: "/runs/{id}",
    group: "Runs",
    summary: "Change what is said about a run, move it to another arm or job, leave it out, or take it back.",
    body: runChangeSchema,
    output: nothingSchema,
    edits: "required",
    refusals: [404, 409, 422],
  }),
  moveRuns: endpoint({
    method: "POST",
    path: "/runs/moves",
    group: "Runs",
    summary:
      "Say of one or more runs that they are of another job, title, rig, build or scene; judged anew by it.",
    body: z
      .object({
        ids: z.array(z.uuid()).min(1).max(200),
        jobId: z.uuid().optional().describe("Into this job."),
        titleId: z.uuid().optional(),
        rigId: z.uuid().optional(),
        buildId: z.uuid().optional(),
        scene: text(120).optional(),
      })
      .refine(
        ({ ids: _ids, ...to }) => Object.values(to).some((each) => each !== undefined),
        "Say what they are of.",
      ),
    output: z.object({ jobId: z.uuid().describe("The job that they are in now.") }),
    refusals: [404, 409, 422],
  }),
  rereadRun: endpoint({
    method: "POST",
    path: "/runs/{id}/reading",
    group: "Runs",
    summary: "Read a run anew from its log, sent as a packed trace; what was said about it stays.",
    body: bytesBody,
    mostBytes: 64 * megabyte,
    bounds: null,
    output: importedSchema,
    creates: true,
    refusals: [404, 409, 422],
  }),
  keepRunFile: endpoint({
    method: "PUT",
    who: "runs",
    path: "/runs/{id}/file",
    group: "Runs",
    summary: "Keep the log that a run was read from, packed (gzip); once.",
    query: z.object({ name: z.string().max(255).catch("") }),
    body: bytesBody,
    mostBytes: 32 * megabyte,
    bounds: null,
    output: nothingSchema,
    refusals: [404, 422],
  }),
  readRunFile: endpoint({
    method: "GET",
    path: "/runs/{id}/file",
    group: "Runs",
    summary: "The log that a run was read from, packed (gzip).",
    output: fileOutput,
    file: { type: "application/gzip" },
    refusals: [404],
  }),
  readRunCsv: endpoint({
    method: "GET",
    path: "/runs/{id}/csv",
    group: "Runs",
    summary: "A run as CSV, with its marks: a log that can be read again.",
    output: fileOutput,
    file: { type: "text/csv; charset=utf-8" },
    refusals: [404],
  }),
  viewRunEdits: endpoint({
    method: "GET",
    path: "/runs/{id}/edits",
    group: "Runs",
    summary: "What was changed about a run since it was made, the newest first.",
    output: runEditsViewSchema,
    refusals: [404],
  }),
  viewPlaces: endpoint({
    method: "GET",
    path: "/runs/{id}/places",
    group: "Runs",
    summary: "A run place by place, where it names more than one.",
    output: z.object({ rows: z.array(placeRowSchema) }),
    refusals: [404],
  }),
  readTrace: endpoint({
    method: "GET",
    path: "/runs/{id}/trace",
    group: "Runs",
    summary: "A run's trace, packed.",
    output: fileOutput,
    file: { type: "application/octet-stream", keptSeconds: 3600 },
    refusals: [404],
  }),
  addStills: endpoint({
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
  listStills: endpoint({
    method: "GET",
    path: "/runs/{id}/stills",
    group: "Runs",
    summary: "A run's stills: which moments they are of.",
    output: z.object({ rows: z.array(stillRowSchema) }),
    refusals: [404],
  }),
  readStill: endpoint({
    method: "GET",
    path: "/stills/{id}",
    group: "Runs",
    summary: "A still as a PNG picture.",
    output: fileOutput,
    file: { type: "image/png", keptSeconds: 3600 },
    refusals: [404],
  }),
  addFault: endpoint({
    method: "POST",
    path: "/faults",
    group: "Faults",
    summary: "Note a fault of a run; its verdict follows.",
    body: newFaultSchema,
    output: madeSchema,
    creates: true,
    refusals: [404, 409, 422],
  }),
  removeFault: endpoint({
    method: "DELETE",
    path: "/faults/{id}",
    group: "Faults",
    summary: "Take a fault back.",
    output: nothingSchema,
    refusals: [404, 409],
  }),
  restoreFault: endpoint({
    method: "PUT",
    path: "/faults/{id}",
    group: "Faults",
    summary: "Bring a fault back.",
    output: nothingSchema,
    refusals: [404, 409],
  }),
};
