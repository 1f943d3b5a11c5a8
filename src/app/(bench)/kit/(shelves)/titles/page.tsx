import { readQuery } from "@/contract";
import { shown } from "@/app/shown";
import { viewSystems, viewTitles } from "@/server";
import { TitleList } from "@/views/kit";

export default async function Page({ searchParams }: { searchParams: Promise<Record<string, string>> }) {
  const query = await searchParams;
  return shown(
    async () => Promise.all([viewTitles(readQuery("listTitles", query)), viewSystems()]),
    ([view, systems]) => <TitleList {...view} systems={systems} />,
  );
}
