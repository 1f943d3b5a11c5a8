import { z } from "zod";
import { settingsSchema } from "./engine";
import { preflightTickSchema } from "./preflight";
import { conditionsSchema } from "./rig";

export const aims = ["speed", "picture", "battery"] as const;

export const newJobSchema = z.object({
  rigId: z.uuid("Choose a rig."),
  titleId: z.uuid("Choose a title."),
  buildId: z.uuid("Choose an engine and build."),
  houseRulesId: z.uuid("Choose house rules."),
  aim: z.enum(aims),
  /** The rate wanted; null for the title's own. */
  targetFps: z.number().min(1).max(1000).nullable(),
});
export type NewJob = z.infer<typeof newJobSchema>;

export const cacheStates = ["warm", "cold", "unknown"] as const;

/** What is said about a run when it is brought in; the trace comes beside it. */
export const newRunSchema = z.object({
  jobId: z.uuid(),
  source: z.enum(["log", "tally", "simulated"]),
  label: z.string().trim().max(120),
  fileName: z.string().max(255).nullable(),
  conditions: conditionsSchema,
  settings: settingsSchema,
  cacheState: z.enum(cacheStates),
  crashed: z.boolean(),
  skippedRows: z.number().int().min(0),
  preflight: z.array(preflightTickSchema).max(200),
  notes: z.string().trim().max(2000),
});
export type NewRun = z.infer<typeof newRunSchema>;

/** What a job screen knows of the conditions that break its rules, in words. */
export function conditionWarnings(
  conditions: Pick<z.infer<typeof conditionsSchema>, "pluggedIn" | "docked" | "cooler">,
  requires: { pluggedIn: boolean | null; docked: boolean | null; cooler: boolean | null },
): string[] {
  const said: Record<keyof typeof requires, [yes: string, no: string]> = {
    pluggedIn: ["plugged in", "on battery"],
    docked: ["docked", "handheld"],
    cooler: ["cooler on", "no cooler"],
  };
  return (Object.keys(said) as (keyof typeof requires)[])
    .filter((key) => requires[key] !== null && requires[key] !== conditions[key])
    .map((key) => `${said[key][conditions[key] ? 0 : 1]}: house rules say ${said[key][requires[key] ? 0 : 1]}`);
}
