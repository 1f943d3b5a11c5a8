import { z } from "@/core/schema";

/**
 * How much a JSON body may hold. Bytes say little of what reading it costs: two megabytes of `[]` are a third
 * of a second, two of text are nothing.
 */
export interface BodyBounds {
  /** Names in objects, each as often as it stands there. */
  keys: number;
  /** Values in lists and objects. */
  values: number;
  /** Texts, names among them. */
  texts: number;
}

export type Method = "GET" | "POST" | "PUT" | "PATCH" | "DELETE";

/**
 * Who may: anybody, or whoever may see the application's own figures, read, bring runs in, or tune. An owner is a
 * person who tunes, or this machine; never a program.
 */
export type Who = "anybody" | "metrics" | "reads" | "runs" | "tunes" | "owner";

/** One door of the application: everything that callers and handlers have to agree on. */
export interface Door<Query = unknown, Body = unknown, Output = unknown> {
  /** Its name; the server's table of use-cases and the client call it by this. */
  id: string;
  method: Method;
  /** Under /api/v1, with ids in braces. */
  path: string;
  group: string;
  summary: string;
  who: Who;
  query: z.ZodType<Query> | null;
  body: z.ZodType<Body> | null;
  /** What a body that isn't JSON holds. */
  takes: "json" | "bytes";
  /** Bytes of a body, at most. */
  mostBytes: number;
  /** What a body of JSON may hold; null where it is none. */
  bounds: BodyBounds | null;
  output: z.ZodType<Output>;
  gives: "json" | "bytes" | "file" | "csv" | "calendar" | "plain" | "png" | "events";
  status: 200 | 201;
  /** Edits something that carries a version: `If-Match` says which one the edit saw. */
  edits: "required" | "optional" | null;
  /** Makes something new: an `Idempotency-Key` makes trying again safe. */
  creates: boolean;
  /** Statuses it may refuse with, beside those that every door has. */
  refusals: (401 | 404 | 409 | 422 | 429)[];
}

const kilobyte = 1024;
const mostJsonBytes = 2 * kilobyte * kilobyte;
/** Read in under 50 ms whatever it is (`npm run bench -- bodies`). */
export const usualBounds: BodyBounds = { keys: 20_000, values: 50_000, texts: 50_000 };

type Own<Query, Body, Output> = Pick<
  Door<Query, Body, Output>,
  "method" | "path" | "group" | "summary" | "output"
> &
  Partial<Omit<Door<Query, Body, Output>, "id">>;

/** A door with what most have: JSON in and out, nothing edited, nothing made. */
export function door<Query = undefined, Body = undefined, Output = unknown>(
  own: Own<Query, Body, Output>,
): Omit<Door<Query, Body, Output>, "id"> {
  return {
    who: own.method === "GET" ? "reads" : "tunes",
    query: null,
    body: null,
    takes: "json",
    mostBytes: mostJsonBytes,
    bounds: usualBounds,
    gives: "json",
    status: own.creates ? 201 : 200,
    edits: null,
    creates: false,
    refusals: [],
    ...own,
  };
}

/** Names of the ids in a path. @example idsIn("/jobs/{id}/runs/{run}") // → ["id", "run"] */
export const idsIn = (path: string): string[] => [...path.matchAll(/\{(\w+)\}/g)].map(([, name]) => name ?? "");

/** An id asked for in an address; empty where none is. */
export const askedId = z.union([z.uuid("This is no id."), z.literal("")]).default("");
