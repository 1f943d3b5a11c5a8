"use client";
import { Download } from "lucide-react";
import { useRef, type ReactNode } from "react";
import { tableText } from "./csv";
import { useCellNames } from "./useCellNames";
import { downloadCsv } from "./downloadCsv";

/** Round a table: it scrolls in its own column, and is saved as CSV as it stands. `cards`: on a phone each row is a card. */
export function TableFrame({
  name,
  cards = false,
  children,
}: {
  name: string;
  cards?: boolean;
  children: ReactNode;
}) {
  const frame = useRef<HTMLDivElement>(null);
  useCellNames(frame, cards);
  const save = () => {
    const table = frame.current?.querySelector("table");
    if (!table) return;
    const { columns, rows } = tableText(table);
    void downloadCsv(name, columns, rows);
  };
  return (
    <div>
      <div
        ref={frame}
        tabIndex={0}
        role="region"
        aria-label={name}
        data-cards={cards || undefined}
        className="relative overflow-x-auto"
      >
        {children}
      </div>
      <div className="flex justify-end">
        <button
          type="button"
          onClick={save}
          aria-label={`Save ${name} as CSV`}
          className="inline-flex min-h-6 items-center gap-1 rounded px-1.5 text-[11px] text-soft hover:bg-raised hover:text-text"
        >
          <Download size={12} aria-hidden /> CSV
        </button>
      </div>
    </div>
  );
}
