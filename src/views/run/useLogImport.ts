"use client";
import { startTransition, useEffect, useRef, useState } from "react";
import type { Yardstick } from "@/core/metrics";
import type { LogProblem, ReadOptions } from "@/core/trace";
import type { HouseRules } from "@/core/verdict";
import { callback, startLogImport, type KeepOutcome, type LogPreview } from "@/workers";

export type ImportState =
  | { step: "idle" }
  | { step: "reading"; share: number }
  | { step: "refused"; problem: LogProblem }
  | { step: "read"; preview: LogPreview };

/** Reads a log in a worker with progress; cancelling ends the worker, and nothing of the read stays. */
export function useLogImport(yardstick: Yardstick, rules: HouseRules) {
  const [state, setState] = useState<ImportState>({ step: "idle" });
  const worker = useRef<ReturnType<typeof startLogImport> | null>(null);
  const turn = useRef(0);
  const end = () => {
    turn.current++;
    worker.current?.end();
    worker.current = null;
  };
  useEffect(() => end, []);

  const cancel = () => {
    end();
    setState({ step: "idle" });
  };
  const read = async (file: File, options: ReadOptions) => {
    end();
    const own = turn.current;
    const started = (worker.current = startLogImport());
    setState({ step: "reading", share: 0 });
    try {
      const outcome = await started.call.read(
        file,
        options,
        yardstick,
        rules,
        callback((share: number) => own === turn.current && setState({ step: "reading", share })),
      );
      if (own !== turn.current) return;
      // Drawn in slices: a wide log's table must not hold up the page.
      startTransition(() =>
        setState(
          outcome.ok
            ? { step: "read", preview: outcome.preview }
            : { step: "refused", problem: outcome.problem },
        ),
      );
    } catch (error) {
      if (own !== turn.current) return;
      setState({
        step: "refused",
        problem: {
          code: "binary",
          message: `The file could not be read: ${(error as Error).message}`,
          fix: "Choose it again; it may have been moved or changed.",
          lines: [],
          count: 0,
          columns: [],
          sample: [],
        },
      });
    }
  };
  const keep = async (run: unknown): Promise<KeepOutcome> =>
    worker.current
      ? worker.current.call.keep(run)
      : { ok: false, title: "No log has been read.", fix: "Choose one first." };
  return { state, read, cancel, keep };
}
