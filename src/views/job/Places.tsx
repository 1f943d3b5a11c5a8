"use client";
import { useEffect, useState } from "react";
import type { PlaceRow } from "@/core/job";
import { placesWords } from "@/core/words";
import type { ThreadRun } from "@/contract";
import { call } from "@/contract/client";
import { say, TableFrame, TableHead } from "@/ui";
import { VerdictLamp } from "@/views/verdict/VerdictLamp";

/** A run place by place: how many hold, and on opening each with its rate and light. */
export function Places({ run }: { run: Pick<ThreadRun, "id" | "places" | "version"> }) {
  const [open, setOpen] = useState(false);
  const [rows, setRows] = useState<{ of: string; rows: PlaceRow[] } | null>(null);
  const of = `${run.id} ${run.version}`;
  useEffect(() => {
    if (!open || rows?.of === of) return;
    let current = true;
    void call("viewPlaces", { id: run.id }).then((sent) => {
      if (current && sent.ok) setRows({ of, rows: sent.answer.rows });
    });
    return () => {
      current = false;
    };
  }, [open, of, run.id, rows]);
  if (!run.places) return null;
  return (
    <details
      className="border-t border-line pt-3 text-[13px]"
      onToggle={(event) => setOpen(event.currentTarget.open)}
    >
      <summary className="min-h-7 cursor-pointer">
        <b>{placesWords(run.places)}</b>
      </summary>
      {rows?.of === of && (
        <TableFrame name="Places">
          <table aria-label="Places" className="w-full text-left text-[13px]">
            <TableHead names={["Place", "Light", "Rate", "Worst", "Seen"]} tight />
            <tbody className="divide-y divide-line">
              {rows.rows.map((row) => (
                <tr key={row.label}>
                  <td className="px-2 py-1.5">{row.label}</td>
                  <td className="px-2">
                    <VerdictLamp grade={row.grade} between={row.between} size={14} ran />
                  </td>
                  <td className="figure whitespace-nowrap px-2">
                    {say.number(row.averageFps)} of {say.number(row.targetFps)}
                    {row.interval && (
                      <span className="block text-[12px] text-soft">
                        {say.number(row.interval.low)} to {say.number(row.interval.high)}
                      </span>
                    )}
                  </td>
                  <td className="figure px-2">{say.number(row.worstFps)}</td>
                  <td className="figure whitespace-nowrap px-2 text-soft">
                    {row.readings === null
                      ? say.measure(row.seconds, "s", 0)
                      : say.count(row.readings, "reading")}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </TableFrame>
      )}
    </details>
  );
}
