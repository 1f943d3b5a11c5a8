import { readQuery } from "@/contract";
import { shown } from "@/app/shown";
import { viewProfileRecipe } from "@/server";
import { RecipePage } from "@/views/profile";

export default async function Page({ searchParams }: { searchParams: Promise<Record<string, string>> }) {
  const query = await searchParams;
  return shown(
    async () => viewProfileRecipe(readQuery("viewProfileRecipe", query)),
    (recipe) => <RecipePage recipe={recipe} back={`/profiles?${new URLSearchParams(query)}`} />,
  );
}
