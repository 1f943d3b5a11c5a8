import { shown, type WithId } from "@/app/shown";
import { viewSystems, viewTitle } from "@/server";
import { TitleForm } from "@/views/kit";

export default async function Page({ params }: WithId) {
  const { id } = await params;
  return shown(
    () => Promise.all([viewSystems(), viewTitle(id)]),
    ([systems, title]) => <TitleForm systems={systems} title={title} />,
  );
}
