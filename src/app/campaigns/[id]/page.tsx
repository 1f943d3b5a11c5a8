import { shown, type WithId } from "@/app/door";
import { viewCampaign } from "@/server";
import { CampaignScreen } from "@/views/campaign";

export default async function Page({
  params,
  searchParams,
}: WithId & { searchParams: Promise<{ tab?: string }> }) {
  const [{ id }, { tab }] = await Promise.all([params, searchParams]);
  return shown(
    () => viewCampaign(id),
    (view) => <CampaignScreen view={view} tab={tab ?? ""} />,
  );
}
