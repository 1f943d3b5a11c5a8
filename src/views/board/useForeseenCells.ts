"use client";
import { useQuery } from "@tanstack/react-query";
import type { Calibration, Suggestion } from "@/core/predict";
import type { BoardTitle, BoardView } from "@/core/records";
import { startForeseer } from "@/workers";

/** Cells foreseen at once, at most. */
const mostCells = 600;

/** What is foreseen for cells that weren't run, of titles that were run on another rig; null until it is, or where nothing can be. */
export function useForeseenCells(
  rows: BoardTitle[],
  rigs: BoardView["rigs"],
): { cells: Record<string, Suggestion>; calibration: Calibration } | null {
  const asked = rows
    .flatMap(({ id, cells }) => {
      const [known] = cells;
      return known
        ? rigs.flatMap((rig) =>
            cells.some(({ rigId }) => rigId === rig.id)
              ? []
              : [{ titleId: id, rigId: rig.id, targetFps: known.targetFps }],
          )
        : [];
    })
    .slice(0, mostCells);
  const { data = null } = useQuery({
    queryKey: ["foreseen", asked.map(({ titleId, rigId }) => titleId + rigId).join()],
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
