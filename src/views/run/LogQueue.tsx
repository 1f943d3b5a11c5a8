"use client";
import { rememberColumns } from "./columnsChosen";
import { clsx } from "clsx";
import dynamic from "next/dynamic";
import { FileUp, FolderSync } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import type { Yardstick } from "@/core/metrics";
import type { ReadOptions } from "@/core/trace";
import { armDoubts, assignArms } from "@/core/trial";
import type { HouseRules } from "@/core/verdict";
import { Button, Keys, say } from "@/ui";
import { useCarried, useCarry, useChooseFiles, useDrops } from "@/views/drop";
import { twiceOver, useLogQueue, type QueuedLog } from "./useLogQueue";
import { useWatchedFolder } from "./useWatchedFolder";

/** Each is loaded once there is a log for it. */
const ArmTools = dynamic(async () => (await import("./ArmTools")).ArmTools);
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

/** How the arms of several logs were found. */
const byWords = {
  names: "Each file’s name tells its arm",
  contents: "Each file says which settings it was made with",
  plan: "By the plan’s running order and when the files were written",
} as const;

const isVideo = ({ name, type }: File) => type.startsWith("video/") || /\.(mp4|webm|mov|mkv)$/i.test(name);

/**
 * Drop or choose logs; each is read in a worker and shown with what its columns were taken for; all are kept by
 * one key.
 */
export function LogQueue({
  place,
  yardstick,
  rules,
  arms = null,
  begin,
  onKept,
  elsewhere = null,
  onVideo,
}: {
  /** Whose logs they are; what was chosen comes back there. */
  place: string;
  yardstick: Yardstick;
  rules: HouseRules;
  /** Of the trial they are for: its arms, those still to run in their order. */
  arms?: { names: string[]; signs?: string[][]; left: number[] } | null;
  /** Asked once before they are kept; null where something is still missing. */
  begin: () => Promise<RunOfLog | null>;
  onKept: (runs: { id: string; number: number }[]) => void;
  /** Another page that they may belong to. */
  elsewhere?: { label: string; path: string } | null;
  /** Where a video goes that was dropped among logs. */
  onVideo?: (video: File) => void;
}) {
  const { logs, lost, sending, forget, add, remove, move, readAgain, insist, keep, stop } = useLogQueue(
    place,
    yardstick,
    rules,
  );
  const stopped = useRef(false);
  const carried = useCarried();
  const carry = useCarry();
  const choose = useChooseFiles();
  const [chosen, setChosen] = useState<string | null>(null);
  const [set, setArms] = useState<ReadonlyMap<string, number>>(new Map());
  const [keeping, setKeeping] = useState(false);
  const [further, setFurther] = useState(false);
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
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
      counted.map(({ file, says }) => ({ name: file.name, says })),
      arms.names.map((name, at) => ({ name, signs: arms.signs?.[at] })),
      arms.left,
      further,
    );
  /** A log's arm; null for one past the plan, until somebody says. */
  const armOf = (id: string): number | null =>
    set.get(id) ?? assigned?.arms[counted.findIndex((log) => log.id === id)] ?? null;
  const placed = arms && logs.length > 1 ? counted.map(({ id }) => armOf(id)) : [];
  const beyond = placed.filter((arm) => arm === null).length;
  const doubts = armDoubts(
    placed,
    counted.map(({ state }) => (state.step === "read" ? state.preview.averageFps : null)),
  );
  const log = logs.find(({ id }) => id === chosen) ?? logs[0] ?? null;
  const ready = counted.filter(({ state }) => state.step === "read");
  const busy = logs.some(({ state }) => state.step === "waiting" || state.step === "reading");
  const keepable = ready.length > 0 && !busy && !keeping && beyond === 0;

  const keepAll = async () => {
    if (!keepable) return;
    setKeeping(true);
    stopped.current = false;
    const runOf = await begin();
    const kept: { id: string; number: number }[] = [];
    for (const { id, file, state, again } of runOf ? ready : []) {
      if (state.step !== "read" || !runOf || stopped.current) continue;
      const { reading, hash } = state.preview;
      const outcome = await keep(
        id,
        runOf(
          { fileName: file.name, fileHash: hash, skippedRows: reading.skippedRows, again },
          arms && (armOf(id) ?? arms.left[0] ?? 0),
        ),
      );
      if (!outcome.ok) continue;
      void import("./sendFile").then(({ sendFile }) => sendFile(file, outcome.id));
      kept.push(outcome);
      if (ready.length > 1 || logs.length > 1) remove(id);
    }
    setKeeping(false);
    // What wasn't kept stays here with its reason.
    if (kept.length === 0 || kept.length < counted.length) return;
    await forget();
    onKept(kept);
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
                        run: () => log && putArm(log.id, ((armOf(log.id) ?? -1) + 1) % arms.names.length),
                      },
                    ]
                  : []),
              ]
            : []),
        ]}
      />
      {lost.length > 0 && logs.length === 0 && (
        <p className="text-[13px] text-soft">
          Chosen before, and too large to be held: {lost.join(", ")}. Choose {lost.length === 1 ? "it" : "them"}{" "}
          again.
        </p>
      )}
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
            arms={arms && { names: arms.names, of: armOf, ticked, onTick: setTicked }}
            twice={twice}
            selected={log?.id ?? null}
            onSelect={setChosen}
            onArm={putArm}
            onMove={move}
            onRemove={remove}
          />
          {assigned && arms && (
            <>
              <p className="text-[13px] text-soft">{byWords[assigned.by]}; drag, or choose, to change it.</p>
              {arms.names.length > 1 && (
                <ArmTools
                  names={arms.names}
                  items={counted.map(({ id }) => ({ id, arm: armOf(id) }))}
                  ticked={ticked}
                  byName={assigned.by === "names" ? assigned.arms : null}
                  onSet={(now) => setArms((before) => new Map([...before, ...now]))}
                />
              )}
            </>
          )}
          {beyond > 0 && arms && (
            <div
              role="alert"
              className="flex flex-wrap items-center gap-3 rounded-md border border-caution p-3 text-[13px]"
            >
              <p className="min-w-0 flex-1">
                The plan has {say.count(arms.left.length, "run")} left, and these are {counted.length}:{" "}
                {say.count(beyond, "log")} without a place. Give {beyond === 1 ? "it" : "them"} an arm, put{" "}
                {beyond === 1 ? "it" : "them"} away, or lay {beyond === 1 ? "it" : "them"} out as further
                rounds.
              </p>
              <Button onClick={() => setFurther(true)}>Lay out as further rounds</Button>
            </div>
          )}
          {doubts.length > 0 && arms && (
            <div role="alert" className="rounded-md border border-caution p-3 text-[13px]">
              {doubts.map(({ at, like }) => (
                <p key={at}>
                  {counted[at]?.file.name} reads like {arms.names[like]}, not like the others of{" "}
                  {arms.names[placed[at] ?? 0]}.
                </p>
              ))}
              <Button
                className="mt-2"
                onClick={() =>
                  setArms(
                    (before) =>
                      new Map([
                        ...before,
                        ...doubts.flatMap(({ at, like }) => {
                          const id = counted[at]?.id;
                          return id === undefined ? [] : [[id, like] as const];
                        }),
                      ]),
                  )
                }
              >
                Give {doubts.length === 1 ? "it that arm" : "them those arms"}
              </Button>
            </div>
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
          {keeping && (
            <Sending
              sending={sending}
              name={logs.find(({ id }) => id === sending?.id)?.file.name ?? ""}
              onStop={() => {
                stopped.current = true;
                if (sending) stop(sending.id);
              }}
            />
          )}
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
            <p className="text-[13px] text-soft">
              Kept as a run of {arms.names[armOf(log.id) ?? arms.left[0] ?? 0]}.
            </p>
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

/** A run on its way to be kept: what has gone whole can't be called back. */
function Sending({
  sending,
  name,
  onStop,
}: {
  sending: { id: string; share: number } | null;
  name: string;
  onStop: () => void;
}) {
  const share = sending?.share ?? 0;
  return (
    <div role="status" className="flex items-center gap-4">
      <progress value={share} max={1} aria-label="Keeping" className="h-2 flex-1 accent-(--lit)" />
      <span className="text-[13px]">
        {name} {share < 1 ? `${(100 * share).toFixed(0)} %` : "is being measured"}
      </span>
      <Button onClick={onStop} disabled={share >= 1}>
        Stop
      </Button>
    </div>
  );
}

/** The chosen log, as far as it has come. */
function Shown({
  log: { file, options, state, header, remembered },
  onAgain,
  onAway,
  children,
}: {
  log: QueuedLog;
  onAgain: (options: ReadOptions) => void;
  onAway: () => void;
  children: React.ReactNode;
}) {
  const correct = (map: NonNullable<ReadOptions["map"]>) => {
    const all = { ...options.map, ...map };
    rememberColumns(header, all);
    onAgain({ ...options, map: all });
  };
  if (state.step === "read")
    return (
      <Preview name={file.name} preview={state.preview} onCorrect={correct}>
        {remembered && (
          <p className="flex flex-wrap items-center gap-2 text-[13px] text-soft">
            Columns as you chose them for the last file of this shape.
            <Button
              look="quiet"
              onClick={() => {
                rememberColumns(header, null);
                onAgain({ ...options, map: undefined });
              }}
            >
              Find them anew
            </Button>
          </p>
        )}
        {children}
      </Preview>
    );
  if (state.step === "refused")
    return (
      <Refused
        problem={state.problem}
        name={file.name}
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
