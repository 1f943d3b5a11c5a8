import { settingValueSchema } from "@/core/kit";
import { longList, z } from "@/core/schema";
import type { HeldValues } from "./heldValues";
import { layers } from "./layer";
import type { Origin } from "./shape";

const name = z.string().max(200);

/** Values of a profile that is read from a file, at most. */
export const mostProfileValues = 20_000;

/** A profile as a file: what is set in each layer, by names. */
export const profileFileSchema = z.object({
  format: z.literal("velvet-lamp-profile/1"),
  rig: name,
  engine: name,
  values: longList(
    z.object({
      layer: z.enum(layers),
      system: name.nullable(),
      title: name.nullable(),
      build: name.nullable(),
      key: z.string().min(1).max(120),
      value: settingValueSchema,
      from: z.string().max(400).describe("Where it came from, in words."),
      at: z.string().max(40).describe("When it was set, ISO 8601."),
    }),
    { most: mostProfileValues },
  ),
});
export type ProfileFile = z.infer<typeof profileFileSchema>;

/** The published JSON Schema of a profile file (draft 2020-12). */
export const profileJsonSchema = () =>
  z.toJSONSchema(profileFileSchema, { target: "draft-2020-12", io: "input" });

/** Where a value came from, in words. */
export function originWords(origin: Origin): string {
  switch (origin.kind) {
    case "trial":
      return `trial ${origin.number}`;
    case "run":
      return `as run ${origin.number} was made`;
    case "by hand":
      return "set by hand";
    case "file":
      return `from the file ${origin.name}`;
    case "lifted":
      return `moved up from ${origin.titles.join(", ")}`;
    case "carried":
      return `brought from ${origin.from}; not tested here`;
  }
}

/** A profile as a file. @param names of systems, titles and builds by their ids */
export function profileFile(
  of: { rig: string; engine: string },
  held: HeldValues,
  names: ReadonlyMap<string, string>,
): ProfileFile {
  const named = (id: string | null) => (id === null ? null : (names.get(id) ?? id));
  return {
    format: "velvet-lamp-profile/1",
    ...of,
    values: held.all.flatMap(({ layer, systemId, titleId, buildId, key, value, origin, at }) =>
      value === null
        ? []
        : [
            {
              layer,
              system: named(systemId),
              title: named(titleId),
              build: named(buildId),
              key,
              value,
              from: originWords(origin),
              at: new Date(at).toISOString(),
            },
          ],
    ),
  };
}
