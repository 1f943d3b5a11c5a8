import { shown } from "@/app/door";
import { viewJobs } from "@/server";
import { JobsPage } from "@/views/job";

export default async function Page({ searchParams }: { searchParams: Promise<Record<string, string>> }) {
  const query = await searchParams;
  return shown(
    () => viewJobs(query),
    (view) => <JobsPage key={`${view.search} ${view.filter} ${view.sort}`} {...view} />,
  );
}
