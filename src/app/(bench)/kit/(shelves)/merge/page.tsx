import { MergePage } from "@/views/kit";

export default async function Page({
  searchParams,
}: {
  searchParams: Promise<{ what?: string; from?: string; name?: string }>;
}) {
  const { what = "title", from = "", name = "" } = await searchParams;
  return <MergePage first={{ what, from, name }} />;
}
