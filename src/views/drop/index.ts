export { DropZone, useCarried, useCarry, useChooseFiles, useDrops } from "./DropZone";
