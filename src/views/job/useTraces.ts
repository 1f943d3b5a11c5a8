"use client";
import { useEffect, useMemo, useRef, useState } from "react";
import type { MeasuringRules, Summary } from "@/core/metrics";
import type { ThreadRun } from "@/contract";
import { drawnColumns, type CoarseTrace } from "@/core/trace";
import type { startTraceReader, TraceColumns, TraceFacts, Working } from "@/workers";

type Reader = ReturnType<typeof startTraceReader> extends Working<infer Api> ? Working<Api> : never;

/** What reads a whole trace waits so long for what a page is usable with, ms. */
const afterUsableMs = 1200;

/** One worker for the life of a page; started in the browser only. */
function useReader(): Reader | null {
  const [reader, setReader] = useState<Reader | null>(null);
  useEffect(() => {
    // The page brings its first trace along: what reads the whole of it is loaded once the page is usable.
    let ended = false;
    let started: Reader | null = null;
    const timer = setTimeout(() => {
      void import("@/workers").then(({ startTraceReader: start }) => {
        if (ended) return;
        started = start();
        // A remote is callable; setState would call it.
        setReader(() => started);
      });
    }, afterUsableMs);
    return () => {
      ended = true;
      clearTimeout(timer);
      started?.end();
    };
  }, []);
  return reader;
}

/**
 * Asks for something of the worker and keeps the last answer to the last question; a failure is told in words.
 */
function useAnswer<Answer>(
  ask: (() => Promise<Answer>) | null,
  question: string,
): { answer: Answer | null; problem: string | null } {
  const [state, setState] = useState<{ answer: Answer | null; problem: string | null }>({
    answer: null,
    problem: null,
  });
  const asking = useRef(ask);
  useEffect(() => {
    asking.current = ask;
  });
  const ready = ask !== null;
  useEffect(() => {
    if (!ready) {
      setState({ answer: null, problem: null });
      return;
    }
    let current = true;
    asking.current?.().then(
      (answer) => current && setState({ answer, problem: null }),
      (error: Error) => current && setState({ answer: null, problem: error.message }),
    );
    return () => {
      current = false;
    };
  }, [question, ready]);
  return state;
}

export interface TraceViewState {
  facts: TraceFacts | null;
  columns: TraceColumns | null;
  figures: Summary | null;
  overFacts: TraceFacts | null;
  overColumns: TraceColumns | null;
  overFigures: Summary | null;
  problem: string | null;
}

/** A run in few columns, as its page brought it along. */
export interface FirstTrace {
  runId: string;
  trace: CoarseTrace;
}

/** The same as the worker thread would answer, but for what only the whole trace tells: dips and hitches. */
function asDrawn({ durationMs, marks, most, frames, channels }: CoarseTrace): {
  facts: TraceFacts;
  columns: TraceColumns;
} {
  return {
    facts: { durationMs, marks, most, channels: channels.map(({ role }) => role), dips: [], hitches: [] },
    columns: {
      frames: drawnColumns(frames),
      channels: channels.map(({ role, columns }) => ({ role, columns: drawnColumns(columns) })),
    },
  };
}

/**
 * What a trace panel draws: columns of pixels for the range in view and figures for the selection,
 * all made in a worker, for a run and one laid over it.
 */
export function useTraces(
  run: ThreadRun,
  over: ThreadRun | null,
  rules: MeasuringRules,
  range: [number, number] | null,
  selection: [number, number] | null,
  width: number,
  firstTrace: FirstTrace | null,
): TraceViewState {
  const first = useMemo(
    () => (firstTrace?.runId === run.id && !over ? asDrawn(firstTrace.trace) : null),
    [firstTrace, run.id, over],
  );
  const reader = useReader();
  const facts = useAnswer(reader && (() => reader.call.facts(run.id, run.yardstick, rules)), run.id);
  const overFacts = useAnswer(
    reader && over && (() => reader.call.facts(over.id, over.yardstick, rules)),
    over?.id ?? "",
  );
  const end = Math.max(
    facts.answer?.durationMs ?? first?.facts.durationMs ?? 0,
    over ? (overFacts.answer?.durationMs ?? 0) : 0,
  );
  const [from, to] = range ?? [0, end];
  const drawable = reader !== null && width > 0 && to > from;
  const columns = useAnswer(
    drawable ? () => reader.call.columns(run.id, from, to, width) : null,
    `${run.id} ${from} ${to} ${width}`,
  );
  const overColumns = useAnswer(
    drawable && over ? () => reader.call.columns(over.id, from, to, width) : null,
    `${over?.id} ${from} ${to} ${width}`,
  );
  const figures = useAnswer(
    reader && selection && (() => reader.call.figures(run.id, ...selection, run.yardstick, rules)),
    `${run.id} ${selection}`,
  );
  const overFigures = useAnswer(
    reader && selection && over && (() => reader.call.figures(over.id, ...selection, over.yardstick, rules)),
    `${over?.id} ${selection}`,
  );
  return {
    facts: facts.answer ?? first?.facts ?? null,
    columns: columns.answer ?? (range === null ? (first?.columns ?? null) : null),
    figures: figures.answer,
    overFacts: overFacts.answer,
    overColumns: overColumns.answer,
    overFigures: overFigures.answer,
    problem: facts.problem ?? overFacts.problem,
  };
}
