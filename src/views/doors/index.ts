export { DoorsScreen } from "./DoorsScreen";
