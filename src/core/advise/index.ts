export { believe, sweptIn, triedIn, type Tried } from "./history";
export type { Belief } from "./shape";
export { allFastest, conditionLevers, leversFor, withSetting, type LeverSetting } from "./levers";
export type { Lever } from "./shape";
export { nextStep, type StepRun, type StepTrial } from "./nextStep";
export type { NextStep } from "./shape";
export {
  decideRate,
  limiterRate,
  limiterValueFor,
  overdriveByScene,
  recommendedArm,
  type RateInput,
} from "./rateDecision";
export type { Overdriven, RateCandidate, RateDecision } from "./shape";
export { designSizes, foldedOver, isMixed, screeningDesign, screeningEffects, type Design } from "./screening";
export type { MainEffect } from "./shape";
export { openingFor } from "./strategies";
export type { Opening } from "./shape";
export { heatCautions, outOfReach, outlook, suggest, type SuggestInput } from "./suggest";
export type { Suggestion } from "./shape";
export { replay, type Pipelining } from "./replay";
export type { AdviseCodes, ProposedChange, Sure } from "./codes";
