import { shown, type WithId } from "@/app/shown";
import { viewRecipe } from "@/server";
import { RecipePage } from "@/views/profile";

export default async function Page({ params }: WithId) {
  const { id } = await params;
  return shown(
    () => viewRecipe(id),
    (recipe) => <RecipePage recipe={recipe} back={`/jobs/${id}`} jobId={id} />,
  );
}
