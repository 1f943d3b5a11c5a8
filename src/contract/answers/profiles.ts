import { z } from "@/core/schema";
import { settingValueSchema, configFileSchema, keptSettingSchema } from "@/core/kit";
import { staleKinds, layers } from "@/core/profile";
import { rigRowSchema, buildRowSchema } from "@/core/records";
import { boardCellSchema } from "@/core/records";
import { profileRowSchema, layerValueSchema, liftableSchema } from "@/core/profile/shape";

/** An id, or nothing where there is none. */
const noneOrId = z.union([z.uuid(), z.literal("")]);

/** What isn't proven for a title as the rig is now. */
export const profileCheckSchema = z.object({
  titleId: z.uuid(),
  title: z.string(),
  settings: z.array(
    z.object({
      key: z.string(),
      label: z.string(),
      value: settingValueSchema,
      default: settingValueSchema,
      stale: z.array(z.enum(staleKinds)),
    }),
  ),
});
export type ProfileCheck = z.output<typeof profileCheckSchema>;

/** A profile in its layers. */
export const profileViewSchema = z.object({
  rig: rigRowSchema.pick({ id: true, name: true, revision: true }),
  rigs: z.array(
    z.object({
      id: z.uuid(),
      name: z.string(),
    }),
  ),
  engine: z.object({
    id: z.uuid(),
    name: z.string(),
    configFiles: z.array(configFileSchema),
  }),
  builds: z.array(buildRowSchema.pick({ id: true, version: true, branch: true })),
  buildId: noneOrId,
  systems: z.array(
    z.object({
      id: z.uuid(),
      name: z.string(),
    }),
  ),
  systemId: noneOrId,
  titles: z
    .array(
      z.object({
        id: z.uuid(),
        name: z.string(),
        systemId: z.uuid(),
        worked: z.boolean(),
      }),
    )
    .describe(
      "Those tuned here, the one asked for, and the first of the others; `moreTitles` are found by typing.",
    ),
  moreTitles: z.number(),
  titleId: z.uuid().nullable(),
  light: boardCellSchema
    .pick({ jobId: true, runId: true, grade: true, between: true, overruled: true })
    .nullable()
    .describe("How the title's telling run here came out; null of a system's profile, or where none was made."),
  rows: z.array(profileRowSchema),
  history: z.array(layerValueSchema).describe("Every value ever set here, the newest first."),
  lifts: z.array(liftableSchema),
  drops: z.record(z.enum(layers), z.array(z.string())),
  checks: z.array(profileCheckSchema),
  catalogue: z.array(keptSettingSchema),
  beside: z
    .array(keptSettingSchema)
    .describe(
      "What the layers hold beside the engine's settings: the rig's power mode, clock option and cooler, the title's rate.",
    ),
  saw: z.number().describe("The newest change that this shows; a change of it says so."),
});
export type ProfileView = z.output<typeof profileViewSchema>;
