import { readQuery } from "@/contract";
import { shown } from "@/app/shown";
import { viewJobs } from "@/server";
import { JobsPage } from "@/views/job";

export default async function Page({ searchParams }: { searchParams: Promise<Record<string, string>> }) {
  const query = await searchParams;
  return shown(
    async () => viewJobs(readQuery("listJobs", query)),
    (view) => <JobsPage key={`${view.search} ${view.filter} ${view.sort}`} {...view} />,
  );
}
