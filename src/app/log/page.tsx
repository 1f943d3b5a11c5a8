import { shown } from "@/app/door";
import { listCrashes, viewLog } from "@/server";
import { LogScreen } from "@/views/log";

export default async function Page({ searchParams }: { searchParams: Promise<Record<string, string>> }) {
  const query = await searchParams;
  return shown(
    () => Promise.all([viewLog(query), query.view === "crashes" ? listCrashes(query) : null]),
    ([view, crashes]) => (
      <LogScreen key={JSON.stringify(view.query)} view={view} crashes={crashes?.rows ?? null} />
    ),
  );
}
