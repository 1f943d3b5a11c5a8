import { expose } from "comlink";
import { Foresight, type AskedTitle, type Calibration, type StartingPoint } from "@/core/predict";
import type { ObservationRow } from "@/core/records";

let foresight: Promise<Foresight> | null = null;

/** Everything measured, asked for and fitted once in this worker. */
const ready = async (): Promise<Foresight> =>
  (foresight ??= fetch("/api/v1/predictions/observations").then(async (response) => {
    if (!response.ok) throw new Error("What was measured can't be read just now.");
    const { rows } = (await response.json()) as { rows: ObservationRow[] };
    return new Foresight(rows);
  }));

export interface Foreseen {
  suggestion: StartingPoint;
  calibration: Calibration;
}

const api = {
  /** Where to begin with a title on a rig; null where nothing can be said. */
  async beginning(asked: AskedTitle, rigId: string): Promise<Foreseen | null> {
    const seen = await ready();
    const suggestion = seen.speaks ? seen.beginning(asked, rigId) : null;
    return suggestion && { suggestion, calibration: seen.calibration };
  },
  /** The same for titles that were run elsewhere, by `TITLE RIG`; and how far all of it can be trusted. */
  async cells(
    asked: { titleId: string; rigId: string; targetFps: number }[],
  ): Promise<{ cells: Record<string, StartingPoint>; calibration: Calibration } | null> {
    const seen = await ready();
    if (!seen.speaks) return null;
    const cells: Record<string, StartingPoint> = {};
    for (const { titleId, rigId, targetFps } of asked) {
      const known = seen.knownTitle(titleId);
      const made = known && seen.beginning({ titleId, targetFps, ...known, scales: [1, 2, 3, 4] }, rigId);
      if (made) cells[`${titleId} ${rigId}`] = made;
    }
    return { cells, calibration: seen.calibration };
  },
};

export type Foreseer = typeof api;
expose(api);
