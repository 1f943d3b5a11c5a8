import { shown } from "@/app/door";
import { listCampaigns } from "@/server";
import { CampaignsScreen } from "@/views/campaign";

export default async function Page() {
  return shown(listCampaigns, ({ rows }) => <CampaignsScreen rows={rows} />);
}
