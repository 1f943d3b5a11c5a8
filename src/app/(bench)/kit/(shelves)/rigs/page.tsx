import { shown } from "@/app/door";
import { viewRigs } from "@/server";
import { RigList } from "@/views/kit";

export default async function Page({ searchParams }: { searchParams: Promise<Record<string, string>> }) {
  const query = await searchParams;
  return shown(
    () => viewRigs(query),
    (view) => <RigList {...view} />,
  );
}
