import { shown, type WithId } from "@/app/shown";
import { viewHouseRules } from "@/server";
import { HouseRulesForm } from "@/views/kit";

export default async function Page({ params }: WithId) {
  const { id } = await params;
  return shown(
    () => viewHouseRules(id),
    (set) => <HouseRulesForm set={set} />,
  );
}
