import { signedIn } from "@/app/shown";
import { PublishPage } from "@/views/publish";

export default async function Page({ searchParams }: { searchParams: Promise<Record<string, string>> }) {
  await signedIn();
  const { of = "board", id = "", names = "yes", notes = "yes" } = await searchParams;
  return <PublishPage asked={{ of, id, names, notes }} />;
}
