export { kindOf, trialKinds, type Reading, type TrialKind } from "./kinds";
export type { KindOfTrial } from "./kind";
export { type ArmRole } from "./armRoles";
export { emptyPlan, mostArms } from "./shapes";
export { armConditionsSchema, type Arm, type ArmConditions, type TrialPlan } from "./shapesSchema";
export { choiceSchema, type Choice } from "./choiceSchema";
export { addedArmSchema, newTrialSchema, type NewTrial } from "./schema";
export { armName, type Draft, type PlanBase } from "./drafting";
export { armAt, nextArmName } from "./arms";
export { planMinutes, type Costs } from "./minutes";
export { targetFpsOf, type Traces, type TrialFacts, type TrialRun } from "./facts";
export type { Before, Planned } from "./shape";
export { isAgainst, usualGrade, usualLight } from "./outcome";
export type { Advice, ArmEvidence, Outcome, PairEffect, TrialOutcome } from "./shape";
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
  type Understood,
} from "./understand";
export type { ArmFigures, Progress, Visits } from "./shape";
export { comparePlan, descendPlan, type PlannedChange } from "./kinds/compare/plan";
export { factorPlan, factorsFor, type Factor, type FactorValue } from "./kinds/compare/factors";
export { leadPlan } from "./lead";
export { adviseComparison } from "./kinds/compare/advise";
export { pairEffects } from "./kinds/compare/pairs";
export type { CompareReading } from "./kinds/compare/shape";
export { otherSide, screeningPlan } from "./kinds/screen/plan";
export type { ScreeningReading } from "./kinds/screen/shape";
export { resolutionPlan, likelyScale, usualScales } from "./kinds/resolution/plan";
export type { ResolutionReading } from "./kinds/resolution/shape";
export { playedAt, powerPlan, type Place } from "./kinds/power/plan";
export type { PowerReading } from "./kinds/power/shape";
export { heatPlan } from "./kinds/heat/plan";
export type { HeatReading } from "./kinds/heat/shape";
export { clocksPlan } from "./kinds/clocks/plan";
export type { ClocksReading } from "./kinds/clocks/shape";
export { memoryPlan } from "./kinds/memory/plan";
export type { MemoryReading } from "./kinds/memory/shape";
export { ratePlan } from "./kinds/rate/plan";
export type { RateReading } from "./kinds/rate/shape";
export { armDoubts, armRunName, assignArms, inRunningOrder, nameInArm, standOut } from "./assign";
export type { Kept, LightChange, Losses, Pair, TrialCodes, Usual } from "./codes";
