export { DoorsPage } from "./DoorsPage";
