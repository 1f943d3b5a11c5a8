import type { Query } from "@/contract";
import type { BoardTitles, BoardView } from "@/core/records";
import { boardFrame, boardShares, boardTitles } from "@/data";

/** How titles fare over rigs: systems by share of each verdict, and titles, the first page. */
export async function viewBoard(query: Query<"viewBoard">): Promise<BoardView> {
  const [titles, frame, shares] = await Promise.all([boardTitles(query), boardFrame(), boardShares()]);
  return { ...titles, ...frame, shares, query };
}

/** A further page of its titles. */
export const viewBoardTitles = async (query: Query<"viewBoardTitles">): Promise<BoardTitles> =>
  boardTitles(query);
