"use client";
import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import type { Calibration, StartingPoint } from "@/core/predict";
import type { BoardTitle, BoardView } from "@/core/records";
import { startForeseer } from "@/workers";

/** Cells foreseen at once, at most. */
const mostCells = 600;

/** The first cells that weren't run, of titles that were run on another rig. */
function notRun(rows: BoardTitle[], rigs: BoardView["rigs"]) {
  const found: { titleId: string; rigId: string; targetFps: number }[] = [];
  for (const { id, cells } of rows) {
    const [known] = cells;
    if (!known) continue;
    for (const rig of rigs)
      if (!cells.some(({ rigId }) => rigId === rig.id))
        found.push({ titleId: id, rigId: rig.id, targetFps: known.targetFps });
    if (found.length >= mostCells) return found.slice(0, mostCells);
  }
  return found;
}

/**
 * What is foreseen for cells that weren't run, of titles that were run on another rig; null until it is, or
 * where nothing can be.
 */
export function useForeseenCells(
  rows: BoardTitle[],
  rigs: BoardView["rigs"],
): { cells: Record<string, StartingPoint>; calibration: Calibration } | null {
  const { asked, key } = useMemo(() => {
    const cells = notRun(rows, rigs);
    return { asked: cells, key: cells.map(({ titleId, rigId }) => titleId + rigId).join() };
  }, [rows, rigs]);
  const { data = null } = useQuery({
    queryKey: ["foreseen", key],
    enabled: asked.length > 0,
    queryFn: async () => {
      const worker = startForeseer();
      try {
        return await worker.call.cells(asked);
      } finally {
        worker.end();
      }
    },
  });
  return data;
}
