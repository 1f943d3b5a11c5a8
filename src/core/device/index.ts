export { deviceOf } from "./detect";
export { readingOf, type DeviceReading, type Kept } from "./reading";
export type { KernelTree, Looked } from "./tree";
export { beginOf, joined, type Growth, type Sampled } from "./joined";
export { GrowingLog, joinedMarks, type Grown } from "./growingLog";
