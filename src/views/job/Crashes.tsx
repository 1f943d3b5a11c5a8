import type { ThreadRun } from "@/contract";
import { crashRate } from "@/core/sweep";
import { say } from "@/ui";

/** How often runs of the same settings ended in a crash. */
export function Crashes({ runs }: { runs: Pick<ThreadRun, "crashed" | "summary">[] }) {
  const { crashes, hours, perHour, low, high } = crashRate(
    runs.filter(({ crashed }) => crashed).length,
    runs.reduce((sum, { summary }) => sum + summary.durationMs, 0) / 3_600_000,
  );
  return (
    <p className="mt-3 text-[13px]" data-testid="crashes">
      {say.count(crashes, "crash", "crashes")} in {hours.toFixed(2)} h with these settings: {perHour.toFixed(2)}{" "}
      an hour (95 %: {low.toFixed(2)} to {high.toFixed(2)}).
    </p>
  );
}
