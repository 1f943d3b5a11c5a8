"use client";
import { useEffect, useRef, useState } from "react";
import type { ThreadRun } from "@/contract";
import type { ReadOptions } from "@/core/trace";
import type { HouseRules } from "@/core/verdict";
import { Button, FileInput, Sheet, toast } from "@/ui";
import { callback, startLogImport, type ReadOutcome } from "@/workers";
import { Preview } from "./Preview";
import { Refused } from "./Refused";
import { fetchFile } from "./sendFile";

/**
 * A kept run's columns and units, read again from its log as it was kept; where the log wasn't, its file is asked for.
 * What was said about the run stays.
 */
export function RereadSheet({
  run,
  rules,
  open,
  onOpenChange,
  onRead,
}: {
  run: ThreadRun;
  rules: HouseRules;
  open: boolean;
  onOpenChange: (open: boolean) => void;
  /** @param id of the run as it was read now */
  onRead: (id: string) => void;
}) {
  const worker = useRef<ReturnType<typeof startLogImport> | null>(null);
  const input = useRef<HTMLInputElement>(null);
  const [file, setFile] = useState<File | null | "asked">("asked");
  const [options, setOptions] = useState<ReadOptions>({});
  const [read, setRead] = useState<ReadOutcome | null>(null);
  const [busy, setBusy] = useState(false);
  useEffect(() => {
    if (!open) return;
    let current = true;
    void fetchFile(run.id, run.fileName ?? "log").then((found) => current && setFile(found));
    return () => {
      current = false;
    };
  }, [open, run.id, run.fileName]);
  useEffect(() => {
    if (!(file instanceof File)) return;
    let current = true;
    const started = startLogImport();
    worker.current = started;
    setRead(null);
    void started.call
      .read(
        file,
        options,
        run.yardstick,
        rules,
        callback(() => {}),
      )
      .then((outcome) => current && setRead(outcome));
    return () => {
      current = false;
      started.end();
    };
  }, [file, options, run.yardstick, rules]);
  const correct = (map: NonNullable<ReadOptions["map"]>) =>
    setOptions((before) => ({ ...before, map: { ...before.map, ...map } }));
  const keep = async () => {
    if (!read?.ok || !worker.current) return;
    setBusy(true);
    const { jobId, source, label, fileName, conditions, settings, cacheState, crashed, preflight, notes } = run;
    const outcome = await worker.current.call.keep(
      {
        jobId,
        source,
        label,
        fileName,
        conditions,
        settings,
        cacheState,
        crashed,
        preflight,
        notes,
        skippedRows: read.preview.reading.skippedRows,
      },
      `/api/v1/runs/${run.id}/reading`,
    );
    setBusy(false);
    if (!outcome.ok) return void toast.error(outcome.title, { description: outcome.fix });
    toast(`Run ${run.number} is read again, and judged by what it holds now.`, {
      description: "Ctrl+Z brings the reading before back.",
    });
    onOpenChange(false);
    onRead(outcome.id);
  };
  return (
    <Sheet open={open} onOpenChange={onOpenChange} title={`Run ${run.number}: its columns again`}>
      {file === "asked" && <p className="text-soft">Fetching the log …</p>}
      {file === null && (
        <div className="grid gap-3">
          <p>
            The log of this run wasn&apos;t kept as it was read. Choose its file again
            {run.fileName ? `: ${run.fileName}` : ""}.
          </p>
          <Button className="justify-self-start" onClick={() => input.current?.click()}>
            Choose the file
          </Button>
          <FileInput ref={input} label="Log of this run" onFile={setFile} />
        </div>
      )}
      {file instanceof File && read === null && <p className="text-soft">Reading {file.name} …</p>}
      {file instanceof File && read?.ok === false && (
        <Refused
          problem={read.problem}
          name={file.name}
          onAgain={(changed) => setOptions((before) => ({ ...before, ...changed }))}
          onCorrect={correct}
          onAway={() => onOpenChange(false)}
        />
      )}
      {file instanceof File && read?.ok && (
        <Preview name={file.name} preview={read.preview} onCorrect={correct}>
          <Button look="lit" disabled={busy} onClick={() => void keep()}>
            {busy ? "Keeping …" : "Keep this reading"}
          </Button>
        </Preview>
      )}
    </Sheet>
  );
}
