import { z } from "@/core/schema";
import { settingSchema, type Setting } from "./engineSchema";

/** A settings catalogue as a file: what is imported and exported. */
export const catalogueSchema = z
  .object({
    format: z.literal("velvet-lamp-catalogue/1"),
    engine: z.string().max(120),
    settings: z.array(settingSchema).max(500),
  })
  .superRefine(({ settings }, context) => {
    const seen = new Map<string, number>();
    settings.forEach((setting, index) => {
      const at = (field: string) => ["settings", index, field];
      const twin = seen.get(setting.key);
      if (twin !== undefined)
        context.addIssue({
          code: "custom",
          path: at("key"),
          message: `The key ${setting.key} stands at ${twin} already.`,
        });
      seen.set(setting.key, index);
      const refused = valueRefusal(setting, setting.default);
      if (refused) context.addIssue({ code: "custom", path: at("default"), message: refused });
      const fastest = setting.fastest === null ? null : valueRefusal(setting, setting.fastest);
      if (fastest) context.addIssue({ code: "custom", path: at("fastest"), message: fastest });
      if (setting.type === "choice" && setting.choices.length === 0)
        context.addIssue({
          code: "custom",
          path: at("choices"),
          message: "A choice needs something to choose from.",
        });
      if (setting.min !== null && setting.max !== null && setting.min > setting.max)
        context.addIssue({ code: "custom", path: at("min"), message: "The least is above the most." });
    });
    settings.forEach(({ linked }, index) =>
      linked.forEach((key, position) => {
        if (!seen.has(key))
          context.addIssue({
            code: "custom",
            path: ["settings", index, "linked", position],
            message: `There is no setting ${key}.`,
          });
      }),
    );
  });
export type Catalogue = z.infer<typeof catalogueSchema>;

/** The published JSON Schema of a catalogue file (draft 2020-12). */
export const catalogueJsonSchema = () =>
  z.toJSONSchema(catalogueSchema, { target: "draft-2020-12", io: "input" });

/** Why a value can't be a setting's, or null when it can. */
export function valueRefusal(
  setting: Pick<Setting, "type" | "choices" | "min" | "max">,
  value: unknown,
): string | null {
  switch (setting.type) {
    case "switch":
      return typeof value === "boolean" ? null : "A switch is true or false.";
    case "number":
      if (typeof value !== "number") return "This setting takes a number.";
      if (setting.min !== null && value < setting.min) return `At least ${setting.min}.`;
      return setting.max !== null && value > setting.max ? `At most ${setting.max}.` : null;
    case "choice":
      return typeof value === "string" && setting.choices.includes(value)
        ? null
        : `One of: ${setting.choices.join(", ")}.`;
    case "text":
      return typeof value === "string" ? null : "This setting takes text.";
  }
}

/** What is wrong in a file, with the path of what is wrong: settings.3.default. */
export interface CatalogueMistake {
  path: string;
  message: string;
}

export const mostCatalogueBytes = 2 * 1024 * 1024;
const deepest = 8;

function depthOf(value: unknown, limit: number): number {
  if (limit === 0 || typeof value !== "object" || value === null) return 0;
  return 1 + Math.max(0, ...Object.values(value).map((inner) => depthOf(inner, limit - 1)));
}

/** Keys that an object of the file holds twice: JSON would keep the last in silence. */
function twinKeys(text: string): string[] {
  const twins: string[] = [];
  const open: (Set<string> | null)[] = [];
  const token = /"((?:[^"\\]|\\.)*)"(\s*:)?|[{}[\]]/g;
  for (let found = token.exec(text); found; found = token.exec(text)) {
    const mark = found[0];
    if (mark === "{") open.push(new Set());
    else if (mark === "[") open.push(null);
    else if (mark === "}" || mark === "]") open.pop();
    else if (found[2]) {
      const [, key = ""] = found;
      const keys = open[open.length - 1];
      if (keys?.has(key)) twins.push(key);
      keys?.add(key);
    }
  }
  return twins;
}

/**
 * Reads a catalogue file, with the path of every fault.
 *
 * Refused before anything is kept: more than 2 MB, no JSON, nesting deeper than a catalogue has, an object with
 * one key twice.
 */
export function readCatalogue(
  text: string,
): { ok: true; catalogue: Catalogue } | { ok: false; mistakes: CatalogueMistake[] } {
  const refuse = (message: string, path = "") => ({ ok: false as const, mistakes: [{ path, message }] });
  if (text.length > mostCatalogueBytes)
    return refuse(
      `The file is ${(text.length / 1024 / 1024).toFixed(1)} MB; catalogues up to ${mostCatalogueBytes / 1024 / 1024} MB are read.`,
    );
  let parsed: unknown;
  try {
    parsed = JSON.parse(text);
  } catch (error) {
    return refuse(`This is no JSON: ${(error as Error).message}`);
  }
  if (depthOf(parsed, deepest + 1) > deepest)
    return refuse(`The file is nested more than ${deepest} deep; a catalogue isn't.`);
  const [twin] = twinKeys(text);
  if (twin !== undefined) return refuse(`The key “${twin.slice(0, 60)}” stands twice in one object.`);
  const checked = catalogueSchema.safeParse(parsed);
  if (checked.success) return { ok: true, catalogue: checked.data };
  return {
    ok: false,
    mistakes: checked.error.issues
      .slice(0, 200)
      .map(({ path, message }) => ({ path: path.join("."), message })),
  };
}
