"use client";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { placesWords } from "@/core/words";
import type { ThreadRun } from "@/contract";
import { call } from "@/contract/client";
import { say, TableFrame, TableHead } from "@/ui";
import { VerdictLamp } from "@/views/verdict/VerdictLamp";

/** A run place by place: how many hold, and on opening each with its rate and light. */
export function Places({ run }: { run: Pick<ThreadRun, "id" | "jobId" | "places"> }) {
  const [open, setOpen] = useState(false);
  const { data: rows } = useQuery({
    queryKey: ["job", run.jobId, "places", run.id],
    enabled: open,
    queryFn: async () => {
      const sent = await call("viewPlaces", { id: run.id });
      return sent.ok ? sent.answer.rows : [];
    },
  });
  if (!run.places) return null;
  return (
    <details
      className="border-t border-line pt-3 text-[13px]"
      onToggle={(event) => setOpen(event.currentTarget.open)}
    >
      <summary className="min-h-7 cursor-pointer">
        <b>{placesWords(run.places)}</b>
      </summary>
      {rows && (
        <TableFrame name="Places">
          <table aria-label="Places" className="w-full text-left text-[13px]">
            <TableHead names={["Place", "Light", "Rate, fps"]} tight />
            <tbody className="divide-y divide-line">
              {rows.map((row) => (
                <tr key={row.label}>
                  <td className="px-2 py-1.5 align-top">{row.label}</td>
                  <td className="px-2 py-1.5 align-top">
                    <VerdictLamp grade={row.grade} between={row.between} size={14} ran />
                    <span className="figure block whitespace-nowrap text-[12px] text-soft">
                      {row.readings === null
                        ? say.measure(row.seconds, "s", 0)
                        : say.count(row.readings, "reading")}
                    </span>
                  </td>
                  <td className="figure whitespace-nowrap px-2 py-1.5 align-top">
                    {say.number(row.averageFps)} of {say.number(row.targetFps)}
                    <span className="block text-[12px] text-soft">
                      {row.interval && (
                        <>
                          {say.number(row.interval.low)} to {say.number(row.interval.high)}
                          <br />
                        </>
                      )}
                      worst {say.number(row.worstFps)}
                    </span>
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
