import { shown } from "@/app/door";
import { viewBench, viewCampaignKit } from "@/server";
import { PlanCampaignScreen } from "@/views/campaign";

export default async function Page() {
  return shown(
    () => Promise.all([viewCampaignKit(), viewBench()]),
    ([kit, { rig }]) => <PlanCampaignScreen kit={kit} rigId={rig?.id ?? null} />,
  );
}
