/** What was measured of a title with an engine on a rig, in one mode and at one scale. */
export interface ObservationRow {
  titleId: string;
  engineId: string;
  rigId: string;
  /** Empty where the rig has none, or nobody said. */
  powerMode: string;
  clocks: string;
  scale: number;
  /** Of the picture at ×1, millions. */
  pixels: number;
  fps: number;
  /** A cap or the display held it. */
  held: boolean;
}
