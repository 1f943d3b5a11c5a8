export { kindOf, trialKinds, type Reading, type TrialKind } from "./kinds";
export type { TrialKind as KindOfTrial } from "./kind";
export { armRoles, type ArmRole } from "./armRoles";
export { emptyPlan, mostArms } from "./shapes";
export {
  armConditionsSchema,
  trialPlanSchema,
  type Arm,
  type ArmConditions,
  type TrialPlan,
} from "./shapesSchema";
export { choiceSchema, type Choice } from "./choiceSchema";
export { addedArmSchema, newTrialSchema, type NewTrial } from "./schema";
export { armName, type Draft, type PlanBase } from "./drafting";
export { armAt, nextArmName } from "./arms";
export { planMinutes, type Costs } from "./minutes";
export { targetFpsOf, type Before, type Planned, type Traces, type TrialFacts, type TrialRun } from "./facts";
export {
  isAgainst,
  usualGrade,
  usualLight,
  type Advice,
  type ArmEvidence,
  type Outcome,
  type PairEffect,
  type TrialOutcome,
} from "./outcome";
export {
  armFigures,
  displayOf,
  driftOf,
  evidenceOf,
  progressOf,
  tracesNeeded,
  understand,
  usableRuns,
  visitsOf,
  type ArmFigures,
  type Progress,
  type Understood,
  type Visits,
} from "./understand";
export { comparePlan, descendPlan, type Change } from "./kinds/compare/plan";
export { leadPlan } from "./lead";
export { adviseComparison } from "./kinds/compare/advise";
export { pairEffects } from "./kinds/compare/pairs";
export type { CompareReading } from "./kinds/compare/read";
export { otherSide, screeningPlan } from "./kinds/screen/plan";
export type { ScreeningReading } from "./kinds/screen/read";
export { resolutionPlan, likelyScale, usualScales } from "./kinds/resolution/plan";
export type { ResolutionReading } from "./kinds/resolution/read";
export { places, powerPlan, type Place } from "./kinds/power/plan";
export type { PowerReading } from "./kinds/power/read";
export { heatPlan } from "./kinds/heat/plan";
export type { HeatReading } from "./kinds/heat/read";
export { clocksPlan } from "./kinds/clocks/plan";
export type { ClocksReading } from "./kinds/clocks/read";
export { memoryPlan } from "./kinds/memory/plan";
export type { MemoryReading } from "./kinds/memory/read";
export { ratePlan } from "./kinds/rate/plan";
export type { RateReading } from "./kinds/rate/read";
export { assignArms, inRunningOrder, type AssignedBy } from "./assign";
export type { Kept, LightChange, Pair, TrialCodes, Usual } from "./codes";
