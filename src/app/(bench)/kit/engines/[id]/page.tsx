import { shown, type WithId } from "@/app/shown";
import { viewEngine, viewSystems } from "@/server";
import { EngineForm } from "@/views/kit";

export default async function Page({ params }: WithId) {
  const { id } = await params;
  return shown(
    () => Promise.all([viewSystems(), viewEngine(id)]),
    ([systems, engine]) => <EngineForm systems={systems} engine={engine} />,
  );
}
