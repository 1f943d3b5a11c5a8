import { readQuery } from "@/contract";
import { shown } from "@/app/shown";
import { listCrashes, viewLog } from "@/server";
import { LogPage } from "@/views/log";

export default async function Page({ searchParams }: { searchParams: Promise<Record<string, string>> }) {
  const query = await searchParams;
  return shown(
    async () =>
      Promise.all([
        viewLog(readQuery("viewLog", query)),
        query.view === "crashes" ? listCrashes(readQuery("listCrashes", query)) : null,
      ]),
    ([view, crashes]) => (
      <LogPage key={JSON.stringify(view.query)} view={view} crashes={crashes?.rows ?? null} />
    ),
  );
}
