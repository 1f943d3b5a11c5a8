import { shown } from "@/app/shown";
import { viewNewRun } from "@/server";
import { NewRunPage } from "@/views/run";

export default async function Page({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ trial?: string; arm?: string; campaign?: string }>;
}) {
  const [{ id }, asked] = await Promise.all([params, searchParams]);
  return shown(
    () => viewNewRun(id, asked),
    (view) => <NewRunPage key={`${view.trial?.id} ${view.trial?.arm}`} {...view} />,
  );
}
