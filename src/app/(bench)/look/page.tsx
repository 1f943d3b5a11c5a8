import { shown } from "@/app/shown";
import { viewLook } from "@/server";
import { LookPage } from "@/views/look";

export default async function Page({ searchParams }: { searchParams: Promise<{ way?: string }> }) {
  const { way } = await searchParams;
  return shown(viewLook, (view) => <LookPage view={view} way={way === "tally" ? "tally" : "log"} />);
}
