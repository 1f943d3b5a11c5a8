export { DropZone, useBringIn, useBrought, useCarried, useCarry, useChooseFiles, useDrops } from "./DropZone";
export { heldFiles, holdFiles } from "./filesChosen";
