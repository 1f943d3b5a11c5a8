"use client";
import dynamic from "next/dynamic";
import type { PlotProps } from "./PlotDrawing";

export type { PlotDots, PlotLine } from "./PlotDrawing";

/** Height of a chart where none is given, px. */
const usualHeight = 260;

const Drawing = dynamic(async () => (await import("./PlotDrawing")).PlotDrawing, {
  ssr: false,
  loading: () => <p className="grid h-full place-items-center text-[13px] text-soft">Drawing …</p>,
});

/** Lines and dots over two numeric axes. The chart library is loaded where a chart is drawn. */
export function Plot(props: PlotProps) {
  return (
    <div style={{ minHeight: props.height ?? usualHeight }}>
      <Drawing {...props} />
    </div>
  );
}
