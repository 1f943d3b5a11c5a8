import { readQuery } from "@/contract";
import { shown } from "@/app/shown";
import { viewRigs } from "@/server";
import { RigList } from "@/views/kit";

export default async function Page({ searchParams }: { searchParams: Promise<Record<string, string>> }) {
  const query = await searchParams;
  return shown(
    async () => viewRigs(readQuery("listRigs", query)),
    (view) => <RigList {...view} />,
  );
}
