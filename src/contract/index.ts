export { idsIn, type Door, type Method } from "./door";
export {
  addedJobSchema,
  appendSchema,
  carrySchema,
  checkSchema,
  liftSchema,
  profileQuery,
  profileValuesSchema,
  takenProfileSchema,
  undoValueSchema,
  benchChangeSchema,
  closeSchema,
  doorList,
  doors,
  finishSchema,
  jobChangeSchema,
  jobOrders,
  jobStates,
  jobsQuery,
  listQuery,
  manyRigsSchema,
  manyTitlesSchema,
  namedJobSchema,
  namedRulesSchema,
  openRunSchema,
  rejudgeSchema,
  revisionSchema,
  runChangeSchema,
  tallySchema,
  traceRole,
  type DoorBody,
  type DoorName,
  type DoorOutput,
} from "./doors";
export { call, createClient, type Asking, type Refusal, type Sent } from "./client";
export { openApi } from "./openapi";
export { doorPages, type DoorPage } from "./pages";
export { withWords } from "./withWords";
