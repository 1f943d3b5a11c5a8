export { heatAt } from "./warming";
export { frameTimeAt } from "./curves";
export {
  fitScaleLaw,
  leastStep,
  mostScale,
  type ScaleLaw,
  type ScaleLevel,
  type ScalePrediction,
} from "./scaleLaw";
export { powerSweep, runtimeHours, type PowerLevel, type PowerRow, type PowerSweep } from "./power";
export {
  coolDownMinutes,
  fitHeat,
  limitOutlook,
  secondsToLimit,
  type HeatFit,
  type LimitOutlook,
} from "./heat";
export { crashRate, type CrashRate } from "./crashes";
export { audioQueueDelayMs } from "./soundQueue";
export {
  ladder,
  ladderStep,
  type LadderNext,
  type LadderPlan,
  type LadderRun,
  type LadderState,
} from "./clocks";
export { chooseSchool, type School, type SchoolChoice } from "./schools";
export { memoryGrowth, minutesWith, type MemoryGrowth } from "./memory";
export { nextScale, type NextScale } from "./nextLevel";
export { hidesWork, isPaced, usualFrameMs } from "./usualFrame";
export { burstAndSustained, throttling, type Throttle } from "./throttle";
export type { HeatPart } from "./heatParts";
export type { Mode, SoakFault, SweepCodes } from "./codes";
