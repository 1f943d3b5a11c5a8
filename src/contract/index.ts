export {
  idsIn,
  takesBytes,
  usualBounds,
  type BodyBounds,
  type Endpoint,
  type HandedOut,
  type Method,
  type Who,
} from "./endpoint";
export {
  endpointList,
  endpointNamed,
  readBody,
  readQuery,
  type Body,
  type EndpointName,
  type HandledName,
  type Output,
  type Query,
  type SentBody,
} from "./registry";
export {
  apiSegments,
  backTo,
  endpointAt,
  endpointsAt,
  isId,
  isKeptPage,
  pageAt,
  pages,
  readTarget,
  type Target,
} from "./addresses";
export { createClient, type Asking, type Refusal, type Sent } from "./client";
export { openApi } from "./openapi";
export { endpointPages, type EndpointPage } from "./pages";
export { checkAnswer } from "./checkAnswer";
export { withWords } from "./withWords";
export { programRights } from "./people";
export type * from "./answers/jobs";
export type * from "./answers/runs";
export type * from "./answers/trials";
export type * from "./answers/profiles";
export type * from "./answers/kit";
export type * from "./views";
