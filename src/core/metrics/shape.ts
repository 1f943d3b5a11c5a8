import { z } from "@/core/schema";
import { intervalSchema } from "@/core/stats/shape";
import { lowMethods } from "./lowMethods";
import { channelRoles } from "@/core/trace";

/** What readings of a counter tell of an average. */
export const lookedSchema = z.object({
  looks: z.number().describe("Readings far enough apart to be told apart."),
  effective: z.number().describe("Looks that count as independent."),
  interval: intervalSchema.describe("95 % interval of the average, fps."),
});
export type Looked = z.output<typeof lookedSchema>;

/** The lows at 1 % and 0.1 %, in fps. */
export const lowPairSchema = z.object({
  one: z.number(),
  tenth: z.number(),
});
export type LowPair = z.output<typeof lowPairSchema>;

export const lowsSchema = z.record(z.enum(lowMethods), lowPairSchema);
export type Lows = z.output<typeof lowsSchema>;

/** Stretches below target: how many, the longest in ms of running time, the lowest window rate in fps. */
export const dipsSchema = z.object({
  count: z.number(),
  longestMs: z.number(),
  deepestFps: z.number().nullable(),
});
export type Dips = z.output<typeof dipsSchema>;

/** Long frames that come back in even steps: something that runs by a clock of its own. */
export const regularSpikesSchema = z.object({
  periodMs: z.number(),
  extraMs: z.number().describe("By how much such a frame is longer than those around it, the median, ms."),
  count: z.number(),
});
export type RegularSpikes = z.output<typeof regularSpikesSchema>;

/** How evenly frames fall on a display's refreshes. */
export const pacingSchema = z.object({
  cadenceShare: z.number().describe("Share of frames that last the commonest whole number of refreshes, 0…1."),
  cadence: z.number().describe("That number of refreshes."),
  cadenceErrorRms: z.number().describe("RMS distance of frames from whole numbers of refreshes, in refreshes."),
  lag1: z
    .number()
    .nullable()
    .describe("Lag-1 autocorrelation of frame times; near −1 when long and short frames take turns."),
});
export type Pacing = z.output<typeof pacingSchema>;

/** A stretch of a run by itself: a marked scene's visit, or an equal part where nothing is marked. */
export const segmentSchema = z.object({
  label: z.string(),
  visit: z.number().describe("Which visit to this scene it is, from 1; 0 for an equal part."),
  startMs: z.number(),
  endMs: z.number(),
  averageFps: z.number(),
  medianFrameTimeMs: z.number().describe("Of at most 20,000 frames, evenly chosen."),
  cadenceShare: z.number().describe("Share of frames on the commonest whole number of refreshes."),
  cadence: z.number(),
  paceSpread: z
    .number()
    .nullable()
    .optional()
    .describe(
      "Spread of the rate over halves of a second, as a share, hitches left out: next to nothing where something sets the pace. Absent from figures of older methods.",
    ),
  hitches: z.number(),
  lostMs: z.number(),
  entryLostMs: z.number().describe("Lost in the first three seconds: what entering costs."),
  means: z.partialRecord(z.enum(channelRoles), z.number()).describe("Mean of every channel over the stretch."),
});
export type Segment = z.output<typeof segmentSchema>;

/** Metrics of a run as a whole. Null where the form of the trace can't say. */
const figuresSchema = z.object({
  version: z.number().describe("Of the method that made it."),
  form: z.enum(["frames", "interval"]),
  frames: z.number().describe("Frames, or readings of a counter."),
  durationMs: z.number(),
  averageFps: z.number(),
  looked: lookedSchema
    .extend({
      whole: z.boolean(),
    })
    .optional()
    .describe("What readings of a counter leave open of the average, and whether they are whole numbers."),
  speedPercent: z
    .number()
    .describe(
      "From the counter: average against native rate; 100 for titles whose speed isn't tied to their rate.",
    ),
  reportedSpeedPercent: z.number().nullable().describe("From the engine itself, where it was logged."),
  counterDisagrees: z.boolean(),
  targetFps: z.number(),
  tied: z.boolean(),
  medianFrameTimeMs: z.number().nullable(),
  p95FrameTimeMs: z.number().nullable(),
  p99FrameTimeMs: z.number().nullable(),
  maxFrameTimeMs: z.number().nullable(),
  lows: lowsSchema.nullable(),
  fullSpeedTimePercent: z.number().nullable(),
  dips: dipsSchema.nullable(),
  hitches: z
    .object({
      count: z.number(),
      perMinute: z.number(),
      lostMsPerMinute: z.number(),
    })
    .nullable(),
  freezes: z.number().nullable(),
  spikes: regularSpikesSchema
    .nullable()
    .optional()
    .describe("Spikes that come back by a clock of their own; null where none do, absent from readings."),
  pacing: pacingSchema.nullable(),
  coldScenes: z
    .object({
      cold: z.number(),
      revisited: z.number(),
    })
    .nullable()
    .describe("Scenes whose first visit was cold, of those visited more than once."),
  held: z.boolean().describe("A cap or the display holds it, so that it says nothing of how runs differ."),
  channels: z
    .partialRecord(
      z.enum(channelRoles),
      z.object({
        mean: z.number(),
        min: z.number(),
        max: z.number(),
        last: z.number(),
        perMinute: z.number().nullable(),
      }),
    )
    .describe(
      "Mean, least, greatest and last of every channel, and its robust slope once the first tenth is past.",
    ),
});

/** A place of a run by itself: every visit to it together. */
export const sceneFiguresSchema = z.object({
  label: z.string(),
  visits: z.number(),
  worstFps: z.number().nullable().describe("Of its least second, or its least reading, fps."),
  figures: figuresSchema,
});
export type SceneFigures = z.output<typeof sceneFiguresSchema>;

/** All metrics of one run, its stretches and its places. */
export const summarySchema = figuresSchema.extend({
  segments: z
    .array(segmentSchema)
    .describe("Scene by scene, or in equal parts; of readings what rates and channels tell."),
  scenes: z
    .array(sceneFiguresSchema)
    .optional()
    .describe("Place by place, where more than one is named; absent otherwise."),
});
export type Summary = z.output<typeof summarySchema>;

/** What a hand tally supports; everything from it is marked "by eye". */
export const tallyFiguresSchema = z.object({
  readings: z.number(),
  mean: z.number(),
  interval: intervalSchema.nullable().describe("95 % interval of the mean; null with one reading."),
  min: z.number(),
  max: z.number(),
  effective: z.number().describe("Readings that count as independent."),
  furtherApart: z
    .number()
    .optional()
    .describe(
      "How many times further apart to read, for readings to count whole; 1 where they do. Absent from older tallies.",
    ),
  atTarget: z
    .object({
      share: z.number(),
    })
    .extend(intervalSchema.shape)
    .describe("Share of readings at or above target, with its Wilson interval."),
});
export type TallyFigures = z.output<typeof tallyFiguresSchema>;

/** What a run is measured against. */
export const yardstickSchema = z.object({
  nativeFps: z.number().describe("The title's own rate, fps."),
  tied: z.boolean().describe("Whether the title's speed is tied to its rate."),
  targetFps: z.number().describe("The rate wanted, fps; the native one unless chosen otherwise."),
  refreshHz: z.number().describe("The display's refresh, Hz."),
  sceneFps: z
    .record(z.string(), z.number())
    .optional()
    .describe("The title's own rate in scenes where it is another, fps, by their names."),
});
export type Yardstick = z.output<typeof yardstickSchema>;
