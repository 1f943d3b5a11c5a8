"use client";
import { clsx } from "clsx";
import dynamic from "next/dynamic";
import { FileUp, FolderSync } from "lucide-react";
import { useEffect, useState } from "react";
import type { Yardstick } from "@/core/metrics";
import type { ReadOptions } from "@/core/trace";
import { assignArms } from "@/core/trial";
import type { HouseRules } from "@/core/verdict";
import { Button, Keys, say } from "@/ui";
import { useCarried, useCarry, useChooseFiles, useDrops } from "@/views/drop";
import { twiceOver, useLogQueue, type QueuedLog } from "./useLogQueue";
import { useWatchedFolder } from "./useWatchedFolder";

const Preview = dynamic(async () => (await import("./Preview")).Preview);
const QueueList = dynamic(async () => (await import("./QueueList")).QueueList);
const Refused = dynamic(async () => (await import("./Refused")).Refused);

/** What is said of a log beside its trace. */
export interface LogParticulars {
  fileName: string;
  fileHash: string;
  skippedRows: number;
  again: boolean;
}
/** Makes a log's run of what is said of it, and the arm it was made for. */
export type RunOfLog = (log: LogParticulars, arm: number | null) => unknown;

const isVideo = ({ name, type }: File) => type.startsWith("video/") || /\.(mp4|webm|mov|mkv)$/i.test(name);

/**
 * Drop or choose logs; each is read in a worker and shown with what its columns were taken for; all are kept by
 * one key.
 */
export function LogQueue({
  yardstick,
  rules,
  arms = null,
  begin,
  onKept,
  elsewhere = null,
  onVideo,
}: {
  yardstick: Yardstick;
  rules: HouseRules;
  /** Of the trial they are for: its arms, those still to run in their order. */
  arms?: { names: string[]; left: number[] } | null;
  /** Asked once before they are kept; null where something is still missing. */
  begin: () => Promise<RunOfLog | null>;
  onKept: (runs: { id: string; number: number }[]) => void;
  /** Another page that they may belong to. */
  elsewhere?: { label: string; path: string } | null;
  /** Where a video goes that was dropped among logs. */
  onVideo?: (video: File) => void;
}) {
  const { logs, add, remove, move, readAgain, insist, keep } = useLogQueue(yardstick, rules);
  const carried = useCarried();
  const carry = useCarry();
  const choose = useChooseFiles();
  const [chosen, setChosen] = useState<string | null>(null);
  const [set, setArms] = useState<ReadonlyMap<string, number>>(new Map());
  const [keeping, setKeeping] = useState(false);
  const take = (files: File[]) => {
    const video = onVideo && files.find(isVideo);
    if (video) onVideo(video);
    const logs = onVideo ? files.filter((file) => !isVideo(file)) : files;
    if (logs.length > 0) add(logs);
  };
  useDrops(take);
  useEffect(() => {
    const files = carried();
    if (files.length > 0) take(files);
    // Files that were dropped on the page before are taken once.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);
  const folder = useWatchedFolder(add);

  const twice = twiceOver(logs);
  const counted = logs.filter(({ id, again }) => again || !twice.has(id));
  const assigned =
    arms &&
    assignArms(
      counted.map(({ file }) => file.name),
      arms.names,
      arms.left,
    );
  const armOf = (id: string) =>
    set.get(id) ?? assigned?.arms[counted.findIndex((log) => log.id === id)] ?? arms?.left[0] ?? 0;
  const log = logs.find(({ id }) => id === chosen) ?? logs[0] ?? null;
  const ready = counted.filter(({ state }) => state.step === "read");
  const busy = logs.some(({ state }) => state.step === "waiting" || state.step === "reading");
  const keepable = ready.length > 0 && !busy && !keeping;

  const keepAll = async () => {
    if (!keepable) return;
    setKeeping(true);
    const runOf = await begin();
    const kept: { id: string; number: number }[] = [];
    for (const { id, file, state, again } of runOf ? ready : []) {
      if (state.step !== "read" || !runOf) continue;
      const { reading, hash } = state.preview;
      const outcome = await keep(
        id,
        runOf(
          { fileName: file.name, fileHash: hash, skippedRows: reading.skippedRows, again },
          arms && armOf(id),
        ),
      );
      if (!outcome.ok) continue;
      kept.push(outcome);
      if (ready.length > 1 || logs.length > 1) remove(id);
    }
    setKeeping(false);
    // What wasn't kept stays here with its reason.
    if (kept.length > 0 && kept.length === counted.length) onKept(kept);
  };
  const select = (by: number) => setChosen(logs[log ? logs.indexOf(log) + by : 0]?.id ?? log?.id ?? null);
  const putArm = (id: string, arm: number) => setArms((before) => new Map(before).set(id, arm));

  return (
    <div className="grid gap-4">
      <div className="flex flex-wrap items-stretch gap-2">
        <button
          type="button"
          onClick={choose}
          className={clsx(
            "flex-1 rounded-(--radius-panel) border border-dashed border-edge text-center hover:bg-panel",
            logs.length === 0 ? "p-6" : "p-2",
          )}
        >
          {logs.length === 0 ? (
            <>
              <FileUp className="mx-auto text-soft" size={26} aria-hidden />
              <span className="mt-1.5 block">Drop logs here, one or many</span>
              <span className="block text-[13px] text-soft">
                Any delimiter; frame times, a clock, or a counter&apos;s readings, with or without telemetry.
              </span>
            </>
          ) : (
            <span className="text-[13px] text-soft">Drop more logs, or choose</span>
          )}
        </button>
        {folder.offered && (
          <button
            type="button"
            onClick={() => void (folder.name === null ? folder.watch() : folder.stop())}
            aria-pressed={folder.name !== null}
            className="flex w-44 flex-wrap items-center justify-center gap-x-2 rounded-(--radius-panel) border border-dashed border-edge p-2 text-center text-[13px] text-soft hover:bg-panel"
          >
            <FolderSync size={18} aria-hidden />
            {folder.name === null ? "Watch a folder for new logs" : `Watching “${folder.name}”: stop`}
          </button>
        )}
      </div>
      <Keys
        actions={[
          { keys: "l", shown: "L", label: "choose logs", run: choose },
          ...(keepable
            ? [
                {
                  keys: "mod&enter",
                  shown: "Ctrl Enter",
                  label: ready.length > 1 ? "keep all the runs" : "keep the run",
                  run: () => void keepAll(),
                },
              ]
            : []),
          ...(logs.length > 1
            ? [
                { keys: "up", shown: "↑", label: "log before", run: () => select(-1) },
                { keys: "down", shown: "↓", label: "log after", run: () => select(1) },
                {
                  keys: "alt&up",
                  shown: "Alt ↑",
                  label: "move the log up",
                  run: () => log && move(log.id, logs.indexOf(log) - 1),
                },
                {
                  keys: "alt&down",
                  shown: "Alt ↓",
                  label: "move the log down",
                  run: () => log && move(log.id, logs.indexOf(log) + 1),
                },
                ...(arms
                  ? [
                      {
                        keys: "s",
                        shown: "S",
                        label: "the log is of the next arm",
                        run: () => log && putArm(log.id, (armOf(log.id) + 1) % arms.names.length),
                      },
                    ]
                  : []),
              ]
            : []),
        ]}
      />
      {elsewhere && logs.length > 0 && (
        <Button
          className="justify-self-start"
          onClick={() =>
            carry(
              logs.map(({ file }) => file),
              elsewhere.path,
            )
          }
        >
          {elsewhere.label}
        </Button>
      )}
      {logs.length > 1 && (
        <>
          <QueueList
            logs={logs}
            arms={arms && { names: arms.names, of: armOf }}
            twice={twice}
            selected={log?.id ?? null}
            onSelect={setChosen}
            onArm={putArm}
            onMove={move}
            onRemove={remove}
          />
          {assigned && (
            <p className="text-[13px] text-soft">
              {assigned.by === "names"
                ? "Each file’s name holds its arm’s; drag, or choose, to change it."
                : "By the plan’s running order and when the files were written; drag, or choose, to change it."}
            </p>
          )}
          <div className="flex flex-wrap items-center gap-3">
            <Button look="lit" hint="Ctrl Enter" disabled={!keepable} onClick={() => void keepAll()}>
              {keeping
                ? "Keeping …"
                : `Keep ${ready.length === logs.length ? "all " : ""}${say.count(ready.length, "run")}`}
            </Button>
            {log && twice.has(log.id) && !log.again && (
              <Button onClick={() => insist(log.id)}>Keep the copy too</Button>
            )}
          </div>
        </>
      )}
      {log && (
        <Shown log={log} onAgain={(options) => readAgain(log.id, options)} onAway={() => remove(log.id)}>
          {log.refusal && (
            <div
              role="alert"
              className="flex flex-wrap items-center gap-3 rounded-md border border-caution p-3"
            >
              <p>
                <b>{log.refusal.title}</b> {log.refusal.fix}
              </p>
              {log.refusal.keptAs !== undefined && (
                <Button onClick={() => insist(log.id)}>It is meant: keep it again</Button>
              )}
            </div>
          )}
          {arms && arms.names.length > 1 && logs.length === 1 && (
            <p className="text-[13px] text-soft">Kept as a run of {arms.names[armOf(log.id)]}.</p>
          )}
          <div className="flex gap-3">
            {logs.length === 1 && (
              <Button look="lit" hint="Ctrl Enter" disabled={!keepable} onClick={() => void keepAll()}>
                {keeping ? "Keeping …" : "Keep this run"}
              </Button>
            )}
            <Button look="quiet" onClick={() => remove(log.id)}>
              Put it away
            </Button>
          </div>
        </Shown>
      )}
    </div>
  );
}

/** The chosen log, as far as it has come. */
function Shown({
  log: { file, options, state },
  onAgain,
  onAway,
  children,
}: {
  log: QueuedLog;
  onAgain: (options: ReadOptions) => void;
  onAway: () => void;
  children: React.ReactNode;
}) {
  const correct = (map: NonNullable<ReadOptions["map"]>) =>
    onAgain({ ...options, map: { ...options.map, ...map } });
  if (state.step === "read")
    return (
      <Preview name={file.name} preview={state.preview} onCorrect={correct}>
        {children}
      </Preview>
    );
  if (state.step === "refused")
    return (
      <Refused
        problem={state.problem}
        onAgain={(changed) => onAgain({ ...options, ...changed })}
        onCorrect={correct}
        onAway={onAway}
      />
    );
  const share = state.step === "reading" ? state.share : 0;
  return (
    <div role="status" className="flex items-center gap-4">
      <progress value={share} max={1} aria-label="Reading the log" className="h-2 flex-1 accent-(--lit)" />
      <span className="figure text-[13px]">{(100 * share).toFixed(0)} %</span>
      <Button onClick={onAway}>Cancel</Button>
    </div>
  );
}
