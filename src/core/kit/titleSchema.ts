import { z } from "@/core/schema";
import { hardnesses } from "./hardness";
import { keyOf } from "./keyOf";
import { copySchema, eachOnce, ownSwitches, sourceShape, titleKeys } from "./switchSchema";

const name = z.string().trim().min(1, "Give it a name.").max(120);
/** What an engine can or can't, in words of the tuner's own: "outside controls", "own drivers". */
export const abilityName = z.string().trim().min(1, "Name the ability.").max(80);

export const screenSchema = z.object({
  width: z.number().int().min(16).max(8192),
  height: z.number().int().min(16).max(8192),
  /** Width of a pixel over its height; 1 for square ones. */
  pixelAspect: z.number().min(0.2).max(5),
});
export type Screen = z.infer<typeof screenSchema>;

export const newSystemSchema = z.object({
  name,
  /** Its picture; none where nobody has said. */
  screens: z.array(screenSchema).max(4),
  /** Field or frame rates, Hz, by region. */
  rates: z.array(z.object({ region: z.string().trim().max(40), hz: z.number().min(1).max(1000) })).min(1),
  note: z.string().trim().max(400),
});
export type NewSystem = z.infer<typeof newSystemSchema>;

export const sceneSchema = z.object({
  /** The title's own rate here, where it is another than elsewhere, fps; null or absent where it is the same. */
  fps: z.number().min(1).max(1000).nullable().optional(),
  name,
  how: z.string().trim().max(400),
  seconds: z.number().min(1).max(36_000).nullable(),
  worst: z.boolean(),
});

/** A patch or a cheat: what it changes, the rate it lifts to where it does, and what it breaks. */
export const patchSchema = z.object({
  name,
  fps: z.number().min(1).max(1000).nullable(),
  sideEffects: z.string().trim().max(400),
  /** The title's version it fits. */
  fitsVersion: z.string().trim().max(60),
  /** What it changes, in words. */
  changes: z.string().trim().max(400).optional(),
  ...sourceShape,
});

export const newTitleSchema = z.object({
  systemId: z.uuid("Choose a system."),
  name,
  /** The rate the title was built for, fps. */
  nativeFps: z.number({ error: "Give the title's own rate in fps." }).min(1).max(1000),
  /** Whether its speed is tied to its rate. */
  tied: z.boolean(),
  region: z.string().trim().max(40),
  hardness: z.enum(hardnesses),
  scenes: z.array(sceneSchema).max(100),
  memoryNeededGb: z.number().min(0.01).max(4096).nullable(),
  patches: z
    .array(patchSchema)
    .max(50)
    .refine((patches) => eachOnce(patches.map(({ name }) => keyOf(name))), {
      message: "Two patches have the same name but for signs and spaces.",
    }),
  /** What can be set in the title itself. */
  options: ownSwitches(titleKeys).optional(),
  copy: copySchema.optional(),
  /** What an engine must be able to for it, as abilities are called. */
  needs: z.array(abilityName).max(20).optional(),
  notes: z.string().trim().max(2000),
});
export type NewTitle = z.infer<typeof newTitleSchema>;
