import { PublishScreen } from "@/views/publish";

export default async function Page({ searchParams }: { searchParams: Promise<Record<string, string>> }) {
  const { of = "board", id = "", names = "yes", notes = "yes" } = await searchParams;
  return <PublishScreen asked={{ of, id, names, notes }} />;
}
