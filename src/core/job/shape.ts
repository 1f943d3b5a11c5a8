import { z } from "@/core/schema";
import { sceneLightSchema } from "@/core/verdict/shape";
import { armConditionsSchema } from "@/core/trial";
import { standingSchema } from "@/core/profile/shape";

/** A place of a run, as a table shows it. */
export const placeRowSchema = sceneLightSchema.extend({
  visits: z.number(),
  averageFps: z.number(),
  interval: z
    .object({
      low: z.number(),
      high: z.number(),
    })
    .nullable()
    .describe("95 % interval of the average of readings; null of frames, whose run is one measurement."),
  targetFps: z.number(),
  worstFps: z.number().nullable(),
  readings: z.number().nullable().describe("Of a counter; null where frames were logged."),
  seconds: z.number(),
});
export type PlaceRow = z.output<typeof placeRowSchema>;

/** How many places of a run hold, with the 95 % interval of their share (Wilson 1927). */
export const placesHeldSchema = z.object({
  hold: z.number(),
  of: z.number(),
  low: z.number(),
  high: z.number(),
});
export type PlacesHeld = z.output<typeof placesHeldSchema>;

/** What holds in a job now: whatever a run is made under unless something is tried. */
export const holdingSchema = standingSchema.extend({
  conditions: armConditionsSchema.describe("Every condition that is known, decided or not."),
  decided: armConditionsSchema.describe("Of them, those that a decision or the profile put there."),
  targetFps: z.number().nullable().describe("The rate that runs are judged by, fps; null for the title's own."),
  driver: z.string().describe("The rig's driver in the set-up that holds; empty where it isn't known."),
});
export type Holding = z.output<typeof holdingSchema>;

/**
 * An arm at a place: means over its runs, the lights of the newest. The interval is that over runs (Student's t
 * on logarithms), of one run that of its readings.
 */
export const comparedAtSchema = placeRowSchema
  .pick({ grade: true, interval: true, between: true, averageFps: true, worstFps: true })
  .extend({
    runs: z.number(),
  });
export type ComparedAt = z.output<typeof comparedAtSchema>;

/** A place in every arm of a trial; null where an arm has no run of it. */
export const comparedPlaceSchema = z.object({
  label: z.string(),
  arms: z.array(comparedAtSchema.nullable()),
});
export type ComparedPlace = z.output<typeof comparedPlaceSchema>;
