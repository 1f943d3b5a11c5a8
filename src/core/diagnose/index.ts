export { causes, type Cause, type Evidence } from "./causes";
export { diagnose, type DiagnoseInput, type Diagnosis, type FoundCause } from "./diagnose";
export type { Limits } from "./clocks";
export type { ConditionResponse, ScaleResponse } from "./responses";
export type { Across, Cadence, ClockColumn, DiagnoseCodes, Half, Loads, SignCodes } from "./codes";
