export { heatFactor, referenceWatts, speedAt, type SimDevice } from "./device";
export { simulate, type SimRun } from "./simulate";
export { underSettings, type SimEffect, type SimEffects, type SimScene, type SimWorkload } from "./workload";
