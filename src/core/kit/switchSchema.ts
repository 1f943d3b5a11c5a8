import { z } from "@/core/schema";
import { reliefs } from "./engineNames";
import { keyMessage, keyOf, keyPattern } from "./keyOf";

const word = z.string().trim().min(1, "Give it a name.").max(80);
const text = z.string().trim().max(400);
/** 0 none … 3 much. */
const cost = z.number().int().min(0).max(3);

/** Where something that was used comes from, and what its file's SHA-256 was: written down, never fetched. */
export const sourceShape = {
  link: z
    .url({ protocol: /^https?$/, error: "A web address, or nothing." })
    .max(400)
    .or(z.literal(""))
    .optional(),
  sha256: z
    .string()
    .trim()
    .toLowerCase()
    .regex(/^[0-9a-f]{64}$/, "64 hexadecimal digits, or nothing.")
    .or(z.literal(""))
    .optional(),
};

/** A switch of a device's own or an option in a title: a setting that stands in no engine's file. */
export const ownSwitchSchema = z
  .object({
    key: z.string().trim().max(80).regex(keyPattern, keyMessage),
    label: word,
    values: z.array(word).min(2, "Give two values at least.").max(40),
    default: word,
    /** The value that asks least of the device; null where only a test tells. */
    fastest: word.nullable(),
    relieves: z.array(z.enum(reliefs)),
    /** It makes the picture better, and the title slower. */
    costsSpeed: z.boolean(),
    picture: cost,
    heat: cost,
    restart: z.boolean(),
    caution: text,
  })
  .refine(({ values }) => new Set(values).size === values.length, {
    path: ["values"],
    message: "A value stands there twice.",
  })
  .refine(({ values, default: own }) => values.includes(own), {
    path: ["default"],
    message: "One of the values.",
  })
  .refine(({ values, fastest }) => fastest === null || values.includes(fastest), {
    path: ["fastest"],
    message: "One of the values, or nothing.",
  });
export type OwnSwitch = z.output<typeof ownSwitchSchema>;

/** A switch with nothing said of it: off or on, off usually, which only a test tells more of. */
export const plainSwitch = (key: string, more: Partial<OwnSwitch> = {}): OwnSwitch => ({
  key,
  label: key,
  values: ["off", "on"],
  default: "off",
  fastest: null,
  relieves: [],
  costsSpeed: false,
  picture: 0,
  heat: 0,
  restart: false,
  caution: "",
  ...more,
});

/** Keys, in lower case, of what a device has fields of its own for; a switch has another. */
export const rigKeys = ["driver", "coolername", "powermode", "clocks", "cooler"];
/** The same for a title. */
export const titleKeys = ["rate"];

/** Every one of them once, whatever the case of its letters. */
export const eachOnce = (keys: readonly string[]) =>
  new Set(keys.map((key) => key.toLowerCase())).size === keys.length;

/**
 * No two of them have the same key.
 * @param reserved keys, in lower case, that the same owner has fields for
 */
export const ownSwitches = (reserved: readonly string[]) =>
  z
    .array(
      ownSwitchSchema.refine(({ key }) => !reserved.includes(key.toLowerCase()), {
        path: ["key"],
        message: "This key has its own field already. Choose another.",
      }),
    )
    .max(60)
    .refine((switches) => eachOnce(switches.map(({ key }) => key)), { message: "A key stands there twice." });

/** A driver that can be installed beside others. */
export const driverSchema = z.object({
  version: word,
  date: z.iso.date().nullable(),
  note: text,
  ...sourceShape,
});
export type Driver = z.output<typeof driverSchema>;

/** A cooler or a fan that can be used, by its name. */
export const coolerSchema = z.object({
  name: word,
  /** dB(A) at arm's length; null where nobody measured it. */
  noiseDb: z.number().min(0).max(120).nullable(),
});
export type Cooler = z.output<typeof coolerSchema>;

/** What an engine runs through: a compatibility layer, a graphics translator, a translated or native processor. */
export const engineLayerSchema = z.object({
  name: word.refine((name) => keyOf(name).toLowerCase() !== "back-end", {
    message: "Back ends have their own field. Choose another name.",
  }),
  /** In the order they came out; "none" where it can run without. */
  versions: z.array(word).min(1, "Give a version at least.").max(40),
});
export type EngineLayer = z.output<typeof engineLayerSchema>;

/** A title's copy as it lies on the device. */
export const copySchema = z.object({
  format: text,
  dump: text,
  update: text,
  addOns: text,
  /** Where it lies: card, drive, network. */
  where: text,
  /** How fast it is read there, MB/s; null where nobody measured it. */
  readMBps: z.number().min(0.1).max(100_000).nullable(),
});
export type TitleCopy = z.output<typeof copySchema>;
