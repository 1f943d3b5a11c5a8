export { idsIn, usualBounds, type BodyBounds, type Door, type Method, type Who } from "./door";
export {
  backTo,
  doorAt,
  doorSegments,
  doorsAt,
  isId,
  pageAt,
  pages,
  readTarget,
  type Target,
} from "./addresses";
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
  stillsSchema,
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
  releaseSchema,
  titlePlaceSchema,
} from "./above";
export { changedPassphraseSchema, newLinkSchema, newProgramSchema, programRights, signInSchema } from "./trust";
export { createClient, type Asking, type Refusal, type Sent } from "./client";
export { openApi } from "./openapi";
export { doorPages, type DoorPage } from "./pages";
export { withWords } from "./withWords";
export type * from "./views";
