import { shown } from "@/app/shown";
import { viewBench, viewKit } from "@/server";
import { PlannerPage } from "@/views/kit";

export default function Page() {
  return shown(
    () => Promise.all([viewKit(), viewBench()]),
    ([{ rigs, systems }, { rig }]) => <PlannerPage kit={{ rigs, systems }} rigId={rig?.id ?? null} />,
  );
}
