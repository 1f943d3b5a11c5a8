export { believe, type Belief, type Tried } from "./history";
export {
  allFastest,
  isScale,
  leversFor,
  limiterOf,
  withSetting,
  type Lever,
  type LeverSetting,
} from "./levers";
export { enoughRepeats, nextStep, type NextStep, type StepRun, type StepTrial } from "./nextStep";
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
export { designSizes, screeningDesign, screeningEffects, type Design, type MainEffect } from "./screening";
export { halfSpeed, openingFor, strategyWords, type Opening } from "./strategies";
export { heatCautions, suggest, type SuggestInput, type Suggestion } from "./suggest";
export {
  adviseComparison,
  adviseScreening,
  effectWords,
  keepOrPutBack,
  pairEffects,
  usualGrade,
  type Advice,
  type ArmEvidence,
  type PairEffect,
  type TrialOutcome,
} from "./outcome";
