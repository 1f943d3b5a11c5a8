"use client";
import { type ChartAction, ChartMenuButton } from "./ChartMenuButton";
import { useReached } from "./useReached";

const load = async () => (await import("./OpenChartMenu")).OpenChartMenu;

/** A chart's menu, loaded when somebody reaches for it. */
export function ChartMenu(props: { name: string; actions: ChartAction[] }) {
  const { Reached, reach, prepare } = useReached(load);
  if (Reached) return <Reached {...props} />;
  return <ChartMenuButton name={props.name} onPointerEnter={prepare} onFocus={prepare} onClick={reach} />;
}
