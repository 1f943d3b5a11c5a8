import type { BuildView } from "@/core/records";
import { count, listed } from "./figures";

/* What the log says of a fault and of a build. */

/** Whether a fault still happens, by the runs since. */
export const stillWords = (runsSince: number): string =>
  runsSince === 0 ? "in the newest run" : `not seen in ${count(runsSince, "run")} since`;

const changeNames: Partial<Record<BuildView["titles"][number]["change"], string>> = {
  fixed: "faults gone in",
  "newly broken": "new faults in",
  brighter: "a brighter light in",
  darker: "a darker light in",
  "as before": "no change in",
};

/** What a build changed, by titles that were run with it and with the one before. */
export function buildWords({ titles, before, version, stale }: BuildView): string[] {
  const both = titles.filter(({ change }) => change !== "one side only");
  const made: string[] = [];
  if (!before) made.push(`Nothing is known of a build before ${version}.`);
  else if (both.length === 0)
    made.push(`No title was run with both ${before.version} and ${version} on one rig.`);
  else {
    const parts = Object.entries(changeNames).flatMap(([change, name]) => {
      const n = both.filter((title) => title.change === change).length;
      return n > 0 ? [`${name} ${n}`] : [];
    });
    made.push(
      `From ${before.version} to ${version}, of ${count(both.length, "title")} run with both: ${listed(parts)}.`,
    );
  }
  const values = stale.reduce((sum, each) => sum + each.values, 0);
  if (values > 0)
    made.push(
      `${count(values, "value")} in profiles ${values === 1 ? "was" : "were"} measured with another build.`,
    );
  return made;
}
