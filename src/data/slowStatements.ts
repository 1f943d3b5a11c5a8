/** A statement that took this long is named, ms. */
export const slowMs = 500;
/** Different ones that are remembered, and the length of a name. */
const most = 50,
  nameLength = 240;

/** A statement by what it asks, with how often it was slow and the longest that it took. */
export interface SlowStatement {
  statement: string;
  times: number;
  mostMs: number;
}

type Tell = (statement: string, ms: number) => void;
const kept = globalThis as { lampSlow?: { seen: Map<string, SlowStatement>; tell: Tell | null } };
const slow = () => (kept.lampSlow ??= { seen: new Map(), tell: null });

/** What a statement asks, without anything that it was asked with: literals are struck out. */
export const statementName = (text: string): string =>
  text
    .replace(/^Execut(?:ed|ing) \([^)]*\): /, "")
    .replace(/E?'(?:[^'\\]|''|\\.)*'/gs, "?")
    .replace(/(?<![$\w."])\d+(?:\.\d+)?\b(?!")/g, "?")
    .replace(/\s+/g, " ")
    .trim()
    .slice(0, nameLength);

/** Takes notice of a statement that was answered. @param ms that it took */
export function sawStatement(text: string, ms: number): void {
  if (ms < slowMs) return;
  const statement = statementName(text);
  const { seen, tell } = slow();
  const known = seen.get(statement);
  if (known) {
    known.times++;
    known.mostMs = Math.max(known.mostMs, ms);
  } else if (seen.size < most) seen.set(statement, { statement, times: 1, mostMs: ms });
  tell?.(statement, ms);
}

/** Says where slow statements are told as they come. */
export function tellSlow(tell: Tell): void {
  slow().tell = tell;
}

/** Slow statements of this process, the slowest first. */
export const slowStatements = (): SlowStatement[] =>
  [...slow().seen.values()].sort((a, b) => b.mostMs - a.mostMs).slice(0, 10);
