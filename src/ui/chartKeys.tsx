"use client";
import { useEffect, useRef, useSyncExternalStore, type RefObject } from "react";
import { Keys } from "./keys";

/** What can be saved of a chart. */
export interface ChartSaves {
  png: () => void;
  svg: () => void;
  csv: () => void;
}

const charts = new Map<HTMLElement, ChartSaves>();
const told = new Set<() => void>();
const tell = () => {
  for (const each of told) each();
};
const hear = (listener: () => void) => {
  told.add(listener);
  return () => void told.delete(listener);
};

/** Makes a chart known to the keys while it is shown. */
export function useChartKeys(frame: RefObject<HTMLElement | null>, saves: ChartSaves): void {
  const latest = useRef(saves);
  useEffect(() => {
    latest.current = saves;
  });
  useEffect(() => {
    const own = frame.current;
    if (!own) return;
    charts.set(own, {
      png: () => latest.current.png(),
      svg: () => latest.current.svg(),
      csv: () => latest.current.csv(),
    });
    tell();
    return () => {
      charts.delete(own);
      tell();
    };
  }, [frame]);
}

/** The chart that has the focus, else the first of the page. */
function meant(): ChartSaves | undefined {
  const all = [...charts.keys()];
  const focused = all.find((each) => each.contains(document.activeElement));
  const first = all.sort((a, b) =>
    a.compareDocumentPosition(b) & Node.DOCUMENT_POSITION_FOLLOWING ? -1 : 1,
  )[0];
  const one = focused ?? first;
  return one && charts.get(one);
}

/** Keys that save a chart's picture and figures, on every page that has one. */
export function ChartKeys() {
  const some = useSyncExternalStore(
    hear,
    () => charts.size > 0,
    () => false,
  );
  if (!some) return null;
  return (
    <Keys
      actions={[
        { keys: "alt&p", shown: "Alt P", label: "save the chart as PNG", run: () => meant()?.png() },
        { keys: "alt&g", shown: "Alt G", label: "save the chart as SVG", run: () => meant()?.svg() },
        { keys: "alt&c", shown: "Alt C", label: "save the chart’s figures as CSV", run: () => meant()?.csv() },
      ]}
    />
  );
}
