"use client";
import type { ReactNode } from "react";
import type { ReadOptions } from "@/core/trace";
import { logWords, words } from "@/core/words";
import { BandChart, NamedFigure, say, useWidth } from "@/ui";
import type { LogPreview } from "@/workers";
import { Reasons } from "@/views/verdict/Reasons";
import { VerdictLamp } from "@/views/verdict/VerdictLamp";
import { ColumnTable } from "./ColumnTable";

/**
 * A log as it was read: the light it would earn, its figures, what was left out, and what each column was taken
 * for.
 */
export function Preview({
  name,
  preview,
  onCorrect,
  children,
}: {
  name: string;
  preview: LogPreview;
  onCorrect: (map: NonNullable<ReadOptions["map"]>) => void;
  children: ReactNode;
}) {
  const { reading, verdict, sketch } = preview;
  const [measure, width] = useWidth();
  const most = sketch.high.reduce((top, value) => (value > top ? value : top), 1);
  return (
    <section aria-label="Preview" className="grid gap-4">
      <p className="figure text-[13px] text-soft [overflow-wrap:anywhere]">{name}</p>
      <div className="grid grid-cols-[auto_1fr] items-center gap-6 max-sm:grid-cols-1 max-sm:gap-3">
        <div>
          <VerdictLamp grade={verdict.grade} between={verdict.between} size={40} large ran />
        </div>
        <dl className="grid grid-cols-4 gap-3 max-sm:grid-cols-2">
          <NamedFigure
            name={preview.form === "frames" ? "Frames" : "Readings"}
            value={reading.rows.toLocaleString("en-GB")}
            note={`in ${say.clock(preview.durationMs)}`}
          />
          <NamedFigure name="Average" value={say.number(preview.averageFps, 2)} unit="fps" />
          <NamedFigure
            name="Columns separated by"
            value={`${reading.delimiter}${reading.decimalComma ? ", decimal comma" : ""}`}
          />
          <NamedFigure name="Rows left out" value={String(reading.skippedRows)} />
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
            <li key={logWords(note)}>{logWords(note)}</li>
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
