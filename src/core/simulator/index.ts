export {
  clockFor,
  deviceUnder,
  governorClock,
  heatFactor,
  settledPower,
  wattsAt,
  type SimConditions,
  type SimDevice,
  type SimGovernor,
  type SimPower,
  type SimProfile,
} from "./device";
export { seedOf, standInCooled, standInPlay, standInRun, type StandInAsked, type StandInPlay } from "./standIn";
export { simulate, type SimRun } from "./simulate";
export { underSettings, type SimEffect, type SimEffects, type SimScene, type SimWorkload } from "./workload";
