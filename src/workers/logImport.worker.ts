import type { KeepOutcome } from "./keepTrace";
import { sha256 } from "@noble/hashes/sha2.js";
import { bytesToHex } from "@noble/hashes/utils.js";
import { expose } from "comlink";
import { keepTrace } from "./keepTrace";
import { summarise, type Yardstick } from "@/core/metrics";
import {
  ByteLogReader,
  durationOf,
  endsOf,
  frameColumns,
  tooLarge,
  type LogProblem,
  type LogReading,
  type PixelColumns,
  type ReadOptions,
  type Trace,
} from "@/core/trace";
import { judge, type HouseRules, type Verdict } from "@/core/verdict";

/** What the page is told of a log that was read; the trace itself stays here until it is kept. */
export interface LogPreview {
  reading: Omit<LogReading, "trace">;
  form: Trace["form"];
  durationMs: number;
  averageFps: number;
  channels: string[];
  marks: number;
  verdict: Verdict;
  sketch: PixelColumns;
  /** SHA-256 of the file, in hexadecimal. */
  hash: string;
}

/** What is judged of a log against a yardstick. */
export type JudgedLog = Pick<LogPreview, "averageFps" | "verdict">;

export type ReadOutcome = { ok: true; preview: LogPreview } | { ok: false; problem: LogProblem };

const sketchColumns = 480;
const progressEvery = 4 << 20;
let held: Trace | null = null;
let stopSending = () => {};

function judged(trace: Trace, yardstick: Yardstick, rules: HouseRules): JudgedLog {
  const summary = summarise(trace, yardstick, rules.measuring);
  return { averageFps: summary.averageFps, verdict: judge(summary, rules) };
}

const api = {
  /** Reads a log piece by piece, telling how far it is; a cancelled read is ended by ending the worker. */
  async read(
    file: File,
    options: ReadOptions,
    yardstick: Yardstick,
    rules: HouseRules,
    onProgress: (share: number) => void,
  ): Promise<ReadOutcome> {
    held = null;
    const large = tooLarge(file.size);
    if (large) return { ok: false, problem: large };
    const reader = new ByteLogReader(options);
    const hash = sha256.create();
    const stream = file.stream().getReader();
    let done = 0,
      told = 0;
    for (;;) {
      const { value, done: ended } = await stream.read();
      if (ended) break;
      hash.update(value);
      if (!reader.push(value)) break;
      done += value.length;
      if (done - told >= progressEvery) {
        told = done;
        onProgress(done / file.size);
      }
    }
    await stream.cancel().catch(() => {});
    const result = reader.finish();
    if (!result.ok) return result;
    const { trace, ...reading } = result.reading;
    held = trace;
    const ends = endsOf(trace);
    const durationMs = durationOf(trace);
    return {
      ok: true,
      preview: {
        reading,
        durationMs,
        form: trace.form,
        ...judged(trace, yardstick, rules),
        channels: trace.channels.map(({ role }) => role),
        marks: trace.marks.length,
        hash: bytesToHex(hash.digest()),
        sketch: frameColumns(trace, ends, 0, durationMs, sketchColumns),
      },
    };
  },

  /** Judges the log that was read anew, against another yardstick or by other rules. */
  judge(yardstick: Yardstick, rules: HouseRules): JudgedLog | null {
    return held && judged(held, yardstick, rules);
  },

  /** Sends the trace that was read to be kept, with the run's particulars, telling how much of it has gone. */
  async keep(run: unknown, path?: string, onShare?: (share: number) => void): Promise<KeepOutcome> {
    if (!held) return { ok: false, title: "No log has been read.", fix: "Choose one first." };
    const lost = {
      title: "The application doesn't answer.",
      fix: "The log is still here: try again when it does.",
    };
    const outcome = await keepTrace(held, run, lost, path, {
      share: onShare,
      stop: (stop) => (stopSending = stop),
    });
    stopSending = () => {};
    return outcome;
  },

  /** Stops what is being sent, while it is: what has gone as a whole is kept. */
  stop(): void {
    stopSending();
  },
};

export type LogImport = typeof api;
expose(api);
