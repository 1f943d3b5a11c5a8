import { area, curveStepAfter } from "d3-shape";
import type { KeyboardEvent } from "react";
import type { CaptureResult } from "@/core/capture";
import { linear, say, useWidth } from "@/ui";

const height = 110;
const margin = { left: 40, right: 8, top: 8, bottom: 20 };
/** Pictures drawn one by one at most; of more the slowest of each column. */
const mostDrawn = 2000;

/** Frame times under the picture, on the video's own time; a press goes to the picture that lay there. */
export function Strip({
  result,
  moment,
  lengthMs,
  onMoment,
}: {
  result: CaptureResult | null;
  moment: number;
  lengthMs: number;
  onMoment: (ms: number) => void;
}) {
  const [ref, width] = useWidth();
  const x = linear([0, Math.max(1, lengthMs)], [margin.left, Math.max(margin.left + 1, width - margin.right)]);
  const times = result ? [...result.frameTimes] : [];
  const most = Math.max(40, ...times.slice(0, 200_000));
  const y = linear([0, most], [height - margin.bottom, margin.top]);
  const step = Math.max(1, Math.ceil(times.length / mostDrawn));
  const points: { at: number; ms: number }[] = [];
  for (let k = 0; result && k < times.length; k += step) {
    let slowest = k;
    for (let j = k; j < Math.min(times.length, k + step); j++)
      if ((times[j] ?? 0) > (times[slowest] ?? 0)) slowest = j;
    points.push({ at: result.startsMs[slowest] ?? 0, ms: times[slowest] ?? 0 });
  }
  const shape = area<{ at: number; ms: number }>(
    (point) => x(point.at),
    height - margin.bottom,
    (point) => y(point.ms),
  ).curve(curveStepAfter);
  const keys = (event: KeyboardEvent) => {
    const steps = { ArrowLeft: -1, ArrowRight: 1, Home: -Infinity, End: Infinity }[event.key];
    if (steps === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    onMoment(Math.max(0, Math.min(lengthMs, moment + steps * (1000 / (result?.captureFps ?? 60)))));
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
        aria-valuetext={`${say.clock(moment)}`}
        onKeyDown={keys}
        onClick={(event) => {
          const { left } = event.currentTarget.getBoundingClientRect();
          onMoment(Math.max(0, Math.min(lengthMs, x.invert(event.clientX - left))));
        }}
        className="cursor-pointer"
      >
        <rect
          x={margin.left}
          y={margin.top}
          width={Math.max(0, width - margin.left - margin.right)}
          height={height - margin.top - margin.bottom}
          fill="var(--panel)"
        />
        {points.length > 0 && (
          <path d={shape(points) ?? ""} fill="var(--series-a)" fillOpacity={0.55} stroke="var(--series-a)" />
        )}
        {result?.unsure.slice(0, 500).map(({ atMs: ms }) => (
          <line
            key={ms}
            x1={x(ms)}
            x2={x(ms)}
            y1={height - margin.bottom}
            y2={height - margin.bottom + 6}
            stroke="var(--caution)"
            strokeWidth={2}
          />
        ))}
        {y.ticks(3).map((tick) => (
          <text
            key={tick}
            x={margin.left - 6}
            y={y(tick) + 3}
            textAnchor="end"
            fontSize={10}
            fill="var(--soft)"
          >
            {tick} ms
          </text>
        ))}
        <line
          x1={x(moment)}
          x2={x(moment)}
          y1={margin.top}
          y2={height - margin.bottom}
          stroke="var(--lit)"
          strokeWidth={2}
        />
        <text x={Math.min(width - 50, x(moment) + 4)} y={height - 6} fontSize={11} fill="var(--text)">
          {say.clock(moment)}
        </text>
      </svg>
    </div>
  );
}
