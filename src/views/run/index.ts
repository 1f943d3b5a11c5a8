export { NewRunScreen } from "./NewRunScreen";
