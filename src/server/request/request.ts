import type { Body, HandledName, Output, Query } from "@/contract";
import type { Asker, Caller } from "@/server/actor";

/** What an endpoint is asked, as its contract's schemas read it, and by whom. */
export interface Request<Name extends HandledName> {
  actor: Asker;
  /** Who calls, from where. */
  caller: Caller;
  /** What the browser or program calls itself. */
  agent: string;
  /** The id in the path; empty where it has none. */
  id: string;
  query: Query<Name>;
  body: Body<Name>;
  /** The version that an edit saw; null where it doesn't say. */
  saw: number | null;
  /** Hands the caller a session's cookie along with the answer, or takes it away. */
  setCookie: (cookie: string) => void;
}

/** One handler an endpoint: the same names as in the contract, typed by it. */
export type Handlers<Name extends HandledName = HandledName> = {
  [Each in Name]: (request: Request<Each>) => Promise<Output<Each>>;
};
