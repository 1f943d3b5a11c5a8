import { moment, z } from "@/core/schema";
import { settingsSchema } from "@/core/kit";

/* Trials that a device runs by itself. */

/** When a trial that runs by itself stops, beside being decided. */
export const unattendedTermsSchema = z.object({
  until: moment.nullable().describe("No run begins after this moment; null for no such moment."),
  mostRounds: z
    .number()
    .int()
    .min(1)
    .max(20)
    .describe("While it is undecided, rounds are added up to so many."),
  mostCrashes: z.number().int().min(1).max(20).describe("So many crashed runs end it."),
  leastBattery: z.number().min(1).max(99).nullable().describe("Charge that no run goes on below, %."),
  limitC: z
    .number()
    .min(30)
    .max(120)
    .nullable()
    .describe("No run goes on above it, °C; never more than the maker's limit of the rig."),
  restMinutes: z.number().min(0).max(120).describe("Rest between runs where the device says no temperature."),
  hangSeconds: z.number().int().min(3).max(300).describe("A run without a frame for so long hangs."),
});
export type UnattendedTerms = z.output<typeof unattendedTermsSchema>;

export const unattendedKinds = [
  "set",
  "taken",
  "waits",
  "began",
  "ended",
  "crashed",
  "hung",
  "round",
  "refused",
  "told",
  "stopped",
] as const;

export const unattendedEventSchema = z.object({
  at: moment,
  what: z.enum(unattendedKinds),
  text: z.string(),
  runNumber: z.number().int().nullable(),
  temperatureC: z.number().nullable(),
});
export type UnattendedEvent = z.output<typeof unattendedEventSchema>;

export const unattendedSchema = z.object({
  terms: unattendedTermsSchema,
  setBy: z.string(),
  setAt: moment,
  endedAt: moment.nullable(),
  endedWhy: z.string(),
  takenBy: z.string().nullable().describe("The device that runs it."),
  events: z.array(unattendedEventSchema),
});
export type Unattended = z.output<typeof unattendedSchema>;

/**
 * What a device is asked to run: names, a place, values of settings and seconds. Never a command, a path or a script:
 * what those mean there is written on the device by whoever owns it.
 */
export const workSchema = z.object({
  trialId: z.uuid(),
  arm: z.number().int(),
  armName: z.string(),
  engine: z.string(),
  build: z.string(),
  title: z.string(),
  scene: z.string(),
  seconds: z.number().int(),
  settings: settingsSchema,
  powerMode: z.string().nullable().describe("The mode that the arm asks for; null where it asks for none."),
  clocks: z.string().nullable(),
  terms: unattendedTermsSchema,
});
export type Work = z.output<typeof workSchema>;
