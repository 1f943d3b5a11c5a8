import { boardQuery } from "@/contract";
import type { BoardTitles, BoardView } from "@/core/records";
import { boardFrame, boardShares, boardTitles } from "@/data";

/** How titles fare over rigs: systems by share of each verdict, and titles, the first page. */
export async function viewBoard(asked: unknown): Promise<BoardView> {
  const query = boardQuery.parse(asked);
  const [titles, frame, shares] = await Promise.all([boardTitles(query), boardFrame(), boardShares()]);
  return { ...titles, ...frame, shares, query };
}

/** A further page of its titles. */
export const viewBoardTitles = async (asked: unknown): Promise<BoardTitles> =>
  boardTitles(boardQuery.parse(asked));
