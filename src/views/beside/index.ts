export { BesidePage } from "./BesidePage";
