import { unattendedKinds, unattendedSchema, unattendedTermsSchema, workSchema } from "@/core/records";
import { z } from "@/core/schema";
import { nothingSchema, text } from "./common";
import { endpoint } from "./endpoint";

/* Trials that run by themselves, and the devices that run them. */

/** What a device tells of its own work; the rest is noted here. */
export const toldKinds = [
  "waits",
  "crashed",
  "hung",
  "refused",
  "told",
  "stopped",
] as const satisfies readonly (typeof unattendedKinds)[number][];

export const unattendedEndpoints = {
  viewUnattended: endpoint({
    method: "GET",
    path: "/trials/{id}/unattended",
    group: "Trials",
    summary: "How a trial runs by itself: its terms, what the device did, and which devices its rig has.",
    output: z.object({
      unattended: unattendedSchema.nullable(),
      devices: z.array(z.string()).describe("Devices that are paired with the trial's rig."),
      limitC: z.number().nullable().describe("The maker's temperature limit of the rig."),
    }),
    refusals: [404],
  }),
  setUnattended: endpoint({
    method: "POST",
    path: "/trials/{id}/unattended",
    group: "Trials",
    summary: "Set a trial to run by itself: the agent of its rig takes its runs in the planned order.",
    body: unattendedTermsSchema,
    output: nothingSchema,
    refusals: [404, 409, 422],
  }),
  endUnattended: endpoint({
    method: "POST",
    path: "/trials/{id}/unattended/end",
    group: "Trials",
    summary: "Stop a trial that runs by itself; a run under way ends as cut off.",
    output: nothingSchema,
    refusals: [404, 409],
  }),
  takeWork: endpoint({
    method: "POST",
    path: "/device/work",
    group: "Devices",
    who: "device",
    summary: "Take the next run of the trials that run by themselves on this device's rig.",
    output: z.object({
      work: workSchema.nullable(),
      why: z.string().describe("Why there is none; empty where there is."),
    }),
    refusals: [409],
  }),
  tellWork: endpoint({
    method: "POST",
    path: "/device/work/{id}/notes",
    group: "Devices",
    who: "device",
    summary: "Tell what happens to a trial that this device runs; a refusal or a stop ends it here too.",
    body: z.object({
      what: z.enum(toldKinds),
      text: text(400).default(""),
      temperatureC: z.number().min(-60).max(200).nullable().default(null),
    }),
    output: z.object({ goesOn: z.boolean().describe("False once the trial was stopped or decided.") }),
    refusals: [404, 422],
  }),
};
