import { shown } from "@/app/door";
import { viewBench, viewKit } from "@/server";
import { NewJobScreen } from "@/views/job";

export default function Page() {
  return shown(
    () => Promise.all([viewKit(), viewBench()]),
    ([kit, bench]) => <NewJobScreen kit={kit} rigId={bench.rig?.id ?? null} />,
  );
}
