import type { ProfileView } from "@/contract";
import { profileFileSchema, type ProfileFile } from "@/core/profile";
import { besideInRecipe, recipeSchema, type Recipe } from "@/core/recipe";
import { valueWords } from "@/core/words";

/** A file that would change a profile, read whole. */
export type TakenIn =
  { kind: "profile"; name: string; file: ProfileFile } | { kind: "recipe"; name: string; recipe: Recipe };

/** Reads a profile or a recipe. @returns why it is neither, otherwise */
export function readTakenIn(name: string, text: string): TakenIn | { refusal: string; why?: string } {
  let read: unknown;
  try {
    read = JSON.parse(text);
  } catch {
    return { refusal: `${name} is no JSON.`, why: "Nothing was changed." };
  }
  const profile = profileFileSchema.safeParse(read);
  if (profile.success) return { kind: "profile", name, file: profile.data };
  const recipe = recipeSchema.safeParse(read);
  if (recipe.success) return { kind: "recipe", name, recipe: recipe.data };
  return {
    refusal: `${name} is neither a profile nor a recipe of this application.`,
    why: profile.error.issues[0]?.message,
  };
}

/** One value that would be set. */
export interface TakenRow {
  /** Its place among those of the file. */
  at: number;
  where: string;
  label: string;
  key: string;
  /** As it stands here now; null where it isn't shown on this page. */
  now: string | null;
  then: string;
  proof: string;
  purpose: string;
}

const same = (a: string, b: string) => a.trim().toLowerCase() === b.trim().toLowerCase();

/** What of the file is for something else than this page is about: each has to be confirmed. */
export function otherwiseMeant(taken: TakenIn, view: ProfileView): string[] {
  const { rig, engine, titles, titleId, systems } = view;
  const title = titles.find(({ id }) => id === titleId);
  const system = systems.find(({ id }) => id === title?.systemId)?.name;
  if (taken.kind === "profile") {
    const { file } = taken;
    return [
      ...(same(file.engine, engine.name) ? [] : [`engine ${file.engine}, not ${engine.name}`]),
      ...(same(file.rig, rig.name) ? [] : [`rig ${file.rig}, not ${rig.name}`]),
    ];
  }
  const { recipe } = taken;
  return [
    ...(same(recipe.engine.name, engine.name) ? [] : [`engine ${recipe.engine.name}, not ${engine.name}`]),
    ...(title && !same(recipe.title.name, title.name) ? [`title ${recipe.title.name}, not ${title.name}`] : []),
    ...(system && !same(recipe.title.system, system) ? [`system ${recipe.title.system}, not ${system}`] : []),
  ];
}

/** Everything that the file would set, with what is here now and what proves it there; and what isn't known here. */
export function rowsTakenIn(taken: TakenIn, view: ProfileView): { rows: TakenRow[]; unknown: string[] } {
  const settable = [...view.catalogue, ...view.beside];
  const setting = (key: string) => settable.find((each) => each.key === key);
  const nowOf = (key: string) => {
    const row = view.rows.find((each) => each.key === key);
    return row ? valueWords(row.value) : null;
  };
  const title = view.titles.find(({ id }) => id === view.titleId)?.name ?? "";
  const common = (key: string) => ({
    key,
    label: setting(key)?.label ?? key,
    purpose: setting(key)?.purpose ?? "",
  });
  if (taken.kind === "profile") {
    const { values } = taken.file;
    return {
      rows: values.flatMap((value, at) =>
        setting(value.key)
          ? [
              {
                ...common(value.key),
                at,
                where: value.title ?? value.system ?? "the rig",
                now: value.layer === "title" && value.title !== title ? null : nowOf(value.key),
                then: valueWords(value.value),
                proof: value.from,
              },
            ]
          : [],
      ),
      unknown: [...new Set(values.flatMap(({ key }) => (setting(key) ? [] : [key])))],
    };
  }
  const { settings } = taken.recipe;
  const beside = besideInRecipe(taken.recipe, view.beside);
  return {
    rows: [
      ...settings.flatMap(({ key, after, effect, proven }, at) =>
        view.catalogue.some((each) => each.key === key)
          ? [
              {
                ...common(key),
                at,
                where: title,
                now: nowOf(key),
                then: valueWords(after),
                proof: proven ? (effect ?? "proven there") : "untested there",
              },
            ]
          : [],
      ),
      ...beside.map(({ key, value }, at) => ({
        ...common(key),
        at: settings.length + at,
        where: title,
        now: nowOf(key),
        then: valueWords(value),
        proof: "a condition of the recipe",
      })),
    ],
    unknown: settings.flatMap(({ key, label }) =>
      view.catalogue.some((each) => each.key === key) ? [] : [label || key],
    ),
  };
}
