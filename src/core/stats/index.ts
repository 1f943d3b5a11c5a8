export { medianOf, quantile } from "./quantile";
export { lag1, mean, standardDeviation } from "./moments";
export { garwood, meanInterval, normalQuantile, poissonUpper, tQuantile, wilson, type Interval } from "./intervals";
export { seeded, type Random } from "./random";
