import { shown } from "@/app/shown";
import { listCampaigns } from "@/server";
import { CampaignsPage } from "@/views/campaign";

export default async function Page() {
  return shown(listCampaigns, ({ rows }) => <CampaignsPage rows={rows} />);
}
