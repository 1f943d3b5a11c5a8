import type { LinesSaid } from "./codes";
import type { Said } from "@/core/said";
import type { Column, LogProblem } from "./types";

/** A refusal, with nothing known of the log's columns unless they are given. */
export function problem(
  code: LogProblem["code"],
  reason: Said,
  remedy: Said,
  columns: Column[] = [],
  { lines, count }: LinesSaid = { lines: [], count: 0 },
): LogProblem {
  return { code, reason, remedy, lines, count, columns, sample: [] };
}
