import { z } from "@/core/schema";
import {
  coolerKey,
  driverKey,
  isOwn,
  settingValueSchema,
  type ConfigFile,
  type RigSpec,
  type Setting,
  type SettingValue,
  type TitleCopy,
} from "@/core/kit";
import { besideKeys, besideValues, type Override } from "@/core/profile";
import {
  cautionWords,
  comesToWords,
  overruledWords,
  crashWords,
  driverWords,
  sideEffectWords,
  valueWords,
  words,
} from "@/core/words";
import { limiterRate } from "@/core/advise";
import { crashRate } from "@/core/sweep";
import type { Grade } from "@/core/verdict";

const text = z.string().max(2000);
const fact = z.object({ name: text, value: text });

/** What somebody else needs to set a title up the same way. Names of rigs, notes and people stay out. */
export const recipeSchema = z.object({
  format: z.literal("velvet-lamp-recipe/1"),
  title: z.object({ name: text, system: text, region: text, nativeFps: z.number().nullable() }),
  device: z.array(fact).max(40),
  engine: z.object({ name: text, build: text, branch: text }),
  /** What is done before the first start. */
  before: z.array(text).max(100),
  patches: z.array(text).max(100),
  /** Where the build, the driver and the patches that were used came from, and their files' SHA-256. */
  sources: z.array(fact).max(60).default([]),
  settings: z
    .array(
      z.object({
        key: z.string().min(1).max(120),
        label: text,
        file: text,
        section: text,
        configKey: text,
        /** Where the key stands in the tuner's own file, from 1; null where no such file was read. */
        line: z.number().int().min(1).nullable().default(null),
        before: settingValueSchema,
        after: settingValueSchema,
        /** The rate that a limiter which counts double gives: half of its value. Null for everything else. */
        holdsFps: z.number().nullable(),
        effect: text.nullable(),
        proven: z.boolean(),
      }),
    )
    .max(500),
  conditions: z.array(fact).max(40),
  targetFps: z.number().nullable(),
  expect: z
    .array(z.object({ scene: text, averageFps: z.number(), lostMs: z.number(), visit: z.number().int() }))
    .max(400),
  verdict: text,
  crashes: text,
  faults: z.array(z.object({ what: text, where: text, workaround: text })).max(400),
  sideEffects: z.array(text).max(200),
  marks: z.array(z.object({ label: text, startMs: z.number().min(0) })).max(400),
  cautions: z.array(text).max(40),
});
export type Recipe = z.infer<typeof recipeSchema>;

/** The published JSON Schema of a recipe (draft 2020-12). */
export const recipeJsonSchema = () => z.toJSONSchema(recipeSchema, { target: "draft-2020-12", io: "input" });

/** What a recipe is made from. */
export interface RecipeFacts {
  title: { name: string; system: string; region: string; nativeFps: number | null };
  spec: RigSpec;
  revision: number;
  engine: { name: string; build: string; branch: string; configFiles: ConfigFile[] };
  catalogue: Setting[];
  overrides: Override[];
  conditions: Record<string, string | boolean | number | null | undefined>;
  /** What runs came to under each driver, where it is known. */
  drivers?: { driver: string; runs: number; averageFps: number }[];
  targetFps: number | null;
  preflight: string[];
  patches: string[];
  /** The title's copy as it lies on the device. */
  copy?: TitleCopy;
  /** What was used, with where it came from. */
  used?: { name: string; link?: string; sha256?: string }[];
  run: {
    grade: Grade | null;
    /** What somebody says of its light. */
    overruled?: { grade: Grade; reason: string; by: string } | null;
    averageFps: number;
    segments: { label: string; visit: number; averageFps: number; entryLostMs: number }[];
    marks: { label: string; startMs: number }[];
  } | null;
  crashes: number;
  hours: number;
  faults: { kind: string; severity: string; scene: string; note: string; workaround: string }[];
}

const conditionNames: Record<string, string> = {
  powerMode: "Power mode",
  clocks: "Clocks",
  display: "Display",
  pluggedIn: "Plugged in",
  docked: "Docked",
  cooler: "Cooler",
};

/** A title's copy in one line. @example "packed, own disc, update 1.2, on the card (80 MB/s)" */
function copyText({ format, dump, update, addOns, where, readMBps }: TitleCopy): string {
  const speed = readMBps === null ? "" : ` (${readMBps} MB/s)`;
  return [
    format,
    dump,
    update && `update ${update}`,
    addOns && `add-ons: ${addOns}`,
    where ? `on ${where}${speed}` : speed.trim(),
  ]
    .filter(Boolean)
    .join(", ");
}

/** The driver and the cooler that were chosen of several, with what is known of them. */
function usedOnRig({ drivers = [], cooling }: RigSpec, overrides: Override[]): [name: string, value: string][] {
  const chosen = (key: string) => overrides.find((each) => each.key === key)?.to;
  const driver = drivers.find(({ version }) => version === chosen(driverKey));
  const cooler = cooling.coolers?.find(({ name }) => name === chosen(coolerKey));
  return [
    ["Driver chosen", driver ? [driver.version, driver.date, driver.note].filter(Boolean).join(", ") : ""],
    ["Cooler", cooler ? `${cooler.name}${cooler.noiseDb === null ? "" : `, ${cooler.noiseDb} dB(A)`}` : ""],
  ];
}

/** A recipe of what holds for a title. */
export function makeRecipe(facts: RecipeFacts): Recipe {
  const { title, spec, revision, engine, catalogue, overrides, run } = facts;
  const named = (key: string) => catalogue.find((setting) => setting.key === key);
  const { driver, system, cooling, memoryGb, powerModes } = spec;
  const device = [
    ["Device", spec.kind],
    ["Revision as tuned", String(revision)],
    ["Memory", memoryGb === null ? "" : `${memoryGb} GB`],
    ["Graphics driver", [driver.version, driver.date].filter(Boolean).join(", ")],
    ["Why this driver", driverWords(driver.version, facts.drivers ?? []) ?? ""],
    ["System", [system.version, system.date].filter(Boolean).join(", ")],
    ["Cooling", cooling.kind],
    ...usedOnRig(spec, overrides),
    ["The copy", facts.copy ? copyText(facts.copy) : ""],
  ].flatMap(([name = "", value = ""]) => (value === "" ? [] : [{ name, value }]));
  const conditions = Object.entries(facts.conditions).flatMap(([key, value]) => {
    const name = conditionNames[key];
    if (!name || value === null || value === undefined || value === false || value === "") return [];
    const watts = key === "powerMode" ? powerModes.find((mode) => mode.name === value)?.watts : null;
    return [{ name, value: `${valueWords(value)}${watts ? ` (${watts} W)` : ""}` }];
  });
  const onlyFile = engine.configFiles.length === 1 ? (engine.configFiles[0]?.name ?? "") : "";
  return {
    format: "velvet-lamp-recipe/1",
    title,
    device,
    engine: { name: engine.name, build: engine.build, branch: engine.branch },
    before: facts.preflight,
    patches: facts.patches,
    sources: (facts.used ?? []).flatMap(({ name, link = "", sha256 = "" }) => {
      const value = [link, sha256 && `SHA-256 ${sha256}`].filter(Boolean).join(", ");
      return value === "" ? [] : [{ name, value }];
    }),
    settings: overrides.flatMap(({ key, from, to, proof }) => {
      const setting = named(key);
      if (!setting || to === null) return [];
      return [
        {
          key,
          label: setting.label,
          file: isOwn(key) ? "" : (setting.file ?? onlyFile),
          section: setting.section,
          configKey: isOwn(key) ? "" : setting.configKey || key,
          line: null,
          before: from ?? setting.default,
          after: to,
          holdsFps: setting.countsDouble && typeof to === "number" && to > 0 ? limiterRate(to, true) : null,
          effect: proof ? words(proof) : null,
          proven: proof !== null,
        },
      ];
    }),
    conditions,
    targetFps: facts.targetFps,
    expect: (run?.segments ?? [])
      .filter(({ label }) => label !== "")
      .map(({ label, visit, averageFps, entryLostMs }) => ({
        scene: label,
        visit,
        averageFps,
        lostMs: entryLostMs,
      })),
    verdict: `${comesToWords(run)}${run?.overruled ? ` ${overruledWords(run.overruled)}.` : ""}`,
    crashes: facts.run ? crashWords(facts.hours > 0 ? crashRate(facts.crashes, facts.hours) : null) : "",
    faults: facts.faults.map(({ kind, severity, scene, note, workaround }) => ({
      what: `${kind}, ${severity}${note ? `: ${note}` : ""}`,
      where: scene,
      workaround,
    })),
    sideEffects: overrides.flatMap(({ key }) => {
      const setting = named(key);
      if (!setting) return [];
      return [
        sideEffectWords(setting) ?? [],
        setting.caution ? `${setting.label}. ${setting.caution}` : [],
      ].flat();
    }),
    marks: (run?.marks ?? []).map(({ label, startMs }) => ({ label, startMs })),
    cautions: cautionWords(Boolean(facts.conditions.clocks)),
  };
}

/**
 * What a recipe says beside the settings, as values of a profile on another rig: what that rig has by the same
 * name, and the rate where it isn't the title's own.
 * @param beside what that rig's profile can hold beside an engine's settings
 */
export function besideInRecipe(
  { conditions, targetFps, title }: Pick<Recipe, "conditions" | "targetFps" | "title">,
  beside: Setting[],
): { key: string; value: SettingValue }[] {
  const said = (name: string | undefined) => conditions.find((fact) => fact.name === name)?.value;
  return beside.flatMap(({ key, type, choices }): { key: string; value: SettingValue }[] => {
    if (key === besideKeys.rate)
      return targetFps !== null && targetFps !== title.nativeFps ? [{ key, value: targetFps }] : [];
    const name = Object.keys(conditionNames).find((each) => besideValues({ conditions: { [each]: "x" } })[key]);
    const value = said(name === undefined ? undefined : conditionNames[name]);
    if (value === undefined) return [];
    if (type === "switch") return [{ key, value: true }];
    // A power mode is written with its watts behind it.
    const choice = choices.find((each) => value === each || value.startsWith(`${each} (`));
    return choice === undefined ? [] : [{ key, value: choice }];
  });
}

/** What of a recipe's settings stands where in a file that was read. */
export interface FoundLines {
  recipe: Recipe;
  /** Settings found, and settings that this file should hold. */
  found: number;
  of: number;
}

/**
 * A recipe with the line of each key beside its setting, by the engine's own file. Keys that stand twice have
 * no one line.
 * @param file name of the file: settings of another file keep what they have
 */
export function withLines(
  recipe: Recipe,
  file: string,
  entries: { section: string; key: string; line: number }[],
): FoundLines {
  const lines = new Map<string, number | null>();
  for (const { section, key, line } of entries) {
    const path = [section, key].filter((part) => part !== "").join("/");
    lines.set(path, lines.has(path) ? null : line);
  }
  let [found, of] = [0, 0];
  const settings = recipe.settings.map((setting) => {
    if (setting.file !== "" && setting.file !== file) return setting;
    of++;
    const path = [setting.section, setting.configKey].filter((part) => part !== "").join("/");
    const line = lines.get(path) ?? null;
    if (line !== null) found++;
    return { ...setting, line };
  });
  return { recipe: { ...recipe, settings }, found, of };
}
