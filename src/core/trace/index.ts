export * from "./types";
export { problem } from "./problem";
export { readLog } from "./reader";
export { ByteLogReader, mostLogBytes, readLogBytes, tooLarge } from "./bytes";
export { leastFrameMs, mostFrameMs, mostRunMs } from "./bounds";
export {
  interleave,
  keptOf,
  packHead,
  packTrace,
  separate,
  traceFrom,
  traceOf,
  traceRole,
  PackRefusal,
  packedMeta,
  keptMs,
  strayMark,
  unpackKept,
  unpackTrace,
  valuesOf,
  type KeptOutline,
  type KeptTrace,
} from "./pack";
export { durationOf, endsOf, firstEndAfter, sliceTrace } from "./slice";
export {
  channelColumns,
  coarseTrace,
  drawnColumns,
  frameColumns,
  mostOfChannels,
  type CoarseTrace,
  type PixelColumns,
} from "./pixels";
export { frameSpread, type FrameSpread } from "./spread";
export { unitsFor } from "./units";
export { traceCsv } from "./csv";
export type { LinesSaid, TraceCodes } from "./codes";
export { GrowingColumns } from "./growingColumns";
