export { LookScreen } from "./LookScreen";
