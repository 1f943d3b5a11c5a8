export { PackedJob } from "./PackedJob";
export { JobsScreen } from "./JobsScreen";
export { NewJobScreen } from "./NewJobScreen";
export { stretchText } from "./useAddress";
