export type { Evidence } from "./shape";
export { causes, type Cause } from "./causes";
export { diagnose, type DiagnoseInput } from "./diagnose";
export type { Diagnosis, FoundCause } from "./shape";
export type { Limits } from "./clocks";
export type { ConditionResponse, ScaleResponse } from "./responses";
export type { Across, Cadence, ClockColumn, DiagnoseCodes, Half, Loads, SignCodes } from "./codes";
