import { shown } from "@/app/shown";
import { viewTrial } from "@/server";
import { TrialPage } from "@/views/trial";

export default async function Page({ params }: { params: Promise<{ trial: string }> }) {
  const { trial } = await params;
  return shown(
    () => viewTrial(trial),
    (view) => <TrialPage {...view} />,
  );
}
