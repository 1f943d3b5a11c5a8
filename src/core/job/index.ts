export { firstRunFor } from "./firstRun";
export { baselineOf, runsOf, storyFrom, type Story, type StoryRun } from "./story";
export { diagnoseRun } from "./diagnosing";
export { confirmationOf, lastDecisionMs, latestTelling, wholeUnder } from "./telling";
export { passMinutes, readJob, usefulScaleOf, type JobReading, type JobSetting } from "./reading";
export { differing, heldConditions, isUnder, underArm, whatHolds, type Holding, type MadeUnder } from "./holds";
export {
  comparePlaces,
  placesHeld,
  placesOf,
  type ComparedPlace,
  type PlaceRow,
  type PlacesHeld,
} from "./places";
export type { Differing, JobCodes } from "./codes";
