import { shown } from "@/app/door";
import { viewBench, viewKit } from "@/server";
import { PlannerScreen } from "@/views/kit";

export default function Page() {
  return shown(
    () => Promise.all([viewKit(), viewBench()]),
    ([{ rigs, systems }, { rig }]) => <PlannerScreen kit={{ rigs, systems }} rigId={rig?.id ?? null} />,
  );
}
