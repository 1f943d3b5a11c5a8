export { type Evidence } from "./sign";
export { causes, type Cause } from "./causes";
export { diagnose, type DiagnoseInput, type Diagnosis, type FoundCause } from "./diagnose";
export type { Limits } from "./clocks";
export type { ConditionResponse, ScaleResponse } from "./responses";
export type { Across, Cadence, ClockColumn, DiagnoseCodes, Half, Loads, SignCodes } from "./codes";
