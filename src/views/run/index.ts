export { LogQueue, type RunOfLog } from "./LogQueue";
export { NewRunPage } from "./NewRunPage";
export { TallyPad } from "./TallyPad";
export { RunSources } from "./Ways";
