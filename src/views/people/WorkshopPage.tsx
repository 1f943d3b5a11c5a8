"use client";
import type { ReactNode } from "react";
import type { WorkshopView } from "@/core/records";
import type { EndpointName } from "@/contract";
import { endpoints } from "@/contract/endpoints";
import { workshopWords } from "@/core/words";
import { Panel, TableFrame, When, say } from "@/ui";

const megabytes = (bytes: number) => `${(bytes / 1024 / 1024).toFixed(bytes < 10_485_760 ? 1 : 0)} MB`;

/** How the application itself fares, in words and figures. */
export function WorkshopPage({ view }: { view: WorkshopView }) {
  const words = workshopWords(view);
  return (
    <div className="grid grid-cols-1 gap-4 lg:grid-cols-2">
      <Panel title="In words" className="lg:col-span-2">
        <ul className="grid gap-1">
          {words.map((sentence) => (
            <li key={sentence}>{sentence}</li>
          ))}
        </ul>
        <p className="mt-2 text-[13px] text-soft">
          Version {view.version}, started <When at={view.startedAt} as="ago" />. Last backup from this folder:{" "}
          {view.lastBackupAt ? <When at={view.lastBackupAt} /> : "none is noted"}. The same figures for a
          program are at /api/v1/metrics.
        </p>
      </Panel>
      <Panel
        title={`The store: ${megabytes(view.totalBytes)}`}
        aside={<span className="text-[12px] text-soft">rows of large tables are an estimate</span>}
      >
        <Figures
          label="Tables by size"
          heads={["Table", "Rows", "With indexes"]}
          rows={view.sizes.map(({ name, rows, bytes }) => [
            name,
            Math.round(rows).toLocaleString("en-GB"),
            megabytes(bytes),
          ])}
        />
      </Panel>
      <Panel title="Endpoints by their mean time, this process">
        {view.slow.length === 0 ? (
          <p className="text-soft">No endpoint was called yet.</p>
        ) : (
          <Figures
            label="Endpoints by their mean time"
            heads={["Endpoint", "Asked", "Mean", "Over 1 s"]}
            rows={view.slow.map(({ endpoint, asked, meanMs, over }) => [
              endpoint in endpoints
                ? `${endpoints[endpoint as EndpointName].method} ${endpoints[endpoint as EndpointName].path}`
                : "no such endpoint",
              asked,
              `${meanMs.toLocaleString("en-GB", { maximumFractionDigits: meanMs < 10 ? 1 : 0 })} ms`,
              over,
            ])}
          />
        )}
      </Panel>
      <Panel title="Statements that took half a second or more, this process" className="lg:col-span-2">
        {view.statements.length === 0 ? (
          <p className="text-soft">None did.</p>
        ) : (
          <Figures
            label="Slow statements"
            heads={["What was asked of the store", "Times", "Longest"]}
            rows={view.statements.map(({ statement, times, mostMs }) => [
              <code key={statement} className="text-[12px] break-all">
                {statement}
              </code>,
              times,
              `${mostMs.toLocaleString("en-GB", { maximumFractionDigits: 0 })} ms`,
            ])}
          />
        )}
      </Panel>
      <Panel title="Work in the background" className="lg:col-span-2">
        {view.waiting.length === 0 ? (
          <p className="text-soft">None was asked for yet.</p>
        ) : (
          <Figures
            label="Work in the background"
            heads={["Work", "Waiting", "Being done", "Failed for good"]}
            rows={view.waiting.map(({ name, waiting, active, failed }) => [name, waiting, active, failed])}
          />
        )}
        {view.outdatedRuns > 0 && (
          <p className="mt-2">
            {say.count(view.outdatedRuns, "run")} of an older method wait to be measured anew.
          </p>
        )}
      </Panel>
    </div>
  );
}

function Figures({ label, heads, rows }: { label: string; heads: string[]; rows: ReactNode[][] }) {
  return (
    <TableFrame name={label}>
      <table className="w-full text-[13px]">
        <thead>
          <tr>
            {heads.map((head, at) => (
              <th
                key={head}
                scope="col"
                className={`px-2 py-1 font-normal text-soft ${at === 0 ? "text-left" : "text-right"}`}
              >
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((cells, row) => (
            <tr key={`${row + 1} of ${label}`} className="border-t border-line">
              {cells.map((cell, at) => (
                <td key={heads[at]} className={at === 0 ? "px-2 py-1" : "figure px-2 py-1 text-right"}>
                  {cell}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </TableFrame>
  );
}
