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
  jobBeginnings,
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
  type DoorBody,
  type DoorName,
  type DoorOutput,
} from "./doors";
export {
  abilitySchema,
  calendarQuery,
  campaignAnswerSchema,
  campaignChangeSchema,
  campaignOrderSchema,
  boardQuery,
  logQuery,
  planTitlesQuery,
  publicationQuery,
  takenPublicationSchema,
  takeSchema,
  titlePlaceSchema,
} from "./above";
export { changedPassphraseSchema, newLinkSchema, newProgramSchema, signInSchema } from "./trust";
export { call, createClient, type Asking, type Refusal, type Sent } from "./client";
export { openApi } from "./openapi";
export { doorPages, type DoorPage } from "./pages";
export { withWords } from "./withWords";
