"use client";
import { MoreHorizontal } from "lucide-react";
import type { ComponentProps } from "react";
import { useReached } from "./useReached";

/** What can be done with a chart, and what it is called. */
export type ChartAction = [label: string, run: () => void];

/** The button that a chart's menu opens from. */
export function ChartMenuButton({ name, ...button }: { name: string } & ComponentProps<"button">) {
  return (
    <button
      type="button"
      aria-haspopup="menu"
      aria-label={`${name}: save or show as a table`}
      {...button}
      className="grid h-6 w-7 place-items-center rounded text-soft hover:bg-raised hover:text-text"
    >
      <MoreHorizontal size={15} aria-hidden />
    </button>
  );
}

const load = async () => (await import("./OpenChartMenu")).OpenChartMenu;

/** A chart's menu, loaded when somebody reaches for it. */
export function ChartMenu(props: { name: string; actions: ChartAction[] }) {
  const { Reached, reach, prepare } = useReached(load);
  if (Reached) return <Reached {...props} />;
  return <ChartMenuButton name={props.name} onPointerEnter={prepare} onFocus={prepare} onClick={reach} />;
}
