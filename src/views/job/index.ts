export { PackedJob } from "./PackedJob";
export { JobsPage } from "./JobsPage";
export { NewJobPage } from "./NewJobPage";
export { stretchText } from "./useAddress";
