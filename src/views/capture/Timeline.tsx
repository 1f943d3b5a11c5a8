import type { KeyboardEvent } from "react";
import type { CaptureMoment } from "@/core/capture";
import type { Mark } from "@/core/trace";
import { linear, say, useWidth } from "@/ui";

const height = 46;
const margin = { left: 8, right: 8 };
/** Where marks lie, and the moments that stand out under them. */
const rows = { marks: 4, line: 24 };

/** The video's time: marks as bars, moments that stand out as dots; a press goes to the picture that lay there. */
export function Timeline({
  moments,
  marks,
  moment,
  lengthMs,
  stepMs,
  onMoment,
}: {
  moments: CaptureMoment[];
  marks: Mark[];
  moment: number;
  lengthMs: number;
  /** From one captured picture to the next, ms. */
  stepMs: number;
  onMoment: (ms: number) => void;
}) {
  const [ref, width] = useWidth();
  const x = linear([0, Math.max(1, lengthMs)], [margin.left, Math.max(margin.left + 1, width - margin.right)]);
  const keys = (event: KeyboardEvent) => {
    const steps = { ArrowLeft: -1, ArrowRight: 1, Home: -Infinity, End: Infinity }[event.key];
    if (steps === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    onMoment(Math.max(0, Math.min(lengthMs, moment + steps * stepMs)));
  };
  return (
    <div ref={ref}>
      <svg
        width={width}
        height={height}
        role="slider"
        tabIndex={0}
        aria-label="Moment of the video"
        aria-valuemin={0}
        aria-valuemax={Math.round(lengthMs)}
        aria-valuenow={Math.round(moment)}
        aria-valuetext={say.clock(moment)}
        onKeyDown={keys}
        onClick={(event) => {
          const { left } = event.currentTarget.getBoundingClientRect();
          onMoment(Math.max(0, Math.min(lengthMs, x.invert(event.clientX - left))));
        }}
        className="cursor-pointer"
      >
        <line
          x1={margin.left}
          x2={Math.max(margin.left, width - margin.right)}
          y1={rows.line}
          y2={rows.line}
          stroke="var(--edge)"
          strokeWidth={2}
        />
        {marks.map(({ label, startMs, endMs }, at) => (
          <rect
            key={at}
            x={x(startMs)}
            y={rows.marks}
            width={Math.max(2, x(endMs) - x(startMs))}
            height={8}
            rx={2}
            fill="var(--series-b)"
            fillOpacity={0.5}
          >
            <title>{`marked: ${label}`}</title>
          </rect>
        ))}
        {moments
          .filter(({ kind }) => kind !== "marked")
          .map(({ atMs, kind }) => (
            <circle
              key={`${kind} ${atMs}`}
              cx={x(atMs)}
              cy={rows.line}
              r={kind === "long" ? 4 : 3}
              fill={kind === "long" ? "var(--series-a)" : "var(--ground)"}
              stroke={kind === "long" ? "var(--series-a)" : "var(--caution)"}
            />
          ))}
        <line x1={x(moment)} x2={x(moment)} y1={0} y2={32} stroke="var(--lit)" strokeWidth={2} />
        <text
          x={Math.max(margin.left, Math.min(width - 60, x(moment) - 20))}
          y={height - 2}
          fontSize={11}
          fill="var(--text)"
        >
          {say.clock(moment)}
        </text>
      </svg>
    </div>
  );
}
