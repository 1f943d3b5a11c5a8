import { shown } from "@/app/shown";
import { viewBench, viewKit } from "@/server";
import { NewJobPage } from "@/views/job";

export default function Page() {
  return shown(
    () => Promise.all([viewKit(), viewBench()]),
    ([kit, bench]) => <NewJobPage kit={kit} rigId={bench.rig?.id ?? null} />,
  );
}
