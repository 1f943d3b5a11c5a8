export { DonePage } from "./DonePage";
