export { compareArms, type ArmsOutcome, type PairOutcome } from "./arms";
export { blockLength } from "./blockLength";
export { compare, type ArmFigures, type Comparison } from "./compare";
export type { CompareOptions } from "./fitArms";
export { decide, decisions, furtherRuns, holm, type Decision, type Effect } from "./decide";
export { comparable, effectiveFps } from "./effective";
export {
  assumedNoise,
  rigPopulation,
  givenNoise,
  noiseFloor,
  pooledSpread,
  rigNoise,
  type NoiseFloor,
} from "./noise";
export { fitRuns, mixedWithOrder, type RunsFit } from "./fitRuns";
export { armOrder, runOrder, stillToRun } from "./order";
export { RunCells, type RunFigures } from "./runCells";
export { enoughChance, settles, type Step } from "./steps";
export type { CompareCodes } from "./codes";
