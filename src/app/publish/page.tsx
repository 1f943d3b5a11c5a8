import { shown } from "@/app/door";
import { pageFonts, publish } from "@/server";
import { PublishScreen } from "@/views/publish";

export default async function Page({ searchParams }: { searchParams: Promise<Record<string, string>> }) {
  const { of = "board", id = "", names = "yes", notes = "yes" } = await searchParams;
  const asked = { of, id, names, notes };
  return shown(
    () => Promise.all([publish(asked), pageFonts()]),
    ([publication, fonts]) => <PublishScreen publication={publication} fonts={fonts} asked={asked} />,
  );
}
