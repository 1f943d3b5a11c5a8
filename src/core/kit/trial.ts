import { z } from "zod";
import { settingsSchema } from "./engine";
import { conditionsSchema } from "./rig";

/** A trial compares arms; a screening trial and the sweeps are trials over a design or an ordered factor. */
export const trialKinds = [
  "compare",
  "screen",
  "resolution",
  "power",
  "heat",
  "clocks",
  "memory",
  "rate",
] as const;
export type TrialKind = (typeof trialKinds)[number];
export const sweepKinds = [
  "resolution",
  "power",
  "heat",
  "clocks",
  "memory",
  "rate",
] as const satisfies readonly TrialKind[];
export type SweepKind = (typeof sweepKinds)[number];
export const isSweep = (kind: TrialKind): kind is SweepKind =>
  (sweepKinds as readonly TrialKind[]).includes(kind);

/** Conditions that an arm sets; the others come from the bench strip. */
export const armConditionsSchema = conditionsSchema
  .pick({ powerMode: true, clocks: true, display: true, pluggedIn: true, docked: true, cooler: true })
  .partial();
export type ArmConditions = z.infer<typeof armConditionsSchema>;

/** One way to run the title: settings whole, what it changes of the conditions, and another build where that is the question. */
export const armSchema = z.object({
  name: z.string().trim().min(1, "Name the arm.").max(120),
  settings: settingsSchema,
  conditions: armConditionsSchema,
  buildId: z.uuid().nullable(),
  /** Place on the ordered factor of a sweep: a scale, watts, a step of a ladder. */
  level: z.number().nullable(),
});
export type Arm = z.infer<typeof armSchema>;

/** What a sweep is planned with beside its levels; null or absent where it doesn't matter. */
export const trialPlanSchema = z.object({
  /** Minutes of one run. */
  minutes: z.number().min(0.1).max(600).nullable(),
  /** Minutes of a soak on a clock ladder. */
  soakMinutes: z.number().min(1).max(240).nullable(),
  /** What logged watts leave out: the screen, the rest of the device. */
  elsewhereWatts: z.number().min(0).max(100).nullable(),
  /** Key of the setting that is swept, or of a screening's factors in their order. */
  keys: z.array(z.string().max(120)).max(23),
});
export type TrialPlan = z.infer<typeof trialPlanSchema>;

/** Arms that one trial holds at most. */
export const mostArms = 24;

export const newTrialSchema = z
  .object({
    jobId: z.uuid(),
    kind: z.enum(trialKinds),
    name: z.string().trim().min(1, "Say what is tried.").max(160),
    arms: z.array(armSchema).min(1).max(mostArms),
    /** Runs of every arm. */
    rounds: z.number().int().min(1).max(40),
    /** Whether first passes over a cleared cache are the question. */
    cold: z.boolean(),
    plan: trialPlanSchema,
  })
  .superRefine(({ kind, arms }, context) => {
    if ((kind === "compare" || kind === "screen") && arms.length < 2)
      context.addIssue({ code: "custom", path: ["arms"], message: "A comparison needs two arms." });
    if (new Set(arms.map(({ name }) => name)).size < arms.length)
      context.addIssue({ code: "custom", path: ["arms"], message: "Two arms have one name." });
  });
export type NewTrial = z.infer<typeof newTrialSchema>;

export const emptyPlan: TrialPlan = { minutes: null, soakMinutes: null, elsewhereWatts: null, keys: [] };

/** Keep an arm, or put back what was in force before. */
export const choiceSchema = z
  .object({
    choice: z.enum(["keep", "put back"]),
    /** The arm kept; null when put back. */
    arm: z.number().int().min(0).max(23).nullable(),
    reason: z.string().trim().max(400),
  })
  .refine(({ choice, arm }) => (choice === "keep") === (arm !== null), {
    path: ["arm"],
    message: "Say which arm is kept.",
  });
export type Choice = z.infer<typeof choiceSchema>;

export const faultKinds = ["picture", "sound", "control", "crash", "freeze", "wrong speed", "missing"] as const;
export const faultSeverities = ["slight", "visible", "severe", "blocking"] as const;

export const newFaultSchema = z.object({
  runId: z.uuid(),
  kind: z.enum(faultKinds),
  severity: z.enum(faultSeverities),
  scene: z.string().trim().max(120),
  /** When in the trace, ms; null when not known. */
  atMs: z.number().min(0).nullable(),
  note: z.string().trim().max(400),
  workaround: z.string().trim().max(400),
});
export type NewFault = z.infer<typeof newFaultSchema>;
