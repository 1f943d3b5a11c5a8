"use client";
import {
  CartesianGrid,
  ErrorBar,
  ReferenceArea,
  ReferenceLine,
  Scatter,
  ScatterChart,
  XAxis,
  YAxis,
} from "recharts";
import { scaleLinear } from "d3-scale";
import { useState, type KeyboardEvent } from "react";
import { ChartFrame, type ChartData } from "./ChartFrame";
import { useWidth } from "./useWidth";

export interface PlotLine {
  name: string;
  points: { x: number; y: number }[];
  colour: string;
  dash?: string;
  width?: number;
}

export interface PlotDots {
  name: string;
  points: {
    x: number;
    y: number;
    label?: string;
    /** Half-lengths of the interval below and above. */ spread?: [number, number];
  }[];
  colour: string;
  shape?: "circle" | "square" | "triangle" | "diamond";
  /** Lit dots carry a ring. */
  lit?: boolean;
}

export interface PlotProps {
  label: string;
  x: { name: string; range: [number, number]; ticks?: number[]; format?: (value: number) => string };
  y: { name: string; range: [number, number]; format?: (value: number) => string };
  lines?: PlotLine[];
  dots?: PlotDots[];
  /** Horizontal lines, e.g. a target or a limit. */
  levels?: { value: number; label: string; caution?: boolean }[];
  /** Upright lines, e.g. an instant. */
  uprights?: { value: number; label: string }[];
  /** Shaded stretches of x. */
  stretches?: { from: number; to: number }[];
  height?: number;
}

const text = { fontSize: 11, fill: "var(--soft)", fontFamily: "var(--font-mono)" };

/** A label of a chart is one line, whatever room there is. */
const inOneLine = (text: string) => text.replaceAll(" ", "\u00a0");

/** Lines and dots over two numeric axes, drawn by the chart library; nothing moves. */
export function PlotDrawing({
  label,
  x,
  y,
  lines = [],
  dots = [],
  levels = [],
  uprights = [],
  stretches = [],
  height = 260,
}: PlotProps) {
  const [measure, width] = useWidth();
  const across = scaleLinear().domain(x.range),
    up = scaleLinear().domain(y.range).nice(6);
  const plain = (value: number) => String(Number(value.toFixed(3)));
  const marks = dots
    .flatMap(({ name, points }) => points.map((point) => ({ name, ...point })))
    .sort((a, b) => a.x - b.x || a.y - b.y);
  const [at, setAt] = useState<number | null>(null);
  const read = at === null ? null : marks[at];
  const formatX = x.format ?? plain,
    formatY = y.format ?? plain;
  const onKey = (event: KeyboardEvent) => {
    const by = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
    if (event.key === "Escape" && at !== null) setAt(null);
    else if (by !== undefined && marks.length > 0)
      setAt(at === null ? 0 : Math.min(marks.length - 1, Math.max(0, at + by)));
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const data = (): ChartData => ({
    columns: ["drawn", x.name, y.name, "low", "high"],
    rows: [
      ...marks.map(({ name, x: across, y: value, spread }) => [
        name,
        across,
        value,
        spread ? value - spread[0] : null,
        spread ? value + spread[1] : null,
      ]),
      ...lines.flatMap(({ name, points }) => points.map((point) => [name, point.x, point.y, null, null])),
    ],
  });
  return (
    <ChartFrame name={label} data={data}>
      <figure ref={measure} className="min-w-0">
        <figcaption className="mb-1 text-[11px] text-soft">{y.name}</figcaption>
        <p role="status" className="figure absolute right-9 top-0 text-[11px]">
          {read &&
            `${read.name}${read.label ? `, ${read.label}` : ""}: ${formatX(read.x)}, ${formatY(read.y)}${read.spread ? ` (${formatY(read.y - read.spread[0])} to ${formatY(read.y + read.spread[1])})` : ""}`}
        </p>
        <div
          role="group"
          tabIndex={marks.length > 0 ? 0 : undefined}
          aria-label={`${label}: arrow keys read its points`}
          onKeyDown={onKey}
          onMouseLeave={() => setAt(null)}
          data-chart
        >
          <div role="img" aria-label={label} style={{ height }}>
            {width > 0 && (
              <ScatterChart
                accessibilityLayer={false}
                width={width}
                height={height}
                margin={{ top: 8, right: 16, bottom: 4, left: 0 }}
              >
                <CartesianGrid stroke="var(--line)" strokeWidth={0.5} vertical={false} />
                <XAxis
                  type="number"
                  dataKey="x"
                  domain={x.range}
                  ticks={x.ticks ?? across.ticks(8)}
                  interval={0}
                  tickFormatter={x.format ?? plain}
                  tick={text}
                  stroke="var(--edge)"
                  tickLine={false}
                  allowDataOverflow
                />
                <YAxis
                  type="number"
                  dataKey="y"
                  domain={up.domain()}
                  ticks={up.ticks(6)}
                  interval={0}
                  tickFormatter={y.format ?? plain}
                  tick={text}
                  stroke="var(--edge)"
                  tickLine={false}
                  width={48}
                  allowDataOverflow
                />
                {stretches.map(({ from, to }) => (
                  <ReferenceArea
                    key={from}
                    x1={Math.max(from, x.range[0])}
                    x2={Math.min(to, x.range[1])}
                    ifOverflow="hidden"
                    fill="var(--series-b)"
                    fillOpacity={0.18}
                  />
                ))}
                {levels.map(({ value, label: name, caution }) => (
                  <ReferenceLine
                    key={name}
                    y={value}
                    ifOverflow="hidden"
                    stroke={caution ? "var(--caution)" : "var(--text)"}
                    strokeDasharray="2 4"
                    label={{
                      value: inOneLine(name),
                      position: "insideBottomLeft",
                      fontSize: 11,
                      fill: caution ? "var(--caution)" : "var(--text)",
                    }}
                  />
                ))}
                {uprights.map(({ value, label: name }) => (
                  <ReferenceLine
                    key={name}
                    x={value}
                    ifOverflow="hidden"
                    stroke="var(--lit)"
                    strokeDasharray="4 3"
                    label={{
                      value: inOneLine(name),
                      position: value > (x.range[0] + x.range[1]) / 2 ? "insideTopRight" : "insideTopLeft",
                      fontSize: 11,
                      fill: "var(--text)",
                    }}
                  />
                ))}
                {lines.map(({ name, points, colour, dash, width: stroke = 1.6 }) => (
                  <Scatter
                    key={name}
                    name={name}
                    data={points}
                    fill={colour}
                    isAnimationActive={false}
                    shape={() => <g />}
                    line={{ stroke: colour, strokeWidth: stroke, strokeDasharray: dash }}
                    lineJointType="linear"
                  />
                ))}
                {dots.map(({ name, points, colour, shape = "circle", lit }) => (
                  <Scatter
                    key={name}
                    name={name}
                    isAnimationActive={false}
                    fill={colour}
                    data={points.map((point) => ({ ...point, spread: point.spread ?? [0, 0] }))}
                    onMouseEnter={(_: unknown, index: number) =>
                      setAt(
                        marks.findIndex(
                          (mark) =>
                            mark.name === name && mark.x === points[index]?.x && mark.y === points[index]?.y,
                        ),
                      )
                    }
                    shape={(props: {
                      cx?: number;
                      cy?: number;
                      payload?: { label?: string; x: number; y: number };
                    }) => (
                      <Mark
                        {...props}
                        shape={shape}
                        colour={colour}
                        lit={lit}
                        read={read?.name === name && read.x === props.payload?.x && read.y === props.payload.y}
                      />
                    )}
                  >
                    {points.some(({ spread }) => spread) && (
                      <ErrorBar
                        dataKey="spread"
                        direction="y"
                        width={5}
                        stroke={colour}
                        strokeWidth={1.4}
                        isAnimationActive={false}
                      />
                    )}
                  </Scatter>
                ))}
              </ScatterChart>
            )}
          </div>
        </div>
        <p className="text-right text-[11px] text-soft">{x.name}</p>
      </figure>
    </ChartFrame>
  );
}

function Mark({
  cx = 0,
  cy = 0,
  payload,
  shape,
  colour,
  lit,
  read,
}: {
  cx?: number;
  cy?: number;
  payload?: { label?: string };
  shape: NonNullable<PlotDots["shape"]>;
  colour: string;
  lit?: boolean;
  /** The point whose figures are shown. */
  read?: boolean;
}) {
  return (
    <g>
      {read && <circle cx={cx} cy={cy} r={8} fill="none" stroke="var(--text)" strokeWidth={1.5} />}
      {lit && <circle cx={cx} cy={cy} r={10} fill="none" stroke="var(--lit)" strokeWidth={2.5} />}
      {shape === "circle" && <circle cx={cx} cy={cy} r={4.5} fill={colour} />}
      {shape === "square" && <rect x={cx - 4} y={cy - 4} width={8} height={8} fill={colour} />}
      {shape === "triangle" && <path d={`M${cx} ${cy - 5} l5 9 h-10 Z`} fill={colour} />}
      {shape === "diamond" && <path d={`M${cx} ${cy - 5.5} l5.5 5.5 l-5.5 5.5 l-5.5 -5.5 Z`} fill={colour} />}
      {payload?.label && (
        <text x={cx + 10} y={cy - 8} fontSize={11} fill="var(--text)">
          {payload.label}
        </text>
      )}
    </g>
  );
}
