export { JobScreen } from "./JobScreen";
export { JobsScreen } from "./JobsScreen";
export { NewJobScreen } from "./NewJobScreen";
