import { listQuery } from "@/contract";
import type { ListView, RigListRow, TitleListRow } from "@/core/records";
import { pageOfRigs, pageOfTitles } from "@/data";

/** A page of rigs; anything odd in what is asked falls back, nothing fails. */
export async function viewRigs(asked: unknown): Promise<ListView<RigListRow>> {
  const query = listQuery.parse(asked);
  return { ...(await pageOfRigs(query)), query };
}

export async function viewTitles(asked: unknown): Promise<ListView<TitleListRow>> {
  const query = listQuery.parse(asked);
  return { ...(await pageOfTitles(query)), query };
}
