/** The measuring part of the house rules: what counts as full speed, a hitch, a freeze. */
export interface MeasuringRules {
  /** Share below the target that still counts as full speed. */
  tolerance: number;
  /** Length of a window in ms. */
  windowMs: number;
  /** A hitch is longer than `hitchFactor` · median and longer than median + `hitchExtraMs`. */
  hitchFactor: number;
  hitchExtraMs: number;
  /** Frames around one whose median it is held against; odd. */
  hitchNeighbours: number;
  /** A frame this long is a freeze, in ms. */
  freezeMs: number;
}

export const defaultMeasuring: MeasuringRules = {
  tolerance: 0.01,
  windowMs: 1000,
  hitchFactor: 2.5,
  hitchExtraMs: 8,
  hitchNeighbours: 61,
  freezeMs: 250,
};
