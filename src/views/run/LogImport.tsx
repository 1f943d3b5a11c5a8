"use client";
import { words } from "@/core/words";
import { FileUp, TriangleAlert } from "lucide-react";
import { useState } from "react";
import { useDropzone } from "react-dropzone";
import type { Yardstick } from "@/core/metrics";
import type { ReadOptions } from "@/core/trace";
import type { HouseRules } from "@/core/verdict";
import { BandChart, Button, Figure, Keys, say, useWidth } from "@/ui";
import type { KeepOutcome, LogPreview } from "@/workers";
import { Reasons } from "@/views/verdict/Reasons";
import { VerdictLamp } from "@/views/verdict/VerdictLamp";
import { ColumnTable } from "./ColumnTable";
import { useLogImport } from "./useLogImport";

/** Drop or choose a log; it is read in a worker, shown with what each column was taken for, and kept when it is right. */
export function LogImport({
  yardstick,
  rules,
  particulars,
  onKept,
}: {
  yardstick: Yardstick;
  rules: HouseRules;
  particulars: (fileName: string, skippedRows: number) => unknown;
  onKept: (run: { id: string; number: number }) => void;
}) {
  const { state, read, cancel, keep } = useLogImport(yardstick, rules);
  const [file, setFile] = useState<File | null>(null);
  const [options, setOptions] = useState<ReadOptions>({});
  const [keeping, setKeeping] = useState(false);
  const [refusal, setRefusal] = useState<Extract<KeepOutcome, { ok: false }> | null>(null);
  const readWith = (chosen: File, chosenOptions: ReadOptions) => {
    setOptions(chosenOptions);
    setRefusal(null);
    void read(chosen, chosenOptions);
  };
  const { getRootProps, getInputProps, isDragActive, open } = useDropzone({
    multiple: false,
    noKeyboard: true,
    onDrop: ([dropped]) => {
      if (!dropped) return;
      setFile(dropped);
      readWith(dropped, {});
    },
  });
  const again = (changed: ReadOptions) => file && readWith(file, { ...options, ...changed });
  const correct = (map: NonNullable<ReadOptions["map"]>) => again({ map: { ...options.map, ...map } });
  const keepIt = async (preview: LogPreview) => {
    if (keeping || !file) return;
    setKeeping(true);
    const outcome = await keep(particulars(file.name, preview.reading.skippedRows));
    setKeeping(false);
    if (outcome.ok) onKept(outcome);
    else setRefusal(outcome);
  };

  return (
    <div className="grid gap-4">
      <div
        {...getRootProps()}
        className={`rounded-(--radius-panel) border border-dashed p-6 text-center ${isDragActive ? "border-lit bg-raised" : "border-edge"}`}
      >
        <input {...getInputProps({ "aria-label": "Log file" })} />
        <FileUp className="mx-auto text-soft" size={26} aria-hidden />
        <p className="mt-2">{file ? <span className="figure">{file.name}</span> : "Drop a frame log here"}</p>
        <p className="text-[13px] text-soft">
          Any delimiter; frame times, a clock, or a counter&apos;s readings, with or without telemetry.
        </p>
      </div>
      <Keys
        actions={[
          { keys: "l", shown: "L", label: "choose a log", run: open },
          ...(state.step === "read"
            ? [
                {
                  keys: "mod&enter",
                  shown: "Ctrl Enter",
                  label: "keep the run",
                  run: () => void keepIt(state.preview),
                },
              ]
            : []),
        ]}
      />
      {state.step === "reading" && (
        <div role="status" className="flex items-center gap-4">
          <progress
            value={state.share}
            max={1}
            aria-label="Reading the log"
            className="h-2 flex-1 accent-(--lit)"
          />
          <span className="figure text-[13px]">{(100 * state.share).toFixed(0)} %</span>
          <Button
            onClick={() => {
              cancel();
              setFile(null);
            }}
          >
            Cancel
          </Button>
        </div>
      )}
      {state.step === "refused" && (
        <div role="alert" className="grid gap-3 rounded-md border border-caution p-4">
          <p className="flex gap-2">
            <TriangleAlert size={18} className="mt-0.5 shrink-0 text-caution" aria-hidden />
            <span>
              <b>{state.problem.message}</b> {state.problem.fix}
            </span>
          </p>
          <div className="flex flex-wrap gap-2">
            {(state.problem.code === "badTimes" || state.problem.code === "backwards") && (
              <Button look="lit" onClick={() => again({ leaveOutBad: true })}>
                Leave {state.problem.count === 1 ? "that row" : `those ${state.problem.count} rows`} out
              </Button>
            )}
            {state.problem.code === "glued" &&
              [
                ...Array.from({ length: Math.min(9, state.problem.count + 1) }, (_, index) => index + 1),
                "all" as const,
              ].map((part) => (
                <Button key={part} onClick={() => again({ part })}>
                  {part === "all" ? "Read all as one" : `Read log ${part}`}
                </Button>
              ))}
            <Button look="quiet" onClick={open}>
              Choose another file
            </Button>
          </div>
          {state.problem.columns.length > 0 && (
            <ColumnTable columns={state.problem.columns} sample={state.problem.sample} onCorrect={correct} />
          )}
        </div>
      )}
      {state.step === "read" && (
        <Preview preview={state.preview} onCorrect={correct}>
          {refusal && (
            <p role="alert" className="rounded-md border border-caution p-3">
              <b>{refusal.title}</b> {refusal.fix}
            </p>
          )}
          <div className="flex gap-3">
            <Button look="lit" hint="Ctrl Enter" disabled={keeping} onClick={() => void keepIt(state.preview)}>
              {keeping ? "Keeping …" : "Keep this run"}
            </Button>
            <Button
              look="quiet"
              onClick={() => {
                cancel();
                setFile(null);
              }}
            >
              Put it away
            </Button>
          </div>
        </Preview>
      )}
    </div>
  );
}

function Preview({
  preview,
  onCorrect,
  children,
}: {
  preview: LogPreview;
  onCorrect: (map: NonNullable<ReadOptions["map"]>) => void;
  children: React.ReactNode;
}) {
  const { reading, verdict, sketch } = preview;
  const [measure, width] = useWidth();
  const most = sketch.high.reduce((top, value) => (value > top ? value : top), 1);
  return (
    <section aria-label="Preview" className="grid gap-4">
      <div className="grid grid-cols-[auto_1fr] items-center gap-6">
        <div>
          <VerdictLamp grade={verdict.grade} size={40} large ran />
        </div>
        <dl className="grid grid-cols-4 gap-3">
          <Figure
            name={preview.form === "frames" ? "Frames" : "Readings"}
            value={reading.rows.toLocaleString("en-GB")}
            unit={`in ${say.clock(preview.durationMs)}`}
          />
          <Figure name="Average" value={say.number(preview.averageFps, 2)} unit="fps" />
          <Figure
            name="Written with"
            value={`${reading.delimiter}${reading.decimalComma ? ", decimal comma" : ""}`}
          />
          <Figure name="Rows left out" value={String(reading.skippedRows)} />
        </dl>
      </div>
      <div ref={measure}>
        {width > 0 && (
          <BandChart
            label="Sketch of the trace"
            width={width}
            height={90}
            range={[0, preview.durationMs]}
            values={[0, most]}
            ticks={2}
            series={[{ name: "A", band: sketch, colour: "var(--series-a)" }]}
            axis
            formatX={(ms) => say.clock(ms)}
          />
        )}
      </div>
      <Reasons verdict={verdict} />
      {verdict.remarks.map((remark) => (
        <p key={remark.code} className="rounded border border-caution p-2 text-[13px]">
          {words(remark)}
        </p>
      ))}
      {(reading.notes.length > 0 || reading.skipped.length > 0) && (
        <ul
          className={`list-disc space-y-1 pl-5 text-[13px] ${reading.needsConfirming ? "text-caution" : "text-soft"}`}
        >
          {reading.notes.map((note) => (
            <li key={note}>{note}</li>
          ))}
          {reading.skipped.slice(0, 5).map(({ line, text }) => (
            <li key={line}>
              Line {line} holds no number where the time should be:{" "}
              <span className="figure">{text.slice(0, 60)}</span>
            </li>
          ))}
          {reading.skippedRows > 5 && <li>{reading.skippedRows} rows were left out in all.</li>}
        </ul>
      )}
      {children}
      <ColumnTable columns={reading.columns} sample={reading.sample} onCorrect={onCorrect} />
    </section>
  );
}
