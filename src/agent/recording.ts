import { beginOf, joined, type Growth, type Sampled } from "@/core/device";
import { ByteLogReader, durationOf, type Trace } from "@/core/trace";
import { refusalWords } from "@/core/words";
import type { Taking } from "./following";

/** A log that was followed to its end, with what the device did meanwhile. */
export interface Recorded {
  path: string;
  trace: Trace;
}

const lineEnd = 10;

/** Logs that are kept whole until all are written, each with what was read of the device meanwhile. */
export class Recording {
  private readonly logs: { path: string; reader: ByteLogReader; seen: Growth[] }[] = [];

  /** Begins with a log. */
  readonly take = (path: string): Taking => {
    const [reader, seen]: [ByteLogReader, Growth[]] = [new ByteLogReader(), []];
    let lines = 0;
    this.logs.push({ path, reader, seen });
    return {
      push: (bytes, atMs) => {
        reader.push(bytes);
        for (let at = bytes.indexOf(lineEnd); at >= 0; at = bytes.indexOf(lineEnd, at + 1)) lines++;
        if (seen.at(-1)?.atMs === atMs) seen.pop();
        seen.push({ atMs, lines });
      },
      end: () => {},
    };
  };

  /** What was followed: each log with the samples that were read meanwhile, and why a log isn't among them. */
  end(samples: readonly Sampled[]): { logs: Recorded[]; left: { path: string; why: string }[] } {
    const logs: Recorded[] = [],
      left: { path: string; why: string }[] = [];
    for (const { path, reader, seen } of this.logs) {
      const result = reader.finish();
      if (!result.ok) {
        left.push({ path, why: refusalWords(result.problem) });
        continue;
      }
      const { trace } = result.reading;
      const begin = beginOf(trace, seen);
      if (begin !== null && begin + durationOf(trace) < 0)
        left.push({ path, why: "It was written before it was followed." });
      else logs.push({ path, trace: begin === null ? trace : joined(trace, samples, begin) });
    }
    return { logs, left };
  }
}
