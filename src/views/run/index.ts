export { LogQueue, type RunOfLog } from "./LogQueue";
export { NewRunScreen } from "./NewRunScreen";
export { TallyPad } from "./TallyPad";
export { Ways } from "./Ways";
