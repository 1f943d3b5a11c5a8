import { longList, z } from "@/core/schema";

const text = (most: number) => z.string().max(most);
const cell = z.union([text(2000), z.number(), z.null()]);

export const publicationFormat = "velvet-lamp/publication/1";
export const publicationKinds = ["campaign", "board", "device"] as const;

/** Cells of all tables together, at most. */
export const mostCells = 100_000;

/** What is handed to others: sentences, the conditions they rest on, and tables of text and figures. */
export const publicationSchema = z.object({
  format: z.literal(publicationFormat),
  kind: z.enum(publicationKinds),
  name: text(200).min(1),
  madeAt: z.iso.datetime(),
  /** What it comes to. */
  said: z.array(text(2000)).max(100),
  /** What it rests on: house rules, devices, builds, how it was measured. */
  conditions: z.array(z.object({ name: text(200), value: text(2000) })).max(500),
  tables: z
    .array(
      z
        .object({
          name: text(200),
          columns: z.array(text(200)).min(1).max(60),
          rows: longList(z.array(cell).max(60), { most: 20_000 }),
        })
        .refine(
          ({ columns, rows }) => rows.every((row) => row.length === columns.length),
          "A row has a cell a column.",
        ),
    )
    .max(20)
    .refine(
      (tables) => tables.reduce((sum, { rows, columns }) => sum + rows.length * columns.length, 0) <= mostCells,
      "At most 100,000 cells in all tables.",
    ),
  /** What was left out before it was handed on. */
  leftOut: z.array(text(200)).max(20),
});
export type Publication = z.infer<typeof publicationSchema>;

export const publicationJsonSchema = () => ({
  $id: publicationFormat,
  title: "A publication of results",
  ...z.toJSONSchema(publicationSchema, { io: "output", unrepresentable: "any" }),
});
