export { baselineOf, isColdRun, runsOf, storyFrom, type Story, type StoryRun } from "./story";
export { diagnoseRun } from "./diagnosing";
export { confirmationOf, latestTelling, speedOf } from "./telling";
export { readJob, sceneMinutes, usefulScaleOf, type JobReading, type JobSetting } from "./reading";
