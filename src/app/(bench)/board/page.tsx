import { readQuery } from "@/contract";
import { shown } from "@/app/shown";
import { listOthers, viewBoard } from "@/server";
import { BoardPage } from "@/views/board";

export default async function Page({ searchParams }: { searchParams: Promise<Record<string, string>> }) {
  const query = await searchParams;
  return shown(
    async () => Promise.all([viewBoard(readQuery("viewBoard", { ...query, cursor: "" })), listOthers()]),
    ([view, { rows }]) => <BoardPage key={JSON.stringify(view.query)} view={view} others={rows} />,
  );
}
