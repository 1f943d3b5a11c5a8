import { shown } from "@/app/door";
import { listCampaigns } from "@/server";
import { CampaignsPage } from "@/views/campaign";

export default async function Page() {
  return shown(listCampaigns, ({ rows }) => <CampaignsPage rows={rows} />);
}
