import type { Output } from "@/contract";
import * as data from "@/data";

/** Where a file may be brought into. @param title of which titles are named by this, where any is */
export async function viewIncoming(title: string): Promise<Output<"viewIncoming">> {
  const [rigs, engines, titles, bench] = await data.together(
    async () => data.listRigs(),
    async () => data.enginesByKeys(),
    async () => (title === "" ? [] : data.titlesCalled(title)),
    async () => data.readBench(),
  );
  const job = bench.jobId === null ? null : await data.findJob(bench.jobId);
  return {
    rigs: rigs.map(({ id, name }) => ({ id, name })),
    engines,
    titles,
    bench: {
      rigId: bench.rigId,
      job:
        job && !job.closedAt
          ? { id: job.id, title: job.title, titleId: job.titleId, engineId: job.engineId }
          : null,
    },
  };
}
