export {
  campaignArmSchema,
  newCampaignSchema,
  mostCampaignArms,
  questions,
  titleInPlan,
  slotAnswers,
  answersForAll,
  type CampaignArm,
  type CampaignCosts,
  type NewCampaign,
  type Question,
  type SlotAnswer,
} from "./plan";
export type { CampaignPlan } from "./shape";
export type { CampaignFacts, CampaignPair, CampaignRun, CellFacts, SlotNote, TitleFacts } from "./shape";
export { answerCampaign } from "./answer";
export { type VersionChange } from "./changes";
export type {
  ArmAnswer,
  CampaignAnswer,
  CellAnswer,
  CellState,
  Share,
  TitleAnswer,
  TitleOutcome,
} from "./shape";
export { benjaminiHochberg, lookShare } from "./correct";
export type { StandingPair } from "./shape";
export { deviceOf, deviceTaker } from "./takers";
export { roundStates } from "./slots";
export type { Slot, SlotState } from "./shape";
export { isWholeOrder, mayTakeMore, orderOf, slotsOf } from "./order";
export type { PlannedSlot } from "./shape";
export {
  clockAfter,
  dayAfter,
  scheduleOf,
  type Evening,
  type Schedule,
  type ScheduleFacts,
  type ScheduledRun,
} from "./schedule";
export type { RigMinutes } from "./shape";
export { scaleArms } from "./scaleArms";
export { rigsPlan } from "./rigsPlan";
