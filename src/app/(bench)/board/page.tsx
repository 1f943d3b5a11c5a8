import { shown } from "@/app/door";
import { listOthers, viewBoard } from "@/server";
import { BoardPage } from "@/views/board";

export default async function Page({ searchParams }: { searchParams: Promise<Record<string, string>> }) {
  const query = await searchParams;
  return shown(
    () => Promise.all([viewBoard({ ...query, cursor: "" }), listOthers()]),
    ([view, { rows }]) => <BoardPage key={JSON.stringify(view.query)} view={view} others={rows} />,
  );
}
