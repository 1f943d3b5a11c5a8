import { expose } from "comlink";
import { summarise, type Yardstick } from "@/core/metrics";
import {
  ByteLogReader,
  durationOf,
  endsOf,
  frameColumns,
  packTrace,
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
}

export type ReadOutcome = { ok: true; preview: LogPreview } | { ok: false; problem: LogProblem };
export type KeepOutcome = { ok: true; id: string; number: number } | { ok: false; title: string; fix: string };

const sketchColumns = 480;
const progressEvery = 4 << 20;
let held: Trace | null = null;

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
    const stream = file.stream().getReader();
    let done = 0,
      told = 0;
    for (;;) {
      const { value, done: ended } = await stream.read();
      if (ended || !reader.push(value)) break;
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
    const summary = summarise(trace, yardstick, rules.measuring);
    const ends = endsOf(trace);
    const durationMs = durationOf(trace);
    return {
      ok: true,
      preview: {
        reading,
        durationMs,
        form: trace.form,
        averageFps: summary.averageFps,
        channels: trace.channels.map(({ role }) => role),
        marks: trace.marks.length,
        verdict: judge(summary, rules),
        sketch: frameColumns(trace, ends, 0, durationMs, sketchColumns),
      },
    };
  },

  /** Sends the trace that was read to be kept, with the run's particulars. */
  async keep(run: unknown): Promise<KeepOutcome> {
    if (!held) return { ok: false, title: "No log has been read.", fix: "Choose one first." };
    try {
      const response = await fetch("/api/v1/runs", {
        method: "POST",
        headers: { "content-type": "application/octet-stream" },
        body: packTrace(held, run),
      });
      const body = await response.json();
      if (response.ok) return { ok: true, ...body };
      return { ok: false, title: body.title, fix: body.detail };
    } catch {
      return {
        ok: false,
        title: "The application doesn't answer.",
        fix: "The log is still here: try again when it does.",
      };
    }
  },
};

export type LogImport = typeof api;
expose(api);
