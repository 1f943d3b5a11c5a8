export { titlesIn, type PastedTitle, type PastedTitles } from "./titles";
export { rigIn, type RigFact, type RigPath } from "./rig";
