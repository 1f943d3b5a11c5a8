import { z } from "@/core/schema";
import { coolerSchema, driverSchema, ownSwitches, rigKeys } from "./switchSchema";

const name = z.string().trim().min(1, "Give it a name.").max(80);
const text = z.string().trim().max(400);

export const displaySchema = z.object({
  name,
  connection: z.enum(["built in", "cable"]),
  /** Pixels; null where nobody has said. */
  width: z.number().int().min(16).max(16_384).nullable(),
  height: z.number().int().min(16).max(16_384).nullable(),
  /** Hz, the first one in use. */
  refreshHz: z.array(z.number().min(10).max(1000)).min(1),
  /** Physical diagonal; null where unknown. */
  diagonalInch: z.number().min(0.5).max(200).nullable(),
});
export type Display = z.infer<typeof displaySchema>;

export const powerModeSchema = z.object({
  name,
  /** The mode's budget; null where the maker names none (mains). */
  watts: z.number().min(0.1).max(2000).nullable(),
  use: z.enum(["handheld", "docked", "plugged in", "any"]),
});
export type PowerMode = z.infer<typeof powerModeSchema>;

const softwareSchema = z.object({ version: text, date: z.iso.date().nullable() });

/**
 * One of several ways a device starts, with its own system and driver: two of them side by side, or one on a
 * card.
 */
export const setUpSchema = z.object({ name, system: softwareSchema, driver: softwareSchema });
export type SetUp = z.infer<typeof setUpSchema>;

/**
 * A device as tuned, at one revision: everything that a change of would make runs incomparable. What isn't
 * known yet is null or an empty list: a rig needs a name and the refresh of one display, the rest can come
 * later.
 */
export const rigSpecSchema = z.object({
  kind: z.string().trim().max(80),
  processor: z.object({
    clusters: z.array(
      z.object({
        cores: z.number().int().min(1).max(256),
        baseGhz: z.number().min(0.1).max(10),
        boostGhz: z.number().min(0.1).max(10),
      }),
    ),
  }),
  graphics: z.object({
    units: z.number().int().min(1).max(1000).nullable(),
    clockGhz: z.number().min(0.05).max(10).nullable(),
  }),
  memoryGb: z.number().min(0.25).max(4096).nullable(),
  storage: text,
  system: softwareSchema,
  driver: softwareSchema,
  /** Further set-ups beside the one above; runs say which they were made in. */
  setUps: z.array(setUpSchema).max(12).optional(),
  displays: z.array(displaySchema).min(1, "A rig needs a display."),
  powerModes: z.array(powerModeSchema),
  /** Clock options or governors, by the names the rig gives them. */
  clockOptions: z.array(name),
  cooling: z.object({
    kind: text,
    coolerToHand: z.boolean(),
    /** Coolers and fans that can be used, by their names. */
    coolers: z.array(coolerSchema).max(20).optional(),
  }),
  /** The device's own switches: a driver's panel, turbo, forced filtering, swap, governor, background programs. */
  switches: ownSwitches(rigKeys).optional(),
  /** Drivers that can be installed side by side, beside the one above. */
  drivers: z.array(driverSchema).max(40).optional(),
  batteryWh: z.number().min(0.1).max(10_000).nullable(),
  /** What the maker names as the processor's limit, °C. */
  temperatureLimitC: z.number().min(30).max(120).nullable(),
});
export type RigSpec = z.infer<typeof rigSpecSchema>;

export const newRigSchema = z.object({ name, spec: rigSpecSchema });
export type NewRig = z.infer<typeof newRigSchema>;

/** What a run was made under; stamped on it from the bench strip. */
export const conditionsSchema = z.object({
  powerMode: z.string().max(80).nullable(),
  /** Which of the rig's set-ups; null or absent for its usual one. */
  setUp: z.string().max(80).nullable().optional(),
  clocks: z.string().max(80).nullable(),
  display: z.string().max(80).nullable(),
  /** Null where nobody has said what the rig runs on. */
  pluggedIn: z.boolean().nullable(),
  docked: z.boolean(),
  cooler: z.boolean(),
  roomC: z.number().min(-20).max(60).nullable(),
  capturePath: z.string().trim().max(120),
  /** Where the sound goes: speakers, HDMI, a wireless headset; absent where nobody said. */
  soundPath: z.string().trim().max(120).optional(),
});
export type Conditions = z.infer<typeof conditionsSchema>;
