import { shown, type WithId } from "@/app/door";
import { viewBuild } from "@/server";
import { BuildScreen } from "@/views/log";

export default async function Page({ params }: WithId) {
  const { id } = await params;
  return shown(
    () => viewBuild(id),
    (view) => <BuildScreen view={view} />,
  );
}
