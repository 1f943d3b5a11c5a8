export {
  averageFps,
  averageRate,
  blockRates,
  lowMethods,
  lows,
  speedPercent,
  total,
  type LowMethod,
  type LowPair,
  type Lows,
} from "./rate";
export {
  fullSpeed,
  fullSpeedOfReadings,
  leastFullSpeed,
  windowRates,
  type Dips,
  type FullSpeed,
} from "./fullSpeed";
export { freezeCount, hitches, type Hitch } from "./hitches";
export { pacing, type Pacing } from "./pacing";
export { isCold, passesOf, warmUp, type Pass, type WarmUp } from "./warmUp";
export { type Summary, type Yardstick } from "./summaryTypes";
export { methodVersion, summarise } from "./summary";
export { tallyFigures, tallyTrace, type Read, type TallyFigures } from "./tally";
export { leastOfReadings } from "./fullSpeed";
export { looksOf, unitOf } from "./looks";
export { readTyped, readingKinds, type ReadingKind, type Typed } from "./typed";
export { segmentsOf, type Segment } from "./segments";
export { defaultMeasuring, type MeasuringRules } from "./rules";
export { isHeld } from "./held";
export type { SceneFigures } from "./summaryTypes";
export { regularSpikes, type RegularSpikes } from "./spikes";
