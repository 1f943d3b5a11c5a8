export { BuildScreen } from "./BuildScreen";
export { LogScreen } from "./LogScreen";
