export {
  busyOf,
  cpuList,
  cpuTimes,
  driveRange,
  figureIn,
  linesOf,
  memoryOf,
  modeOf,
  numbersIn,
  osName,
  pressureOf,
  swapOf,
  type CpuTimes,
} from "./kernel";
export { deviceOf, type DeviceFacts } from "./detect";
export { readingOf, type DeviceReading, type Kept } from "./reading";
export { type KernelTree, type Looked } from "./tree";
