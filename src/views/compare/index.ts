export { ComparePanel, Working, armOf, noiseWords } from "./ComparePanel";
export { EffectList, IntervalLine, decisionNames, percent } from "./Effects";
export { useComparison, type ComparisonState } from "./useComparison";
