import type { Arm } from "./shapesSchema";

/**
 * A trial's arm by its place.
 * @throws RangeError where it has none there: runs and decisions name places that the database has checked
 */
export function armAt(trial: { arms: Arm[] }, place: number): Arm {
  const arm = trial.arms[place];
  if (!arm) throw new RangeError(`the trial has no arm ${place}`);
  return arm;
}

/** Name of the arm to run next; null where none is left. */
export function nextArmName({ arms, left }: { arms: Arm[]; left: number[] }): string | null {
  const [place] = left;
  return place === undefined ? null : armAt({ arms }, place).name;
}
