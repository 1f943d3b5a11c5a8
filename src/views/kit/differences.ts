/** One place where two versions of a thing differ, in words. */
export interface Difference {
  place: string;
  mine: string;
  theirs: string;
}

const shown = (value: unknown) => {
  const text =
    value === undefined || value === null
      ? "empty"
      : typeof value === "object"
        ? JSON.stringify(value)
        : String(value);
  return text.length > 80 ? `${text.slice(0, 79)}…` : text;
};
const isThing = (value: unknown): value is Record<string, unknown> =>
  value !== null && typeof value === "object";

/**
 * Where what was typed differs from what is kept now; only what was typed is looked at.
 * @example differences({ name: "A", spec: { memoryGb: 8 } }, { name: "A", spec: { memoryGb: 12 } })
 *   // → [{ place: "spec › memoryGb", mine: "8", theirs: "12" }]
 */
export function differences(mine: unknown, theirs: unknown, at: string[] = []): Difference[] {
  if (isThing(mine) && isThing(theirs) && Array.isArray(mine) === Array.isArray(theirs)) {
    const keys = Array.isArray(mine)
      ? [...new Set([...Object.keys(mine), ...Object.keys(theirs)])]
      : Object.keys(mine);
    return keys.flatMap((key) => differences(mine[key], theirs[key], [...at, key]));
  }
  const [a, b] = [shown(mine), shown(theirs)];
  return a === b ? [] : [{ place: at.join(" › ") || "all", mine: a, theirs: b }];
}
