export * from "./types";
export { readLog } from "./reader";
export { ByteLogReader, mostLogBytes, readLogBytes, tooLarge } from "./bytes";
export {
  interleave,
  leastFrameMs,
  mostFrameMs,
  packTrace,
  separate,
  traceFrom,
  unpackTrace,
  valuesOf,
} from "./pack";
export { durationOf, endsOf, firstEndAfter, sliceTrace } from "./slice";
export { channelColumns, frameColumns, type PixelColumns } from "./pixels";
export { unitsFor } from "./units";
export { traceCsv } from "./csv";
