import type { ReadOptions } from "@/core/trace";

type ColumnMap = NonNullable<ReadOptions["map"]>;

/** Shapes of files whose columns are remembered, the newest first, at most. */
const mostShapes = 40;
const key = "columns chosen";

function remembered(): [header: string, map: ColumnMap][] {
  try {
    const kept: unknown = JSON.parse(window.localStorage.getItem(key) ?? "[]");
    return Array.isArray(kept) ? (kept as [string, ColumnMap][]) : [];
  } catch {
    return [];
  }
}

/** What was chosen by hand for a file whose header reads like this; null where nothing was. */
export const columnsFor = (header: string): ColumnMap | null =>
  header === "" ? null : (remembered().find(([each]) => each === header)?.[1] ?? null);

/** Remembers what was chosen for files of this header; null forgets it. */
export function rememberColumns(header: string, map: ColumnMap | null): void {
  if (header === "") return;
  const others = remembered().filter(([each]) => each !== header);
  const now = map === null ? others : [[header, map] as const, ...others].slice(0, mostShapes);
  try {
    window.localStorage.setItem(key, JSON.stringify(now));
  } catch {
    // A browser that keeps nothing asks again the next time.
  }
}
