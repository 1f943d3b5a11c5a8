import { shown } from "@/app/door";
import { viewLook } from "@/server";
import { LookScreen } from "@/views/look";

export default async function Page({ searchParams }: { searchParams: Promise<{ way?: string }> }) {
  const { way } = await searchParams;
  return shown(viewLook, (view) => <LookScreen view={view} way={way === "tally" ? "tally" : "log"} />);
}
