export { ApiPage } from "./ApiPage";
