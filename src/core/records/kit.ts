import { z, moment } from "@/core/schema";
import { rigSpecSchema, newTitleSchema, newSystemSchema, keptSettingSchema, newEngineSchema } from "@/core/kit";
import { houseRulesSchema } from "@/core/verdict";
import type { PreflightItem } from "@/core/kit";

/** Everything a job is made from. */
export interface KitView {
  rigs: RigRow[];
  systems: SystemRow[];
  titles: TitleRow[];
  builds: BuildRow[];
  houseRules: HouseRulesRow[];
  /** The build that was used last for a system on a rig. */
  lastBuilds: { rigId: string; systemId: string; buildId: string }[];
}

export interface PreflightItemRow extends PreflightItem {
  id: string;
  own: boolean;
}

/** What every thing that can be edited carries: an edit says which version it saw. */
export const versionedSchema = z.object({
  version: z.number(),
});
export type Versioned = z.output<typeof versionedSchema>;

export const rigRowSchema = versionedSchema.extend({
  id: z.uuid(),
  name: z.string(),
  revisionId: z.uuid().describe("The newest revision."),
  revision: z.number(),
  spec: rigSpecSchema,
});
export type RigRow = z.output<typeof rigRowSchema>;

export const buildRowSchema = z.object({
  id: z.uuid(),
  engineId: z.uuid(),
  engine: z.string(),
  version: z.string().describe("The build's own number."),
  branch: z.enum(["stable", "experimental"]),
  systemIds: z.array(z.string()),
});
export type BuildRow = z.output<typeof buildRowSchema>;

export const rigListRowSchema = rigRowSchema.pick({ id: true, name: true, revision: true, spec: true }).extend({
  retired: z.boolean(),
  jobs: z.number(),
});
export type RigListRow = z.output<typeof rigListRowSchema>;

export const titleRowSchema = newTitleSchema
  .pick({ name: true, systemId: true, nativeFps: true, tied: true, region: true, hardness: true })
  .extend({
    id: z.uuid(),
    system: z.string(),
  });
export type TitleRow = z.output<typeof titleRowSchema>;

export const titleListRowSchema = titleRowSchema.extend({
  retired: z.boolean(),
  jobs: z.number(),
});
export type TitleListRow = z.output<typeof titleListRowSchema>;

export const houseRulesRowSchema = versionedSchema.extend({
  id: z.uuid(),
  name: z.string(),
  rules: houseRulesSchema,
  isDefault: z.boolean(),
});
export type HouseRulesRow = z.output<typeof houseRulesRowSchema>;

export const rigDetailSchema = rigRowSchema.extend({
  retired: z.boolean(),
  revisions: z.array(
    z.object({
      number: z.number(),
      note: z.string(),
      createdAt: moment,
      runs: z.number(),
    }),
  ),
});
export type RigDetail = z.output<typeof rigDetailSchema>;

export const systemRowSchema = newSystemSchema.extend(versionedSchema.shape).extend({
  id: z.uuid(),
});
export type SystemRow = z.output<typeof systemRowSchema>;

export const titleDetailSchema = newTitleSchema.extend(versionedSchema.shape).extend({
  id: z.uuid(),
  retired: z.boolean(),
});
export type TitleDetail = z.output<typeof titleDetailSchema>;

export const engineDetailSchema = newEngineSchema.extend({
  ...versionedSchema.shape,
  id: z.uuid(),
  catalogue: z.array(keptSettingSchema),
});
export type EngineDetail = z.output<typeof engineDetailSchema>;

/** What a list is asked for. An unknown `sort` falls back to the name. */
const pageQuerySchema = z.object({
  search: z.string(),
  filter: z.string(),
  sort: z.string(),
  descending: z.boolean(),
  cursor: z.string().describe("As the page before gave it; empty for the first."),
  limit: z.number(),
});
export type PageQuery = z.output<typeof pageQuerySchema>;

const pageShape = {
  total: z.number().int(),
  next: z.string().nullable().describe("Cursor of the next rows; null at the end."),
};
export type Page<Row> = { rows: Row[] } & {
  [Field in keyof typeof pageShape]: z.output<(typeof pageShape)[Field]>;
};

/** A page of a list with the question it answers. @param row the schema of its rows */
export const listViewSchema = <Row extends z.ZodType>(row: Row) =>
  z.object({ rows: z.array(row), ...pageShape, query: pageQuerySchema });
export type ListView<Row> = Page<Row> & { query: PageQuery };
