import { z } from "zod";
import type { ListView, PageQuery, RigListRow, TitleListRow } from "@/core/records";
import { pageOfRigs, pageOfTitles } from "@/data";

/** A list's question as an address says it; anything odd falls back, nothing fails. */
const querySchema = z.object({
  search: z.string().max(200).catch(""),
  filter: z.string().max(60).catch(""),
  sort: z.string().max(30).catch("name"),
  descending: z
    .enum(["true", "false"])
    .catch("false")
    .transform((text) => text === "true"),
  page: z.coerce.number().int().min(1).max(100_000).catch(1),
});

const pageSize = 50;
const queryOf = (asked: Record<string, unknown>): PageQuery => ({ ...querySchema.parse(asked), pageSize });

export async function viewRigs(asked: Record<string, unknown>): Promise<ListView<RigListRow>> {
  const query = queryOf(asked);
  return { ...(await pageOfRigs(query)), query };
}

export async function viewTitles(asked: Record<string, unknown>): Promise<ListView<TitleListRow>> {
  const query = queryOf(asked);
  return { ...(await pageOfTitles(query)), query };
}
