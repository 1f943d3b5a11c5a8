import { z } from "@/core/schema";
import { lowMethods } from "@/core/metrics";

const percent = z.number().min(0).max(200);

/**
 * House rules as data: what is measured how, which light a run earns, what may be changed, under which
 * conditions.
 */
export const houseRulesSchema = z.object({
  measuring: z.object({
    tolerance: z.number().min(0).max(0.2),
    windowMs: z.number().min(200).max(10_000),
    hitchFactor: z.number().min(1.1).max(20),
    hitchExtraMs: z.number().min(0).max(500),
    hitchNeighbours: z.number().int().min(5).max(601),
    freezeMs: z.number().min(50).max(10_000),
  }),
  steady: z.object({
    speedPercent: percent,
    fullSpeedTimePercent: percent,
    hitchesPerMinute: z.number().min(0),
    freezes: z.number().int().min(0),
    lag1: z.number().min(-1).max(0),
  }),
  flickers: z.object({ speedPercent: percent, fullSpeedTimePercent: percent }),
  dims: z.object({ speedPercent: percent }),
  /** Which of the three schools of low is shown first. */
  lowMethod: z.enum(lowMethods),
  /** Smallest difference worth having, in %. */
  marginPercent: z.number().min(0.1).max(50),
  /** Rate wanted of titles whose speed isn't tied to their rate, fps; null for the title's own. */
  freeTargetFps: z.number().min(1).max(1000).nullable(),
  /** What a tuner may touch under these rules. */
  mayChange: z.object({ clocks: z.boolean(), powerMode: z.boolean(), picture: z.boolean() }),
  /** Conditions every compared run has to meet; null where it doesn't matter. */
  requires: z.object({
    pluggedIn: z.boolean().nullable(),
    docked: z.boolean().nullable(),
    cooler: z.boolean().nullable(),
  }),
  /** What an engine must be able to. */
  needs: z.array(z.string().trim().min(1).max(80)).max(20).optional(),
});

export type HouseRules = z.infer<typeof houseRulesSchema>;
