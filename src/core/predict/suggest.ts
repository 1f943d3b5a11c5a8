import type { ObservationRow } from "@/core/records";
import { fitWorld, type FittedWorld, type Observation } from "./fit";
import { calibrate, chanceOf, predict, type Calibration } from "./predict";

const titleKey = ({ titleId, engineId }: Pick<ObservationRow, "titleId" | "engineId">) =>
  `${titleId} ${engineId}`;
/** A rig has a pace of its own in every mode. */
const paceKey = ({ rigId, powerMode, clocks }: Pick<ObservationRow, "rigId" | "powerMode" | "clocks">) =>
  `${rigId} ${powerMode} ${clocks}`;

const observationOf = (row: ObservationRow): Observation => ({
  title: titleKey(row),
  rig: paceKey(row),
  pixels: row.pixels * row.scale ** 2,
  frameMs: 1000 / row.fps,
  held: row.held,
});

/** Where somebody might begin. */
export interface StartingPoint {
  scale: number;
  powerMode: string;
  clocks: string;
  /** That it holds full speed, 0…1. */
  chance: number;
}

export interface AskedTitle {
  titleId: string;
  engineId: string;
  /** Of its picture at ×1, millions. */
  pixels: number;
  targetFps: number;
  scales: number[];
}

/** Chance from which a beginning is worth naming. */
const worthNaming = 0.7;
/** Fewest rows and calibrated intervals from which anything is predicted. */
const fewestRows = 8,
  fewestHeld = 5;

/** Everything measured, fitted once, with how far its predictions can be trusted. */
export class Foresight {
  private readonly world: FittedWorld;
  readonly calibration: Calibration;

  /** @param tried pairs that are left out one after the other, at most */
  constructor(
    private readonly rows: ObservationRow[],
    tried = 30,
  ) {
    const observations = rows.map(observationOf);
    this.world = fitWorld(observations);
    this.calibration = calibrate(observations, tried);
  }

  /** Whether there is enough to predict from. */
  get speaks(): boolean {
    return this.rows.length >= fewestRows && this.calibration.of >= fewestHeld;
  }

  /** Modes that a rig was measured in. */
  modesOf(rigId: string): Pick<StartingPoint, "powerMode" | "clocks">[] {
    const own = this.rows.filter((row) => row.rigId === rigId);
    return [...new Map(own.map((row) => [paceKey(row), row])).values()].map(({ powerMode, clocks }) => ({
      powerMode,
      clocks,
    }));
  }

  /** Engines that a title was measured with anywhere, and its picture. */
  knownTitle(titleId: string): { engineId: string; pixels: number } | null {
    const row = this.rows.find((each) => each.titleId === titleId);
    return row ? { engineId: row.engineId, pixels: row.pixels } : null;
  }

  /**
   * Where to begin with a title on a rig: the largest scale that holds in 7 of 10 in any mode it was measured
   * in; where none does, the likeliest. Null where the rig was never measured.
   */
  beginning(asked: AskedTitle, rigId: string): StartingPoint | null {
    const all = this.modesOf(rigId).flatMap((mode) =>
      asked.scales.map((scale): StartingPoint => {
        const made = predict(
          this.world,
          titleKey(asked),
          paceKey({ rigId, ...mode }),
          asked.pixels * scale ** 2,
        );
        return { ...mode, scale, chance: chanceOf(made, asked.targetFps) };
      }),
    );
    const worth = all.filter(({ chance }) => chance >= worthNaming);
    const better = (a: StartingPoint, b: StartingPoint) =>
      worth.length > 0 ? b.scale - a.scale || b.chance - a.chance : b.chance - a.chance || a.scale - b.scale;
    return [...(worth.length > 0 ? worth : all)].sort(better)[0] ?? null;
  }
}
