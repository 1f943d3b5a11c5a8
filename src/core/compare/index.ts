export { armOrder, compareArms, givesRounds, stillToRun, type ArmsOutcome, type PairOutcome } from "./arms";
export { blockLength } from "./blockLength";
export { compare, type ArmFigures, type Comparison, type CompareOptions } from "./compare";
export { decide, decisions, furtherRuns, holm, runOrder, type Decision, type Effect } from "./decide";
export { bySpeed, comparable, effectiveFps } from "./effective";
export { honesty, type Honesty, type Truth } from "./honesty";
export { assumedNoise, noiseFloor, reckonedSpread, rigNoise, type NoiseFloor } from "./noise";
export { RunCells, type RunFigures } from "./runCells";
