import { shown } from "@/app/shown";
import { viewBench, viewLive } from "@/server";
import { LivePage } from "@/views/watch";

export default async function Page() {
  return shown(
    async () => Promise.all([viewLive(), viewBench()]),
    ([view, { rig }]) => <LivePage view={view} rig={rig} />,
  );
}
