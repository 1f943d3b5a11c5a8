import type { LogReading, LogResult } from "@/core/trace";
import { refusalWords } from "@/core/words";

/** What was read of a log. @throws Error with the refusal, for a log that wasn't */
export function readingOf(result: LogResult): LogReading {
  if (!result.ok) throw new Error(refusalWords(result.problem));
  return result.reading;
}
