import { z } from "@/core/schema";
import { settingValueSchema, settingsSchema, conditionsSchema, purposes, strategies } from "@/core/kit";
import { saidSchema } from "@/core/said/shape";

/**
 * What a factor does: its + over its −, as a log ratio, with an interval that holds for all factors at once.
 */
export const mainEffectSchema = z.object({
  factor: z.number(),
  logGain: z.number(),
  low: z.number(),
  high: z.number(),
  matters: z.boolean(),
});
export type MainEffect = z.output<typeof mainEffectSchema>;

/** One change that could be made now. */
export const leverSchema = z.object({
  key: z.string(),
  label: z.string(),
  kind: z.union([z.literal("setting"), z.enum(["clocks", "cooler", "power mode", "mains", "dock", "set-up"])]),
  from: settingValueSchema.nullable(),
  to: settingValueSchema,
  relieves: z.array(z.enum(["processor", "graphics", "memory", "shaders", "sync", "sound"])),
  costs: z.object({
    picture: z.number(),
    feel: z.number(),
    heat: z.number(),
    risk: z.number(),
  }),
  restart: z.boolean(),
  towards: z.enum(["speed", "picture", "battery"]).describe("Towards speed, or towards picture."),
  settings: settingsSchema.describe("Settings as they would be; linked ones move along."),
  conditions: conditionsSchema.partial(),
  heats: z.boolean().describe("Raises clocks, watts or heat: cautions go beside it."),
  pixelRatio: z.number().nullable().describe("For a scale: pixels then over pixels now."),
  purpose: z.enum(purposes).nullable().describe("What the setting is for."),
  lifts: z.boolean().optional().describe("Lifts a limit or a hold on the rate."),
  steps: z.number().optional().describe("Steps left in this direction, this one included."),
  end: settingValueSchema.optional().describe("Its fastest value; absent where nobody knows it."),
  doubted: z.boolean().optional().describe("The catalogue says that this way is slower: only a trial tells."),
  parts: z
    .array(z.object({ key: z.string(), label: z.string(), to: settingValueSchema }))
    .optional()
    .describe("The changes that are made at once."),
});
export type Lever = z.output<typeof leverSchema>;

/** What is believed of a lever. */
export const beliefSchema = z.object({
  chance: z.number().describe("Chance that it helps, with its 90 % interval."),
  chanceLow: z.number(),
  chanceHigh: z.number(),
  logGain: z.number().describe("Expected log gain when it helps."),
  tried: z.number().describe("Trials of this very lever on the rig, and how many helped."),
  helped: z.number(),
});
export type Belief = z.output<typeof beliefSchema>;

export const suggestionSchema = z.object({
  lever: leverSchema,
  belief: beliefSchema,
  expected: z
    .number()
    .describe("Expected gain times its chance, as a log ratio of rates; below 0 where something is given up."),
  minutes: z.number(),
  score: z.number(),
  sentence: saidSchema.describe("Why, with figures."),
  cautions: z.array(saidSchema),
});
export type Suggestion = z.output<typeof suggestionSchema>;

export const openingSchema = z.object({
  strategy: z.enum(strategies),
  sentence: saidSchema,
});
export type Opening = z.output<typeof openingSchema>;

export const nextStepSchema = z.object({
  action: z.enum(["baseline", "rerun", "trial", "decide", "change", "confirm", "close", "closed"]),
  sentence: saidSchema.describe("What to do, with the reason."),
});
export type NextStep = z.output<typeof nextStepSchema>;

export const rateCandidateSchema = z.object({
  capFps: z.number().nullable().describe("fps; null runs free."),
  why: z.enum(["native", "divisor of the native rate", "divisor of the refresh", "patch", "free"]),
  held: z
    .number()
    .describe(
      "Share of one-second windows that would hold it behind the cap, 0…1, without rare hitches, by the way the engine works, a frame ahead where that isn't known; for free, that hold the target.",
    ),
  heldStrict: z.number().describe("The same for an engine that waits for the display after every frame."),
  heldWithHitches: z
    .number()
    .optional()
    .describe("Share of windows with its rare hitches in them; absent where it has none."),
  heldLow: z.number().describe("Where the share of a fresh run should lie, 90 %."),
  heldHigh: z.number(),
  chance: z.number().describe("Chance that a fresh run holds it in 99 % of windows."),
  refreshes: z.number().nullable().describe("Refreshes a frame lasts; whole numbers look even."),
  even: z.boolean(),
  slowMotion: z.boolean().describe("Below the rate that a tied title's speed hangs on."),
  patch: z
    .object({
      name: z.string(),
      sideEffects: z.string(),
    })
    .nullable(),
  limiterValue: z
    .number()
    .nullable()
    .describe("What to write for a limiter: twice the rate where it counts double."),
});
export type RateCandidate = z.output<typeof rateCandidateSchema>;

export const rateDecisionSchema = z.object({
  candidates: z.array(rateCandidateSchema),
  recommended: z.number().describe("Index into candidates."),
  averageFps: z.number(),
  sentence: saidSchema,
});
export type RateDecision = z.output<typeof rateDecisionSchema>;

/** What overdriving the emulated clock did, scene by scene. */
export const overdrivenSchema = z.object({
  label: z.string(),
  before: z.number(),
  after: z.number(),
  effect: z
    .enum(["lifted", "sped up", "no change", "slower"])
    .describe(
      "`lifted` was slow and gained; `sped up` was fine and now runs too fast; `no change` within 2 %.",
    ),
});
export type Overdriven = z.output<typeof overdrivenSchema>;
