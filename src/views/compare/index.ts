export { runsLike, noiseWords } from "./ComparePanel";
export { EffectList, IntervalLine, decisionNames, furtherWords, percent } from "./Effects";
export { type ComparisonState } from "./useComparison";
