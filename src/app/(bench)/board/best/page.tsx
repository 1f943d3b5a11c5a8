import { readQuery } from "@/contract";
import { shown } from "@/app/shown";
import { viewBest } from "@/server";
import { BestPage } from "@/views/board";

export default async function Page({ searchParams }: { searchParams: Promise<Record<string, string>> }) {
  const query = await searchParams;
  return shown(
    async () => viewBest(readQuery("viewBest", query)),
    (view) => <BestPage view={view} />,
  );
}
