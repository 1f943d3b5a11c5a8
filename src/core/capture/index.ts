export { cellCount, cellsIn, cellsOf, type LumaPlane, type Region } from "./cells";
export { ChangeMeter, regionOfTiles, type PictureChange } from "./change";
export { classify } from "./classify";
export { captureInterval, picturesFrom, type Pictures, type Stamps } from "./pictures";
export { counterDigits, plausible, type Counter, type RawReading } from "./readings";
export { judgedCapture, type OpenBecause } from "./judged";
export {
  NothingMoves,
  captureResult,
  momentOf,
  type CaptureResult,
  type CaptureYardstick,
  type Observed,
} from "./result";
export { keptTrace, runTime } from "./kept";
export type { Settled, UnsurePicture } from "./settled";
export { momentKinds, momentsOf, type CaptureMoment, type MomentKind } from "./moments";
export { mostStills, stillMoments, stillPixels } from "./stills";
export type { StillMoment } from "./shape";
export { clockOnScreen, speedByClock, type ClockLook, type ClockSpeed } from "./clock";
export type { CaptureCodes } from "./codes";
