export { medianOf, quantile } from "./quantile";
export { lag1, mean, standardDeviation, varianceOf } from "./moments";
export {
  betaQuantile,
  effectiveNumber,
  unbiasedLag1,
  fTail,
  garwood,
  meanInterval,
  normalBelow,
  normalDensity,
  normalQuantile,
  poissonUpper,
  tQuantile,
  tTwoSided,
  wilson,
} from "./intervals";
export type { Interval } from "./shape";
export { weightedLine, type Line } from "./line";
export { leastSquares, solveNormal } from "./leastSquares";
export { normalMixture } from "./mixture";
export { theilSen, type TheilSen } from "./theilSen";
export { thinned } from "./thin";
export { chiSquared, seeded, studentT, type Random } from "./random";
