export { causes, type Cause, type Evidence } from "./causes";
export { diagnose, type DiagnoseInput, type Diagnosis, type FoundCause } from "./diagnose";
export type { Limits } from "./evidence";
export type { ConditionResponse, ScaleResponse } from "./responses";
export {
  labelledCase,
  reliability,
  scoreDiagnosis,
  type Confusion,
  type LabelledCase,
  type Reliability,
} from "./labelled";
