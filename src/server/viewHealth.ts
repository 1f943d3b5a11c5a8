import { database } from "@/data";

/** Whether this process and its database answer. */
export async function viewHealth(): Promise<{
  application: "velvet-lamp";
  database: boolean;
  process: number;
}> {
  const reached = await database()
    .query("select 1")
    .then(
      () => true,
      () => false,
    );
  return { application: "velvet-lamp", database: reached, process: process.pid };
}
