import { shown } from "@/app/door";
import { viewJob } from "@/server";
import { PackedJob } from "@/views/job";

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return shown(
    () => viewJob(id),
    (view) => <PackedJob packed={JSON.stringify(view)} />,
  );
}
