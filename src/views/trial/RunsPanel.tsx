"use client";
import dynamic from "next/dynamic";
import { useState } from "react";
import type { ThreadRun, TrialView } from "@/contract";
import { standOut } from "@/core/trial";
import { Explained, Panel, linear, say, useWidth } from "@/ui";

/** Loaded when it is unfolded. */
const RunsTable = dynamic(async () => (await import("./RunsTable")).RunsTable, { ssr: false });

const colours = ["var(--series-a)", "var(--series-b)", "var(--series-c)", "var(--series-d)"];
const height = 150,
  left = 44,
  foot = 22;

/** What a run is drawn by: the engine's own speed where every run has it, else its rate. */
const measureOf = (runs: ThreadRun[]) =>
  runs.every(({ summary }) => summary.reportedSpeedPercent !== null)
    ? { unit: "%", of: ({ summary }: ThreadRun) => summary.reportedSpeedPercent ?? 0 }
    : { unit: "fps", of: ({ summary }: ThreadRun) => summary.averageFps };

/** A mark per arm: a second cue beside its colour. */
function Mark({ arm, x, y, out }: { arm: number; x: number; y: number; out: boolean }) {
  const fill = colours[arm % colours.length];
  return (
    <>
      {out && <circle cx={x} cy={y} r={10} fill="none" stroke="var(--caution)" strokeWidth={2} />}
      {arm % 3 === 0 ? (
        <circle cx={x} cy={y} r={5} fill={fill} />
      ) : arm % 3 === 1 ? (
        <rect x={x - 5} y={y - 5} width={10} height={10} fill={fill} />
      ) : (
        <path d={`M${x} ${y - 6}L${x + 6} ${y + 5}L${x - 6} ${y + 5}Z`} fill={fill} />
      )}
    </>
  );
}

/** All runs of a trial in the order they were made, by arm; one that stands out is ringed. Each can be opened, given another arm, or left out. */
export function RunsPanel({ view, onChanged }: { view: TrialView; onChanged: () => void }) {
  const { trial, runs } = view;
  const [ref, width] = useWidth();
  const [unfolded, setUnfolded] = useState(false);
  const { unit, of } = measureOf(runs);
  const ordered = [...runs].sort((a, b) => a.number - b.number);
  const out = standOut(
    ordered.filter(({ crashed }) => !crashed).map((run) => ({ id: run.id, arm: run.arm, rate: of(run) })),
  );
  const values = ordered.map(of);
  const across = linear([0, Math.max(1, ordered.length - 1)], [left + 14, Math.max(left + 20, width - 14)]);
  const up = linear([Math.min(...values), Math.max(...values)], [height - foot - 12, 14]);
  return (
    <Panel title={<Explained by="Runs">Runs in their order</Explained>}>
      <div ref={ref}>
        {width > 0 && (
          <svg
            width={width}
            height={height}
            role="img"
            aria-label={`Runs in their order, ${unit}${out.size > 0 ? `; ${say.count(out.size, "run")} standing out` : ""}`}
          >
            {up.ticks(4).map((tick) => (
              <g key={tick}>
                <line x1={left} x2={width} y1={up(tick)} y2={up(tick)} stroke="var(--line)" />
                <text x={left - 6} y={up(tick) + 4} textAnchor="end" className="figure fill-soft text-[11px]">
                  {tick}
                </text>
              </g>
            ))}
            <text x={0} y={10} className="fill-soft text-[11px]">
              {unit}
            </text>
            {ordered.map((run, at) => (
              <g key={run.id}>
                <Mark arm={run.arm ?? 0} x={across(at)} y={up(of(run))} out={out.has(run.id)} />
                <text
                  x={across(at)}
                  y={height - 6}
                  textAnchor="middle"
                  className="figure fill-soft text-[11px]"
                >
                  {run.number}
                </text>
              </g>
            ))}
          </svg>
        )}
      </div>
      <ul className="mt-1 flex flex-wrap gap-x-4 text-[12px] text-soft" aria-label="Arms by their marks">
        {trial.arms.map(({ name }, arm) => (
          <li key={name} className="flex items-center gap-1.5">
            <svg width={14} height={14} aria-hidden>
              <Mark arm={arm} x={7} y={7} out={false} />
            </svg>
            {name}
          </li>
        ))}
        {out.size > 0 && <li>ringed: stands out from its arm</li>}
      </ul>
      <details className="mt-2" onToggle={(event) => setUnfolded(event.currentTarget.open)}>
        <summary className="min-h-7 cursor-pointer text-[13px] text-soft">
          {say.count(runs.length, "run")}: open, change the arm, leave out
        </summary>
        {unfolded && (
          <RunsTable view={view} ordered={ordered} out={out} unit={unit} of={of} onChanged={onChanged} />
        )}
      </details>
    </Panel>
  );
}
