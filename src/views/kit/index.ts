export { KitScreen } from "./KitScreen";
export { RigForm } from "./RigForm";
export { TitleForm } from "./TitleForm";
