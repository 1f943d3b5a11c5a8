import { shown, type WithId } from "@/app/shown";
import { viewCampaign } from "@/server";
import { CampaignPage } from "@/views/campaign";

export default async function Page({
  params,
  searchParams,
}: WithId & { searchParams: Promise<{ tab?: string }> }) {
  const [{ id }, { tab }] = await Promise.all([params, searchParams]);
  return shown(
    () => viewCampaign(id),
    (view) => <CampaignPage view={view} tab={tab ?? ""} />,
  );
}
