import { shown, type WithId } from "@/app/shown";
import { viewSystem } from "@/server";
import { SystemForm } from "@/views/kit";

export default async function Page({ params }: WithId) {
  const { id } = await params;
  return shown(
    () => viewSystem(id),
    (system) => <SystemForm system={system} />,
  );
}
