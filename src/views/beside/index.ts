export { BesideScreen } from "./BesideScreen";
