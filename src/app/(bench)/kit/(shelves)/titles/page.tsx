import { shown } from "@/app/door";
import { viewSystems, viewTitles } from "@/server";
import { TitleList } from "@/views/kit";

export default async function Page({ searchParams }: { searchParams: Promise<Record<string, string>> }) {
  const query = await searchParams;
  return shown(
    () => Promise.all([viewTitles(query), viewSystems()]),
    ([view, systems]) => <TitleList {...view} systems={systems} />,
  );
}
