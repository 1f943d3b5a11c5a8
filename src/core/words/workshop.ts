import type { WorkshopView } from "@/core/records";

const count = (n: number, one: string, many = `${one}s`) =>
  `${n.toLocaleString("en-GB")} ${n === 1 ? one : many}`;

/** How the application fares, in sentences that say only what the figures beside them do. */
export function workshopWords({
  slow,
  waiting,
  outdatedRuns,
  memoryMb,
  totalBytes,
  aheadMinutes,
}: Pick<
  WorkshopView,
  "slow" | "waiting" | "outdatedRuns" | "memoryMb" | "totalBytes" | "aheadMinutes"
>): string[] {
  const over = slow.reduce((sum, endpoint) => sum + endpoint.over, 0);
  const asked = slow.reduce((sum, endpoint) => sum + endpoint.asked, 0);
  const open = waiting.reduce((sum, work) => sum + work.waiting + work.active, 0);
  const failed = waiting.reduce((sum, work) => sum + work.failed, 0);
  return [
    `The store takes ${(totalBytes / 1024 / 1024).toFixed(0)} MB, this process ${memoryMb.toFixed(0)} MB of memory.`,
    asked === 0
      ? "No endpoint of this process was called yet."
      : over === 0
        ? asked === 1
          ? "The one answer of the endpoints listed took no more than a second."
          : `None of the ${count(asked, "answer")} of the endpoints listed took more than a second.`
        : `${count(over, "answer")} of ${asked.toLocaleString("en-GB")} at the endpoints listed took more than a second.`,
    open === 0 && outdatedRuns === 0
      ? "No work waits."
      : `${count(open, "piece")} of work ${open === 1 ? "waits or is" : "wait or are"} being done, ${count(outdatedRuns, "run")} to be measured anew.`,
    ...(aheadMinutes >= 1
      ? [
          `The newest thing kept is dated ${aheadMinutes.toFixed(0)} min ahead of this machine's clock: it was set back, or the clock before was wrong. Runs and decisions keep their order; dates don't tell it until the clock has caught up.`,
        ]
      : []),
    ...(failed > 0 ? [`${count(failed, "piece")} of work failed for good: the journal says why.`] : []),
  ];
}
