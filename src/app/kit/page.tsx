import { shown } from "@/app/door";
import { viewKit } from "@/server";
import { KitScreen } from "@/views/kit";

export default async function Page({ searchParams }: { searchParams: Promise<{ list?: string }> }) {
  const { list } = await searchParams;
  return shown(viewKit, (kit) => <KitScreen kit={kit} list={list ?? null} />);
}
