"use client";
import { MoreHorizontal } from "lucide-react";
import type { ComponentProps } from "react";

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
