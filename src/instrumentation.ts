/** Run once by every process of the application as it starts. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== "nodejs" || !process.env.DATABASE_URL) return;
  const { nameSlowStatements, startWork } = await import("@/server");
  nameSlowStatements();
  // A database that can't be reached yet is no reason not to start: pages say so, and work is tried again.
  const url = process.env.DATABASE_URL;
  const start = () => {
    startWork(url).catch(() => setTimeout(start, 5_000).unref());
  };
  start();
}
