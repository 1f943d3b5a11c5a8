export { BoardScreen } from "./BoardScreen";
