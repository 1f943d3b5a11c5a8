/**
 * How arms were found for logs that came together: each file's name holds its arm's, or the plan's running
 * order.
 */
export type AssignedBy = "names" | "plan";

/** Letters and figures of a name in lower case, parted where they change to others; × is x. */
const parts = (name: string): string[] =>
  name
    .toLowerCase()
    .replace(/×/g, "x")
    .replace(/\.[a-z0-9]{1,5}$/, "")
    .match(/[\p{L}\p{N}]+/gu) ?? [];

/** Whether a name's parts hold another's, in a row. */
const holds = (whole: string[], part: string[]) =>
  part.length > 0 && whole.some((_, at) => part.every((each, k) => whole[at + k] === each));

/**
 * Arms of a trial for logs in running order. Where every file's name holds the name of one arm and of no other
 * that is as long,
 * the names say it; else the plan does: what is left to run, in its order, and then the arms in turn.
 * @param files names in running order
 * @param arms names of the arms
 * @param left arms still to run, in running order
 * @example assignArms(["off-1.csv", "on-1.csv"], ["off", "on"], [1, 0]) // → { arms: [0, 1], by: "names" }
 */
export function assignArms(
  files: string[],
  arms: string[],
  left: number[],
): { arms: number[]; by: AssignedBy } {
  const wanted = arms.map(parts);
  const named = files.map((file) => {
    const own = parts(file);
    const found = wanted
      .map((part, arm) => ({ arm, length: holds(own, part) ? part.length : 0 }))
      .filter(({ length }) => length > 0)
      .sort((a, b) => b.length - a.length);
    const [best, second] = found;
    return best && best.length !== second?.length ? best.arm : null;
  });
  const told = named.filter((arm) => arm !== null);
  if (files.length > 0 && told.length === files.length) return { arms: told, by: "names" };
  return {
    arms: files.map((_, at) => left[at] ?? (at - left.length) % Math.max(1, arms.length)),
    by: "plan",
  };
}

/**
 * Files in the order they were run in: by when they were last written, those of one second by their names,
 * figures by size.
 * @param files times in ms since 1970
 */
export function inRunningOrder<File extends { name: string; lastModified: number }>(files: File[]): File[] {
  const second = ({ lastModified }: File) => Math.floor(lastModified / 1000);
  return [...files].sort(
    (a, b) =>
      second(a) - second(b) || a.name.localeCompare(b.name, "en", { numeric: true, sensitivity: "base" }),
  );
}
