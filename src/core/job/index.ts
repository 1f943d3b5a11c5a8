export { baselineOf, runsOf, storyFrom, type Story, type StoryRun } from "./story";
export { diagnoseRun } from "./diagnosing";
export { confirmationOf, latestTelling } from "./telling";
export { readJob, sceneMinutes, usefulScaleOf, type JobReading, type JobSetting } from "./reading";
