export { headBytes, recognise } from "./recognise";
export { savedJob, type SavedJob } from "./savedJob";
export type { Incoming, IncomingKind } from "./shape";
