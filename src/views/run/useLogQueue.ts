"use client";
import { startTransition, useEffect, useRef, useState } from "react";
import type { Yardstick } from "@/core/metrics";
import { problem, type LogProblem, type ReadOptions } from "@/core/trace";
import { inRunningOrder } from "@/core/trial";
import type { HouseRules } from "@/core/verdict";
import { said } from "@/core/words";
import { heldFiles, holdFiles } from "@/views/drop";
import { columnsFor } from "./columnsChosen";
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
  /** Lines of comment before its rows. */
  says: string;
  /** Its first line that is no comment: the shape of the file. */
  header: string;
  /** Its columns were chosen by hand for another file of this shape. */
  remembered: boolean;
}

/** Read at once; a log of a million rows keeps a core busy. */
const mostReading = 2;

/**
 * Logs that are read in workers, in running order, until they are kept or put away; cancelling ends the worker.
 * @param place whose logs they are: they come back there after a reload
 */
export function useLogQueue(place: string, yardstick: Yardstick, rules: HouseRules) {
  const [logs, setLogs] = useState<QueuedLog[]>([]);
  /** The log that is on its way to be kept, and how much of it has gone. */
  const [sending, setSending] = useState<{ id: string; share: number } | null>(null);
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
  // What was chosen outlives a reload: it is held from the first change on, and comes back once.
  const [lost, setLost] = useState<string[]>([]);
  const [came, setCame] = useState(false);
  const kept = useRef(false);
  /** Nothing comes back here: what was chosen is kept as runs. */
  const forget = async () => {
    kept.current = true;
    await holdFiles(place, []);
  };
  useEffect(() => {
    let current = true;
    void heldFiles(place).then(({ files, named }) => {
      if (!current) return;
      if (files.length > 0) latestAdd.current(files);
      setLost(named);
      setCame(true);
    });
    return () => {
      current = false;
    };
  }, [place]);
  useEffect(() => {
    if (came && !kept.current)
      void holdFiles(
        place,
        logs.map(({ file }) => file),
      );
  }, [came, place, logs]);
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

  const add = (files: File[]) => {
    // What a file says before its rows tells its arm and its shape; it is read first, in no time.
    void Promise.all(inRunningOrder(files).map(async (file) => ({ file, ...(await headOf(file)) }))).then(
      (heads) =>
        setLogs((before) => [
          ...before,
          ...heads.map(({ file, says, header }) => {
            const map = optionsOf.get(file)?.map ?? columnsFor(header);
            return {
              id: String(++counted.current),
              file,
              options: optionsOf.get(file) ?? (map ? { map } : {}),
              state: { step: "waiting" } as const,
              refusal: null,
              again: false,
              says,
              header,
              remembered: map !== null && map !== undefined,
            };
          }),
        ]),
    );
  };
  const latestAdd = useRef(add);
  const remove = (id: string) => {
    end(id);
    setLogs((before) => before.filter((log) => log.id !== id));
  };
  const readAgain = (id: string, options: ReadOptions) => {
    const log = logs.find((each) => each.id === id);
    if (log) optionsOf.set(log.file, options);
    change(id, { options, refusal: null, remembered: false, state: { step: "waiting" } });
  };
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
      ? await worker.call.keep(
          run,
          undefined,
          callback((share: number) => setSending({ id, share })),
        )
      : { ok: false, title: "This log hasn't been read.", fix: "Choose it again." };
    setSending(null);
    if (!outcome.ok) change(id, { refusal: outcome });
    return outcome;
  };
  const stop = (id: string) => void workers.current.get(id)?.call.stop();
  const insist = (id: string) => change(id, { again: true, refusal: null });
  return { logs, lost, sending, forget, add, remove, move, readAgain, insist, keep, stop };
}

/** Bytes that hold a file's comments and its header, at most. */
const headBytes = 4096;
/** A header longer than this isn't one. */
const longestHeader = 2000;

/** Corrections of a file that goes to another page with it. */
const optionsOf = new WeakMap<File, ReadOptions>();

/** Lines of comment that a log begins with, and the first line after them where it names columns. */
async function headOf(file: File): Promise<{ says: string; header: string }> {
  const text = await file
    .slice(0, headBytes)
    .text()
    .catch(() => "");
  const lines = text.split(/\r?\n/).map((line) => line.trim());
  const isComment = (line: string) => /^(#|;|\/\/)/.test(line);
  const header = lines.find((line) => line !== "" && !isComment(line)) ?? "";
  return {
    says: lines.filter(isComment).join("\n"),
    header: /\p{L}/u.test(header) && header.length <= longestHeader ? header : "",
  };
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
