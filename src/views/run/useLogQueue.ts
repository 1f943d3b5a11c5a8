"use client";
import { startTransition, useEffect, useRef, useState } from "react";
import type { Yardstick } from "@/core/metrics";
import { problem, type LogProblem, type ReadOptions } from "@/core/trace";
import { inRunningOrder } from "@/core/trial";
import type { HouseRules } from "@/core/verdict";
import { said } from "@/core/words";
import { callback, startLogImport, type KeepOutcome, type LogPreview } from "@/workers";

export type LogState =
  | { step: "waiting" }
  | { step: "reading"; share: number }
  | { step: "refused"; problem: LogProblem }
  | { step: "read"; preview: LogPreview };

type Refusal = Extract<KeepOutcome, { ok: false }>;

/** One log on its way to being kept. */
export interface QueuedLog {
  id: string;
  file: File;
  options: ReadOptions;
  state: LogState;
  /** Why it wasn't kept, when that was tried. */
  refusal: Refusal | null;
  /** Keep it though its file was kept before, or stands in the queue twice. */
  again: boolean;
}

/** Read at once; a log of a million rows keeps a core busy. */
const mostReading = 2;

/**
 * Logs that are read in workers, in running order, until they are kept or put away; cancelling ends the worker.
 */
export function useLogQueue(yardstick: Yardstick, rules: HouseRules) {
  const [logs, setLogs] = useState<QueuedLog[]>([]);
  const workers = useRef(new Map<string, ReturnType<typeof startLogImport>>());
  const counted = useRef(0);
  const end = (id: string) => {
    workers.current.get(id)?.end();
    workers.current.delete(id);
  };
  useEffect(() => {
    const held = workers.current;
    return () => held.forEach((worker) => worker.end());
  }, []);
  const change = (id: string, changed: Partial<QueuedLog>) =>
    setLogs((before) => before.map((log) => (log.id === id ? { ...log, ...changed } : log)));

  const read = async ({ id, file, options }: QueuedLog) => {
    end(id);
    const started = startLogImport();
    workers.current.set(id, started);
    change(id, { state: { step: "reading", share: 0 } });
    let state: LogState;
    try {
      const outcome = await started.call.read(
        file,
        options,
        yardstick,
        rules,
        callback(
          (share: number) =>
            workers.current.get(id) === started && change(id, { state: { step: "reading", share } }),
        ),
      );
      state = outcome.ok
        ? { step: "read", preview: outcome.preview }
        : { step: "refused", problem: outcome.problem };
    } catch (error) {
      state = { step: "refused", problem: unread(error as Error) };
    }
    if (workers.current.get(id) !== started) return;
    // Drawn in slices: a wide log's table must not hold up the page.
    startTransition(() => change(id, { state }));
  };
  useEffect(() => {
    const reading = logs.filter(({ state }) => state.step === "reading").length;
    for (const log of logs.filter(({ state }) => state.step === "waiting").slice(0, mostReading - reading))
      void read(log);
    // Reading depends on what stands in the queue, and on nothing else that changes.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [logs]);

  // Another yardstick judges anew what was read; nothing is read twice.
  const judgedBy = JSON.stringify([yardstick, rules]);
  useEffect(() => {
    for (const { id, state } of logs)
      if (state.step === "read")
        void workers.current
          .get(id)
          ?.call.judge(yardstick, rules)
          .then(
            (judged) =>
              judged && change(id, { state: { step: "read", preview: { ...state.preview, ...judged } } }),
          );
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [judgedBy]);

  const add = (files: File[]) =>
    setLogs((before) => [
      ...before,
      ...inRunningOrder(files).map((file) => ({
        id: String(++counted.current),
        file,
        options: {},
        state: { step: "waiting" } as const,
        refusal: null,
        again: false,
      })),
    ]);
  const remove = (id: string) => {
    end(id);
    setLogs((before) => before.filter((log) => log.id !== id));
  };
  const readAgain = (id: string, options: ReadOptions) =>
    change(id, { options, refusal: null, state: { step: "waiting" } });
  const move = (id: string, to: number) =>
    setLogs((before) => {
      const log = before.find((each) => each.id === id);
      if (!log) return before;
      const others = before.filter((each) => each.id !== id);
      return [...others.slice(0, Math.max(0, to)), log, ...others.slice(Math.max(0, to))];
    });
  const keep = async (id: string, run: unknown): Promise<KeepOutcome> => {
    const worker = workers.current.get(id);
    const outcome: KeepOutcome = worker
      ? await worker.call.keep(run)
      : { ok: false, title: "This log hasn't been read.", fix: "Choose it again." };
    if (!outcome.ok) change(id, { refusal: outcome });
    return outcome;
  };
  const insist = (id: string) => change(id, { again: true, refusal: null });
  return { logs, add, remove, move, readAgain, insist, keep };
}

const unread = ({ message }: Error): LogProblem =>
  problem("binary", said("refused.unread", { why: message }), said("remedy.chooseAgain"));

/** Logs whose file stands in the queue before them. */
export function twiceOver(logs: QueuedLog[]): Set<string> {
  const seen = new Set<string>();
  return new Set(
    logs.flatMap(({ id, state }) => {
      if (state.step !== "read") return [];
      const known = seen.has(state.preview.hash);
      seen.add(state.preview.hash);
      return known ? [id] : [];
    }),
  );
}
