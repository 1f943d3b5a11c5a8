import { logWords } from "@/core/words";

const isSaid = (value: object): value is { code: string; figures: unknown } =>
  "code" in value && "figures" in value && typeof value.code === "string";

/** An answer with every sentence's words beside its code and figures. */
export function withWords(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(withWords);
  if (value === null || typeof value !== "object" || value instanceof Date) return value;
  const made = Object.fromEntries(Object.entries(value).map(([name, each]) => [name, withWords(each)]));
  return isSaid(value) ? { ...made, words: logWords(value) } : made;
}
