export { deviceOf } from "./detect";
export { readingOf, type Kept } from "./reading";
export type { KernelTree, Looked } from "./tree";
