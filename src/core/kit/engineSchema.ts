import { z } from "@/core/schema";
import { guessPurpose, purposes } from "./purpose";
import { reliefs, configFormats } from "./engineNames";
import { keyMessage, keyOf, keyPattern } from "./keyOf";
import { eachOnce, engineLayerSchema, sourceShape } from "./switchSchema";

const name = z.string().trim().min(1, "Give it a name.").max(120);

export const settingValueSchema = z.union([z.string().max(200), z.number(), z.boolean()]);
export type SettingValue = z.infer<typeof settingValueSchema>;

/** Settings in force at once, at most; a catalogue holds 500. */
const mostSettings = 2000;
/** Settings in force: setting key → value, whole. */
export const settingsSchema = z
  .record(z.string().min(1).max(120), settingValueSchema)
  .refine((settings) => Object.keys(settings).length <= mostSettings, `At most ${mostSettings} settings.`);
export type Settings = z.infer<typeof settingsSchema>;
/** 0 none … 3 much. */
const cost = z.number().int().min(0).max(3);

/** One setting of an engine's catalogue. */
const settingShape = z.object({
  key: z.string().trim().max(120).regex(keyPattern, keyMessage),
  label: name,
  type: z.enum(["switch", "choice", "number", "text"]),
  choices: z.array(z.string().max(120)).max(200),
  min: z.number().nullable(),
  max: z.number().nullable(),
  step: z.number().positive().nullable(),
  default: settingValueSchema,
  /** The value that asks least of the device; null where a test has to tell. */
  fastest: settingValueSchema.nullable(),
  relieves: z.array(z.enum(reliefs)),
  costs: z.object({ picture: cost, feel: cost, heat: cost, risk: cost }),
  restart: z.boolean(),
  /** Keys of settings that must hold the same value. */
  linked: z.array(z.string().max(120)),
  /** A limiter whose value is twice the rate it gives. */
  countsDouble: z.boolean(),
  /** The engine's config file that it stands in; the only one where none is named. */
  file: z.string().max(200).optional(),
  section: z.string().max(120),
  configKey: z.string().max(120),
  /**
   * What it is for, where the application has to know; guessed from its shape where a catalogue doesn't say.
   */
  purpose: z.enum(purposes).nullable().optional(),
  /** What has to be minded where it is changed. */
  caution: z.string().trim().max(400).optional(),
});
export const settingSchema = settingShape.transform((setting) => ({
  ...setting,
  purpose: setting.purpose === undefined ? guessPurpose(setting) : setting.purpose,
}));

/** A setting as it is kept; of those beside an engine's the key says whose it is. */
export const keptSettingSchema = settingShape.extend({ key: z.string(), purpose: z.enum(purposes).nullable() });
export type Setting = z.output<typeof keptSettingSchema>;

/** A way an engine draws, and the drivers that can be used with it. */
export const backEndSchema = z.object({ name, drivers: z.array(z.string().trim().min(1).max(80)).max(50) });

/** A file that an engine keeps settings in. */
export const configFileSchema = z.object({
  name: z.string().trim().min(1, "Give the file's name.").max(200),
  format: z.enum(configFormats),
  /** Where it lies, in words. */
  folder: z.string().trim().max(300),
});
export type ConfigFile = z.infer<typeof configFileSchema>;

export const newEngineSchema = z.object({
  name,
  systemIds: z.array(z.uuid()).min(1, "Choose the systems it runs."),
  notes: z.string().trim().max(2000),
  builds: z
    .array(
      z.object({
        version: z.string().trim().min(1).max(60),
        branch: z.enum(["stable", "experimental"]),
        date: z.iso.date().nullable(),
        notes: z.string().trim().max(400),
        ...sourceShape,
      }),
    )
    .min(1),
  /** What it runs through on the device, each in versions that can be chosen. */
  layers: z
    .array(engineLayerSchema)
    .max(12)
    .refine((layers) => eachOnce(layers.map(({ name }) => keyOf(name))), {
      message: "Two of them have the same name but for signs and spaces.",
    })
    .optional(),
  backEnds: z.array(backEndSchema).max(20),
  configFiles: z.array(configFileSchema).max(20).default([]),
  catalogue: z.array(settingSchema).max(500),
});
export type NewEngine = z.infer<typeof newEngineSchema>;
