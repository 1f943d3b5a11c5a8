export { believe, sweptIn, triedIn, type Belief, type Tried } from "./history";
export { allFastest, conditionLevers, leversFor, withSetting, type Lever, type LeverSetting } from "./levers";
export { nextStep, type NextStep, type StepRun, type StepTrial } from "./nextStep";
export {
  decideRate,
  limiterRate,
  limiterValueFor,
  overdriveByScene,
  recommendedArm,
  type Overdriven,
  type RateCandidate,
  type RateDecision,
  type RateInput,
} from "./rateDecision";
export {
  designSizes,
  foldedOver,
  isMixed,
  screeningDesign,
  screeningEffects,
  type Design,
  type MainEffect,
} from "./screening";
export { openingFor, type Opening } from "./strategies";
export { heatCautions, outOfReach, suggest, type SuggestInput, type Suggestion } from "./suggest";
export { replay, type Working } from "./replay";
export type { AdviseCodes, Change, Sure } from "./codes";
