import type { Query } from "@/contract";
import type { ListView, RigListRow, TitleListRow } from "@/core/records";
import { pageOfRigs, pageOfTitles } from "@/data";

/** A page of rigs; anything odd in what is asked falls back, nothing fails. */
export async function viewRigs(query: Query<"listRigs">): Promise<ListView<RigListRow>> {
  return { ...(await pageOfRigs(query)), query };
}

export async function viewTitles(query: Query<"listTitles">): Promise<ListView<TitleListRow>> {
  return { ...(await pageOfTitles(query)), query };
}
