export { BestPage } from "./BestPage";
export { BoardPage } from "./BoardPage";
