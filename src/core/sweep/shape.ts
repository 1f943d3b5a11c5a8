import { z } from "@/core/schema";
import { saidSchema } from "@/core/said/shape";
import { intervalSchema } from "@/core/stats/shape";

/** Why a soak stopped the climb. */
export const soakFaultSchema = z.union([
  z.object({
    why: z.literal("crashed"),
  }),
  z.object({
    why: z.literal("artefacts"),
  }),
  z.object({
    why: z.literal("limit"),
    celsius: z.number(),
    limitC: z.number(),
  }),
  z.object({
    why: z.literal("throttled"),
  }),
]);
export type SoakFault = z.output<typeof soakFaultSchema>;

export const ladderNextSchema = z.discriminatedUnion("kind", [
  z.object({
    kind: z.literal("soak"),
    step: z.number(),
    minutes: z.number(),
    sentence: saidSchema,
  }),
  z.object({
    kind: z.literal("confirm"),
    step: z.number(),
    minutes: z.number(),
    sentence: saidSchema,
  }),
  z.object({
    kind: z.literal("done"),
    step: z.number().nullable(),
    sentence: saidSchema,
  }),
]);
export type LadderNext = z.output<typeof ladderNextSchema>;

export const ladderStateSchema = z.object({
  lastClean: z.number().nullable().describe("Highest step whose soaks were all clean; null before the first."),
  failed: z
    .object({
      step: z.number(),
      fault: soakFaultSchema,
    })
    .nullable()
    .describe("Why a step was given up."),
  cleanMinutes: z.number(),
  ruledOutPerHour: z
    .number()
    .nullable()
    .describe("Crashes an hour that the clean minutes at the last clean step rule out, 95 %; null before any."),
  next: ladderNextSchema,
});
export type LadderState = z.output<typeof ladderStateSchema>;

export const schoolChoiceSchema = z.object({
  name: z.string(),
  sentence: saidSchema,
  fpsPerWatt: z.array(z.number().nullable()),
});
export type SchoolChoice = z.output<typeof schoolChoiceSchema>;

/** One part of a warming: a chip warms in a minute, what it sits in in many. */
export const heatPartSchema = z.object({
  riseC: z.number(),
  settleSeconds: z.number(),
});
export type HeatPart = z.output<typeof heatPartSchema>;

/** A first-order warming: T(t) = T∞ − (T∞ − T0)·e^(−t/τ). */
export const heatFitSchema = z.object({
  startC: z.number(),
  settledC: z.number().describe("T∞ with its 95 % interval."),
  settledInterval: intervalSchema,
  settleSeconds: z.number().describe("τ, s."),
  residualC: z.number().describe("RMS of what the curve leaves over, °C."),
  reached: z
    .number()
    .describe("Share of the way to T∞ that the run went; under about two thirds the asymptote is a guess."),
  parts: z
    .tuple([heatPartSchema, heatPartSchema])
    .optional()
    .describe("A fast and a slow part, where one time constant leaves too much over."),
  surelyReached: z
    .number()
    .describe(
      "Share of the way to the highest T∞ that the readings allow: the curve has bent once this is most of it.",
    ),
});
export type HeatFit = z.output<typeof heatFitSchema>;

/**
 * What can be said of a limit: reached after some seconds, never at this load, or not yet, with the minutes to
 * run.
 */
export const limitOutlookSchema = z.union([
  z.object({
    state: z.literal("reached"),
    seconds: z.number(),
  }),
  z.object({
    state: z.literal("never"),
  }),
  z.object({
    state: z.literal("open"),
    runMinutes: z.number(),
  }),
]);
export type LimitOutlook = z.output<typeof limitOutlookSchema>;

/** A stretch in which heat took clocks back. */
export const throttleSchema = z.object({
  half: z.enum(["processor", "graphics"]),
  startMs: z.number(),
  endMs: z.number(),
  deepest: z.number().describe("Least clock in it, as a share of the early one."),
});
export type Throttle = z.output<typeof throttleSchema>;

/** How memory grows, and when it meets the wall. */
export const memoryGrowthSchema = z.object({
  mbPerMinute: z.number(),
  low: z.number(),
  high: z.number(),
  minutesToLimit: z
    .number()
    .nullable()
    .describe("From the start of the run, minutes; null when it doesn't grow beyond doubt."),
  minutesLow: z.number().nullable(),
  minutesHigh: z.number().nullable(),
  startMb: z.number(),
  lastMb: z.number(),
  grows: z.boolean(),
  early: z
    .object({ megabytes: z.number(), minutes: z.number() })
    .optional()
    .describe("It rose by so much in so long, and may level off: too early to tell."),
  levelled: z
    .object({ megabytes: z.number(), minutes: z.number() })
    .optional()
    .describe("It rose by so much in so long along a curve that has levelled off; the slope is what goes on."),
  step: z
    .object({
      megabytes: z.number(),
      minutes: z.number(),
    })
    .nullable()
    .describe("It rose once and stayed: by how much, and when; the slope is that of the part after it."),
});
export type MemoryGrowth = z.output<typeof memoryGrowthSchema>;

/** Crashes per hour with their exact interval. */
export const crashRateSchema = z.object({
  crashes: z.number(),
  hours: z.number(),
  perHour: z.number(),
  low: z.number(),
  high: z.number(),
  ruledOutAbove: z
    .number()
    .describe("Upper one-sided 95 % bound: what the time without (or with so few) crashes rules out."),
});
export type CrashRate = z.output<typeof crashRateSchema>;

export const powerRowSchema = z.object({
  mode: z.string(),
  nominalWatts: z.number().nullable(),
  runs: z.number(),
  fps: z.number(),
  fpsLow: z.number(),
  fpsHigh: z.number(),
  worstTimeLow: z.number().nullable(),
  watts: z.number().nullable().describe("Measured where logged, else nominal, else null."),
  measured: z.boolean(),
  fpsPerWatt: z.number().nullable(),
  holds: z.boolean(),
  flickers: z.boolean().describe("Some run flickered."),
  onFront: z.boolean().describe("No other mode is both faster and thriftier."),
});
export type PowerRow = z.output<typeof powerRowSchema>;

export const powerSweepSchema = z.object({
  rows: z.array(powerRowSchema),
  sweetSpot: z
    .number()
    .nullable()
    .describe("Index into rows: least watts that meet the target, else the fastest; null without rows."),
  reason: saidSchema,
  slowerWithMore: z
    .array(
      z.object({
        mode: z.string(),
        than: z.string(),
        ratio: z.number(),
        low: z.number(),
        high: z.number(),
        sentence: saidSchema,
      }),
    )
    .describe("Pairs where more power made it slower, beyond noise."),
  missing: z.array(saidSchema),
});
export type PowerSweep = z.output<typeof powerSweepSchema>;

export const scalePredictionSchema = z.object({
  scale: z.number(),
  frameTimeMs: z.number(),
  low: z.number().describe("Where the median of a run at this scale should lie, 95 %."),
  high: z.number(),
  holds: z.boolean(),
});
export type ScalePrediction = z.output<typeof scalePredictionSchema>;

/** Frame time against pixels: y(p) = max(c, a + b·p). */
export const scaleLawSchema = z.object({
  floorMs: z
    .number()
    .describe("Frame time that fewer pixels don't go below: c, or the intercept where no flat part was seen."),
  floorSeen: z.boolean(),
  interceptMs: z.number(),
  msPerMegapixel: z.number(),
  msPerMegapixelInterval: z.tuple([z.number(), z.number()]),
  largestScale: z
    .number()
    .nullable()
    .describe(
      "What medians and averages hold and 99th percentiles allow; measured levels decide, the law fills in. Null when none holds the target.",
    ),
  failing: z
    .object({
      scale: z.number(),
      what: z.enum(["median", "average", "99th percentile"]),
      ms: z.number(),
      allowedMs: z.number(),
    })
    .nullable()
    .describe(
      "Why the smallest level measured doesn't hold, where none does: the figure that keeps it from it, ms.",
    ),
  largestSteadyScale: z.number().nullable().describe("From 99th percentiles."),
  largestScaleInterval: z.tuple([z.number(), z.number()]).nullable(),
  limitedByPixels: z.boolean().describe("False: resolution isn't the limit, as far as these levels tell."),
  scatter: z.number().describe("SD of levels about the law, as a share."),
  predicted: z.array(scalePredictionSchema),
  notes: z.array(saidSchema),
});
export type ScaleLaw = z.output<typeof scaleLawSchema>;

/** The level that would settle a resolution sweep, and why. */
export const nextScaleSchema = z.object({
  scale: z.number(),
  sentence: saidSchema,
});
export type NextScale = z.output<typeof nextScaleSchema>;
