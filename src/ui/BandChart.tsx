"use client";
import { area, line } from "d3-shape";
import { useId, useRef, useState, type KeyboardEvent, type PointerEvent } from "react";
import { linear } from "./linear";

/** Least, greatest and mean of each column of pixels. */
export interface Band {
  low: ArrayLike<number>;
  high: ArrayLike<number>;
  mean: ArrayLike<number>;
}

export interface BandSeries {
  name: string;
  band: Band;
  colour: string;
  dash?: string;
}

interface Props {
  label: string;
  width: number;
  height: number;
  /** What the whole width stands for. */
  range: [from: number, to: number];
  values: [least: number, most: number];
  series: BandSeries[];
  /** Horizontal lines, e.g. a target. */
  levels?: { value: number; label: string }[];
  /** Stretches shaded along the foot, e.g. dips. */
  stretches?: { from: number; to: number }[];
  /** Points marked at the top, e.g. hitches. */
  points?: { at: number; title: string }[];
  /** Named stretches written along the head. */
  names?: { from: number; to: number; label: string }[];
  selection?: [number, number] | null;
  onSelect?: (selection: [number, number] | null) => void;
  axis?: boolean;
  ticks?: number;
  formatX?: (value: number) => string;
  /** Unit of the values; with it the chart is read by pointer and arrow keys. */
  unit?: string;
}

const left = 44;

/**
 * Bands over a common axis; drag to select a stretch. Draws columns, never samples, so its cost doesn't grow
 * with the data.
 */
export function BandChart({
  label,
  width,
  height,
  range,
  values,
  series,
  levels = [],
  stretches = [],
  points = [],
  names = [],
  selection,
  onSelect,
  axis = false,
  ticks = 4,
  formatX = String,
  unit,
}: Props) {
  const [cursor, setCursor] = useState<number | null>(null);
  const clip = useId();
  const svg = useRef<SVGSVGElement>(null);
  const [drag, setDrag] = useState<[number, number] | null>(null);
  const foot = axis ? 18 : 6;
  const head = names.length > 0 ? 16 : points.length > 0 ? 8 : 4;
  const x = linear(range, [left, width]);
  const y = linear(values, [height - foot, head]);
  const columns = width - left;
  const column = columns > 0 ? (range[1] - range[0]) / columns : 0;
  const inRange = (value: number) => Math.min(range[1], Math.max(range[0], value));
  const anchor = useRef<number | null>(null);
  /** Arrow keys read along the chart, Shift in long steps; the space bar begins a stretch and ends it. */
  const onKey = (event: KeyboardEvent) => {
    const now = cursor ?? (range[0] + range[1]) / 2;
    const step = column * (event.shiftKey ? 40 : 2);
    const moves: Record<string, number> = {
      ArrowLeft: now - step,
      ArrowRight: now + step,
      Home: range[0],
      End: range[1],
    };
    const moved = moves[event.key];
    if (moved !== undefined) {
      setCursor(inRange(moved));
      if (anchor.current !== null) setDrag([anchor.current, inRange(moved)]);
    } else if (event.key === " " && onSelect) {
      if (anchor.current === null) {
        anchor.current = now;
        setCursor(now);
      } else {
        onSelect([Math.min(anchor.current, now), Math.max(anchor.current, now)]);
        anchor.current = null;
        setDrag(null);
      }
    } else if (event.key === "Escape" && (cursor !== null || anchor.current !== null)) {
      anchor.current = null;
      setDrag(null);
      setCursor(null);
    } else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const reading = (ms: number) =>
    series
      .map(({ name, band }) => {
        const index = Math.min(
          band.mean.length - 1,
          Math.max(0, Math.floor(((ms - range[0]) / (range[1] - range[0])) * band.mean.length)),
        );
        const [low, mean, high] = [band.low[index], band.mean[index], band.high[index]];
        if (mean === undefined || !Number.isFinite(mean)) return null;
        const spread =
          low !== undefined && high !== undefined && high - low >= 0.05
            ? ` (${low.toFixed(1)} to ${high.toFixed(1)})`
            : "";
        return `${series.length > 1 ? `${name} ` : ""}${mean.toFixed(1)} ${unit ?? ""}${spread}`;
      })
      .filter((text) => text !== null)
      .join("; ");
  const at = (event: PointerEvent) => {
    // eslint-disable-next-line @typescript-eslint/no-non-null-assertion -- only a drawn chart is pointed at
    const box = svg.current!.getBoundingClientRect();
    return x.invert(Math.min(width, Math.max(left, ((event.clientX - box.left) * width) / box.width)));
  };
  const shown = drag ?? selection ?? null;
  const indices = Array.from({ length: Math.max(0, columns) }, (_, index) => index);
  const place = (index: number, count: number) => left + ((index + 0.5) * columns) / count;

  const drawn = (
    <svg
      ref={svg}
      data-chart
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      role="img"
      aria-label={label}
      className={onSelect ? "block cursor-crosshair touch-none select-none" : "block"}
      onPointerDown={
        onSelect &&
        ((event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          const start = at(event);
          setDrag([start, start]);
        })
      }
      onPointerMove={(event) => {
        if (unit) setCursor(at(event));
        if (drag && onSelect) setDrag([drag[0], at(event)]);
      }}
      onPointerLeave={() => setCursor(null)}
      onPointerUp={
        onSelect &&
        (() => {
          if (drag)
            onSelect(Math.abs(x(drag[1]) - x(drag[0])) < 4 ? null : [Math.min(...drag), Math.max(...drag)]);
          setDrag(null);
        })
      }
    >
      <defs>
        <clipPath id={clip}>
          <rect x={left} y={head} width={Math.max(0, columns)} height={Math.max(0, height - foot - head)} />
        </clipPath>
      </defs>
      {y.ticks(ticks).map((tick) => (
        <g key={tick}>
          <line x1={left} x2={width} y1={y(tick)} y2={y(tick)} stroke="var(--line)" strokeWidth="0.5" />
          <text
            x={left - 6}
            y={y(tick) + 3.5}
            textAnchor="end"
            fontSize="10.5"
            fill="var(--soft)"
            className="figure"
          >
            {tick}
          </text>
        </g>
      ))}
      {axis &&
        x
          .ticks(Math.max(2, Math.floor(columns / 90)))
          .filter((tick) => x(tick) < width - 14)
          .map((tick) => (
            <text
              key={tick}
              x={x(tick)}
              y={height - 4}
              textAnchor="middle"
              fontSize="10.5"
              fill="var(--soft)"
              className="figure"
            >
              {formatX(tick)}
            </text>
          ))}
      {stretches.map(({ from, to }) => {
        const start = Math.max(left, x(from)),
          end = Math.min(width, x(to));
        return (
          end > start && (
            <rect
              key={from}
              x={start}
              y={height - foot - 4}
              width={Math.max(1.5, end - start)}
              height={4}
              fill="var(--series-b)"
            />
          )
        );
      })}
      <g clipPath={`url(#${clip})`}>
        {series.map(({ name, band, colour, dash }) => {
          const count = band.mean.length;
          const defined = (index: number) => Number.isFinite(band.mean[index]);
          const shownIndices = count === columns ? indices : Array.from({ length: count }, (_, index) => index);
          const middle = (index: number) => place(index, count);
          const spread = area<number>()
            .defined(defined)
            .x(middle)
            .y0((index) => y(band.low[index] ?? NaN))
            .y1((index) => y(band.high[index] ?? NaN));
          const mean = line<number>()
            .defined(defined)
            .x(middle)
            .y((index) => y(band.mean[index] ?? NaN));
          return (
            <g key={name}>
              <path
                d={spread(shownIndices) ?? ""}
                fill={colour}
                opacity="0.35"
                stroke={colour}
                strokeWidth="0.6"
              />
              <path
                d={mean(shownIndices) ?? ""}
                fill="none"
                stroke={colour}
                strokeWidth="1.4"
                strokeDasharray={dash}
              />
            </g>
          );
        })}
        {levels.map(({ value, label: name }) => (
          <g key={name}>
            <line
              x1={left}
              x2={width}
              y1={y(value)}
              y2={y(value)}
              stroke="var(--text)"
              strokeWidth="1"
              strokeDasharray="2 4"
            />
            <title>{name}</title>
          </g>
        ))}
      </g>
      {names.map(({ from, to, label: name }) => {
        const start = Math.max(left, x(from)),
          end = Math.min(width, x(to));
        if (end <= start) return null;
        return (
          <g key={`${from} ${name}`}>
            {start > left && (
              <line
                x1={start}
                x2={start}
                y1={2}
                y2={height - foot}
                stroke="var(--edge)"
                strokeWidth="0.7"
                strokeDasharray="1 3"
              />
            )}
            {end - start > name.length * 5 + 8 && (
              <text x={start + 4} y={11} fontSize="10.5" fill="var(--soft)">
                {name}
              </text>
            )}
          </g>
        );
      })}
      {points.map(
        ({ at: when, title }) =>
          when >= range[0] &&
          when <= range[1] && (
            <path key={when} d={`M${x(when)} ${head + 1} l3.5 -6 h-7 Z`} fill="var(--series-b)">
              <title>{title}</title>
            </path>
          ),
      )}
      {shown && (
        <rect
          x={Math.min(x(shown[0]), x(shown[1]))}
          y={head}
          width={Math.abs(x(shown[1]) - x(shown[0]))}
          height={height - foot - head}
          fill="var(--lit)"
          opacity="0.16"
          stroke="var(--lit)"
        />
      )}
      {cursor !== null && (
        <line
          x1={x(cursor)}
          x2={x(cursor)}
          y1={head}
          y2={height - foot}
          stroke="var(--text)"
          strokeWidth="1"
          pointerEvents="none"
        />
      )}
    </svg>
  );
  if (!unit) return drawn;
  return (
    <div
      role="group"
      tabIndex={0}
      aria-label={`${label}: arrow keys read it${onSelect ? ", the space bar begins and ends a stretch" : ""}`}
      onKeyDown={onKey}
      className="relative"
    >
      {drawn}
      <p
        role="status"
        className="figure pointer-events-none absolute right-1 top-0 min-h-4 rounded px-1 text-[11px] text-text not-empty:bg-ground/85"
      >
        {cursor !== null && `${formatX(cursor)}: ${reading(cursor)}`}
      </p>
    </div>
  );
}
