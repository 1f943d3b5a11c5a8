export { BuildPage } from "./BuildPage";
export { LogPage } from "./LogPage";
