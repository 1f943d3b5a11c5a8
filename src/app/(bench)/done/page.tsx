import { readQuery } from "@/contract";
import { shown } from "@/app/shown";
import { viewDone } from "@/server";
import { DonePage } from "@/views/done";

export default async function Page({ searchParams }: { searchParams: Promise<Record<string, string>> }) {
  const query = readQuery("listDeeds", await searchParams);
  return shown(
    () => viewDone(query),
    (view) => <DonePage {...view} about={{ kind: query.kind, id: query.id }} />,
  );
}
