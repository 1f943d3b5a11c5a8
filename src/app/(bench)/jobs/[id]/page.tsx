import { shown } from "@/app/shown";
import { viewFirstTrace, viewJob } from "@/server";
import { PackedJob } from "@/views/job";

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return shown(
    async () => {
      const view = await viewJob(id);
      return { view, firstTrace: await viewFirstTrace(view) };
    },
    (loaded) => <PackedJob packed={JSON.stringify(loaded)} />,
  );
}
