export { GlossaryPage } from "./GlossaryPage";
