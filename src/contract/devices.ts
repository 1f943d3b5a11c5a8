import { liveDeviceSchema, liveRunSchema } from "@/core/records";
import { moment, z } from "@/core/schema";
import { channelRoles, traceRole } from "@/core/trace";
import { openedSchema, text } from "./common";
import { endpoint } from "./endpoint";
import { appendSchema, finishSchema, importedSchema, mostMarks, mostValues } from "./runs";

/* Devices that measure themselves: paired with a rig, they bring runs of it, and nothing else. */

export const deviceRunSchema = z.object({
  label: text(120).default(""),
  fileName: text(255).nullable().default(null),
  form: z.enum(["frames", "interval"]).describe("What its trace is made of: frame times, or readings."),
  work: z
    .object({ trialId: z.uuid(), arm: z.number().int().min(0).max(23) })
    .nullable()
    .default(null)
    .describe("The run of a trial that this is, as it was taken; null for one of the job in hand."),
  startedMs: z
    .number()
    .int()
    .optional()
    .describe("When it began by the clock here, ms since 1970, UTC; now unless said."),
});

export const piecesQuery = z.object({
  since: z.iso
    .datetime({ precision: 6 })
    .optional()
    .describe("Pieces that came at this moment or later; all otherwise."),
});

/** Pieces in one answer, at most. */
export const mostPieces = 200;

export const devicesEndpoints = {
  beginPairing: endpoint({
    method: "POST",
    path: "/rigs/{id}/pairings",
    group: "Devices",
    summary: "Make a short code that a device is paired with this rig by; it is given back this once.",
    output: z.object({ code: z.string(), endsAt: moment }),
    status: 201,
    refusals: [404],
  }),
  pairDevice: endpoint({
    method: "POST",
    path: "/pairings/claims",
    group: "Devices",
    who: "anybody",
    summary: "Trade a code for a token that is bound to the code's rig; it is given back this once.",
    body: z.object({
      code: text(20).min(1, "Type the code."),
      name: text(60).min(1, "Say what the device is called."),
    }),
    output: z.object({ token: z.string(), rigId: z.uuid(), rig: z.string() }),
    status: 201,
    refusals: [401, 422, 429],
  }),
  viewOwnDevice: endpoint({
    method: "GET",
    path: "/device",
    group: "Devices",
    who: "device",
    summary:
      "What this device's runs are brought to, and the clock here when it asked and when it was answered.",
    output: z.object({
      rig: z.string(),
      job: z.object({ id: z.uuid(), title: z.string(), engine: z.string() }).nullable(),
      receivedMs: z.number().describe("ms since 1970, UTC, when the question was read."),
      answeredMs: z.number().describe("And when it was answered."),
    }),
  }),
  openDeviceRun: endpoint({
    method: "POST",
    path: "/device/runs",
    group: "Devices",
    who: "device",
    summary:
      "Open a run that grows, in the job in hand of this device's rig, with the settings in force there.",
    body: deviceRunSchema,
    output: openedSchema,
    creates: true,
    refusals: [409, 422],
  }),
  appendDeviceRun: endpoint({
    method: "POST",
    path: "/device/runs/{id}/pieces",
    group: "Devices",
    who: "device",
    summary: "Append pieces to an open run of this device's rig; those seen before change nothing.",
    body: z.object({ pieces: z.array(appendSchema).min(1).max(100) }),
    bounds: { keys: 1000, texts: 1000, values: mostValues + 1000 },
    output: z.object({ kept: z.number().int().describe("Pieces that weren't there before.") }),
    status: 201,
    refusals: [404, 409, 422],
  }),
  finishDeviceRun: endpoint({
    method: "POST",
    path: "/device/runs/{id}/finish",
    group: "Devices",
    who: "device",
    summary: "End an open run of this device's rig: measured and judged from what was appended.",
    body: finishSchema,
    bounds: { keys: 3 * mostMarks + 100, values: 5 * mostMarks, texts: 4 * mostMarks + 200 },
    output: importedSchema,
    refusals: [404, 409, 422],
  }),
  viewLive: endpoint({
    method: "GET",
    path: "/live",
    group: "Devices",
    summary: "Runs that grow now, the newest first, and the devices that are paired.",
    output: z.object({ runs: z.array(liveRunSchema), devices: z.array(liveDeviceSchema) }),
  }),
  readPieces: endpoint({
    method: "GET",
    path: "/runs/{id}/pieces",
    group: "Devices",
    summary: "What was appended to a run, in the order it came: what a page that watches it asks for.",
    query: piecesQuery,
    output: z.object({
      open: z.boolean(),
      pieces: z.array(
        z.object({
          role: z.enum([traceRole, ...channelRoles]),
          sequence: z.number().int(),
          values: z.array(z.number()),
        }),
      ),
      until: z.string().nullable().describe("When the last of them came: ask for those since then next."),
      more: z.boolean(),
    }),
    refusals: [404, 422],
  }),
};
