import { scaleLinear } from "d3-scale";
import { line as lineOf } from "d3-shape";
import type { Drawing } from "@/core/glossary";
import { Lamp, lightOf } from "./Lamp";

const width = 340,
  height = 84,
  foot = 16;

function Bars({ values, unit, line, lit = [] }: Extract<Drawing, { kind: "bars" }>) {
  const least = Math.min(0, ...values);
  const up = scaleLinear([least, Math.max(...values, line ?? 0)], [height - foot, 12]);
  const step = width / values.length;
  const isWide = values.length <= 8;
  return (
    <svg viewBox={`0 0 ${width} ${height}`} className="w-full" aria-hidden>
      {values.map((value, at) => {
        const [top, bottom] = [up(Math.max(value, 0)), up(Math.min(value, 0))];
        return (
          <g key={at}>
            <rect
              x={at * step + step * 0.15}
              y={top}
              width={step * 0.7}
              height={Math.max(1, bottom - top)}
              className={lit.includes(at) ? "fill-(--series-b)" : "fill-(--series-a)"}
            />
            {(isWide || lit.includes(at)) && (
              <text
                x={(at + 0.5) * step}
                y={height - 3}
                textAnchor="middle"
                className="figure fill-soft text-[10px]"
              >
                {value.toLocaleString("en-GB")}
              </text>
            )}
          </g>
        );
      })}
      {line !== undefined && (
        <line x1={0} x2={width} y1={up(line)} y2={up(line)} className="stroke-text" strokeDasharray="3 3" />
      )}
      <text x={width} y={9} textAnchor="end" className="fill-soft text-[10px]">
        {line === undefined ? unit : `${unit}; dashed: ${line}`}
      </text>
    </svg>
  );
}

function Interval({ low, estimate, high, margin }: Extract<Drawing, { kind: "interval" }>) {
  const reach = 1.15 * Math.max(Math.abs(low), Math.abs(high), margin);
  const across = scaleLinear([-reach, reach], [0, width]);
  const upright = (at: number, dashed: boolean) => (
    <line
      x1={across(at)}
      x2={across(at)}
      y1={6}
      y2={44}
      className="stroke-soft"
      strokeDasharray={dashed ? "3 3" : undefined}
    />
  );
  const label = (at: number) => (
    <text key={at} x={across(at)} y={58} textAnchor="middle" className="figure fill-soft text-[10px]">
      {at > 0 ? `+${at}` : String(at).replace("-", "−")} %
    </text>
  );
  return (
    <svg viewBox={`0 0 ${width} 62`} className="w-full" aria-hidden>
      {upright(0, false)}
      {upright(margin, true)}
      {upright(-margin, true)}
      <line
        x1={across(low)}
        x2={across(high)}
        y1={25}
        y2={25}
        strokeWidth={5}
        className="stroke-(--series-a)"
      />
      <circle cx={across(estimate)} cy={25} r={6} className="fill-text" />
      {[low, high].map(label)}
    </svg>
  );
}

function Curve({ points, x, y, line }: Extract<Drawing, { kind: "curve" }>) {
  const [xs, ys] = [points.map(([at]) => at), points.map(([, value]) => value)];
  const across = scaleLinear([Math.min(...xs), Math.max(...xs)], [6, width - 6]);
  const up = scaleLinear(
    [Math.min(...ys, line ?? Infinity), Math.max(...ys, line ?? -Infinity)],
    [height - foot, 14],
  );
  const path = lineOf<[number, number]>(
    ([at]) => across(at),
    ([, value]) => up(value),
  )(points);
  return (
    <svg viewBox={`0 0 ${width} ${height}`} className="w-full" aria-hidden>
      {line !== undefined && (
        <line x1={0} x2={width} y1={up(line)} y2={up(line)} className="stroke-text" strokeDasharray="3 3" />
      )}
      <path d={path ?? ""} fill="none" strokeWidth={2} className="stroke-(--series-a)" />
      {points.map(([at, value]) => (
        <circle key={at} cx={across(at)} cy={up(value)} r={3} className="fill-(--series-a)" />
      ))}
      {[xs[0], xs.at(-1)].map((at, end) => (
        <text
          key={end}
          x={across(at ?? 0)}
          y={height - 3}
          textAnchor={end === 0 ? "start" : "end"}
          className="figure fill-soft text-[10px]"
        >
          {at} {end === 1 && x}
        </text>
      ))}
      <text x={width} y={9} textAnchor="end" className="fill-soft text-[10px]">
        {line === undefined ? y : `${y}; dashed: ${line}`}
      </text>
    </svg>
  );
}

/** An example from its figures; what it shows stands in words beside it. */
export function ExampleDrawing({ drawing }: { drawing: Drawing }) {
  switch (drawing.kind) {
    case "bars":
      return <Bars {...drawing} />;
    case "interval":
      return <Interval {...drawing} />;
    case "curve":
      return <Curve {...drawing} />;
    case "chain":
      return (
        <p className="flex flex-wrap items-center gap-1.5" aria-hidden>
          {drawing.parts.map((part, at) => (
            <span key={at} className="flex items-center gap-1.5">
              {at > 0 && <span className="text-soft">→</span>}
              <span className="rounded border border-line px-2 py-1">{part}</span>
            </span>
          ))}
        </p>
      );
    case "lights":
      return (
        <p className="flex flex-wrap gap-x-4 gap-y-2">
          {drawing.lights.map((light) => (
            <span key={light} className="flex items-center gap-1.5 capitalize">
              <Lamp light={lightOf[light]} size={22} />
              {light}
            </span>
          ))}
        </p>
      );
  }
}
