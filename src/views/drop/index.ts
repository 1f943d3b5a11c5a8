export { DropZone, useBringIn, useBrought, useCarried, useCarry, useChooseFiles, useDrops } from "./DropZone";
