import { shown, type WithId } from "@/app/shown";
import { viewBuild } from "@/server";
import { BuildPage } from "@/views/log";

export default async function Page({ params }: WithId) {
  const { id } = await params;
  return shown(
    () => viewBuild(id),
    (view) => <BuildPage view={view} />,
  );
}
