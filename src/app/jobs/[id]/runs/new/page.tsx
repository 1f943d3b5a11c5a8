import { shown } from "@/app/door";
import { viewNewRun } from "@/server";
import { NewRunScreen } from "@/views/run";

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return shown(() => viewNewRun(id), (view) => <NewRunScreen {...view} />);
}
