import { shown } from "@/app/shown";
import { viewPlan } from "@/server";
import { PlanPage } from "@/views/trial";

export default async function Page({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ kind?: string }>;
}) {
  const [{ id }, { kind }] = await Promise.all([params, searchParams]);
  return shown(
    () => viewPlan(id),
    (view) => <PlanPage {...view} asked={kind ?? null} />,
  );
}
