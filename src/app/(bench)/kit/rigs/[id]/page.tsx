import { shown, type WithId } from "@/app/shown";
import { viewLive, viewRig } from "@/server";
import { RigForm } from "@/views/kit";
import { RigDevices } from "@/views/watch";

export default async function Page({ params }: WithId) {
  const { id } = await params;
  return shown(
    () => Promise.all([viewRig(id), viewLive()]),
    ([rig, live]) => (
      <>
        <RigForm key={rig.id} rig={rig} />
        <RigDevices rig={rig} live={live} />
      </>
    ),
  );
}
