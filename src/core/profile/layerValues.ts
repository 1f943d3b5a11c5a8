import type { MeasuredOn, LayerValue } from "./shape";

/** A rig as it is now. */
export interface RigNow extends MeasuredOn {
  /** Drivers of its further set-ups, by name. */
  drivers: Readonly<Record<string, string>>;
}

/** As much of it as tells what holds. */
export type SetValue = Pick<LayerValue, "id" | "layer" | "systemId" | "titleId" | "buildId" | "key" | "value">;

/** Whose profile is asked for. */
export interface ProfileOf {
  systemId: string | null;
  titleId: string | null;
  buildId: string | null;
}
