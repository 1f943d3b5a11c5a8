export {
  campaignArmSchema,
  newCampaignSchema,
  mostArms,
  questions,
  titleInPlan,
  slotAnswers,
  answersForAll,
  type CampaignArm,
  type CampaignCosts,
  type CampaignPlan,
  type NewCampaign,
  type Question,
  type SlotAnswer,
} from "./plan";
export type { CampaignFacts, CampaignPair, CampaignRun, CellFacts, SlotNote, TitleFacts } from "./facts";
export {
  answerCampaign,
  changes,
  type ArmAnswer,
  type CampaignAnswer,
  type CellAnswer,
  type CellState,
  type Share,
  type TitleAnswer,
  type TitleOutcome,
  type VersionChange,
} from "./answer";
export { benjaminiHochberg, lookShare, type StandingPair } from "./correct";
export { deviceOf, deviceTaker } from "./takers";
export { roundStates, type Slot, type SlotState } from "./slots";
export { isWholeOrder, mayTakeMore, orderOf, slotsOf, type PlannedSlot } from "./order";
export {
  clockAfter,
  dayAfter,
  scheduleOf,
  type Evening,
  type RigMinutes,
  type Schedule,
  type ScheduleFacts,
  type ScheduledRun,
} from "./schedule";
export { scaleArms } from "./scaleArms";
