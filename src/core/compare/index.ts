export { compareArms, type ArmsOutcome, type PairOutcome } from "./arms";
export { blockLength } from "./blockLength";
export { compare, type ArmFigures, type Comparison, type CompareOptions } from "./compare";
export { decide, furtherRuns, holm, type Decision, type Effect } from "./decide";
export { comparable, effectiveFps } from "./effective";
export { honesty, type Honesty, type Truth } from "./honesty";
export { assumedNoise, noiseFloor, reckonedSpread, rigNoise, type NoiseFloor } from "./noise";
export { armOrder, givesRounds, runOrder, stillToRun } from "./order";
export { RunCells, type RunFigures } from "./runCells";
