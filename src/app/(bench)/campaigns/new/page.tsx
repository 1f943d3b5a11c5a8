import { shown } from "@/app/shown";
import { viewBench, viewCampaignKit } from "@/server";
import { PlanCampaignPage } from "@/views/campaign";

export default async function Page() {
  return shown(
    () => Promise.all([viewCampaignKit(), viewBench()]),
    ([kit, { rig }]) => <PlanCampaignPage kit={kit} rigId={rig?.id ?? null} />,
  );
}
