import { shown, type WithId } from "@/app/shown";
import { viewRig } from "@/server";
import { RigForm } from "@/views/kit";

export default async function Page({ params }: WithId) {
  const { id } = await params;
  return shown(
    () => viewRig(id),
    (rig) => <RigForm key={rig.id} rig={rig} />,
  );
}
