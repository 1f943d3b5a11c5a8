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
 * person who tunes, or this machine; never a program. `device` is the agent of a rig, by its own token, and nobody
 * else.
 */
export type Who = "anybody" | "metrics" | "reads" | "runs" | "tunes" | "owner" | "device";

/** What the handler of an endpoint that hands out a file returns. */
export interface HandedOut {
  /** The name to save it under; none where it is shown, or read by a program. */
  name?: string;
  content: string | Uint8Array<ArrayBuffer> | ReadableStream<Uint8Array>;
  /** Bytes of a stream. */
  length?: number;
}

/** A file that an endpoint hands out. */
export interface FileType {
  /** Its media type (RFC 6838). */
  type: string;
  /** What it holds, where that is JSON. */
  holds?: z.ZodType;
  /** Seconds for which a caller may keep it; never where nothing is said. */
  keptSeconds?: number;
}

/**
 * One endpoint of the application: everything that callers and handlers have to agree on.
 * `Query` and `Body` are what the handler gets, `Sent` the body as a caller sends it, `Output` what is answered.
 */
export interface Endpoint<Query = unknown, Body = unknown, Sent = unknown, Output = unknown> {
  /** Its name; the table of handlers and the client call it by this. */
  id: string;
  method: Method;
  /** Under /api/v1, with ids in braces. */
  path: string;
  group: string;
  summary: string;
  who: Who;
  query: z.ZodType<Query> | null;
  body: z.ZodType<Body, Sent> | null;
  /** Bytes of a body, at most. */
  mostBytes: number;
  /** What a body of JSON may hold; null where it is none. */
  bounds: BodyBounds | null;
  output: z.ZodType<Output>;
  /** What kind of file is handed out; null where the answer is JSON. */
  file: FileType | null;
  /** The answer is a stream of server-sent events, which no handler makes. */
  streams: boolean;
  status: 200 | 201;
  /** Edits something that carries a version: `If-Match` says which one the edit saw. */
  edits: "required" | "optional" | null;
  /** Makes something new: an `Idempotency-Key` makes trying again safe. */
  creates: boolean;
  /** Statuses it may refuse with, beside those that every endpoint has. */
  refusals: (401 | 404 | 409 | 422 | 429)[];
}

const kilobyte = 1024;
const mostJsonBytes = 2 * kilobyte * kilobyte;
/** Read in under 50 ms whatever it is (`npm run bench -- bodies`). */
export const usualBounds: BodyBounds = { keys: 20_000, values: 50_000, texts: 50_000 };

/** A body that isn't JSON. */
export const bytesBody = z.instanceof(Uint8Array<ArrayBuffer>);
/** The output of an endpoint that hands out a file. */
export const fileOutput = z.custom<HandedOut>();

export const takesBytes = ({ body }: Pick<Endpoint, "body">): boolean => body === bytesBody;

type Own<Query, Body, Sent, Output> = Pick<
  Endpoint<Query, Body, Sent, Output>,
  "method" | "path" | "group" | "summary" | "output"
> &
  Partial<Omit<Endpoint<Query, Body, Sent, Output>, "id">>;

/** Declares an endpoint. What isn't said is as most have it: JSON in and out, nothing edited, nothing made. */
export function endpoint<Query = undefined, Body = undefined, Sent = undefined, Output = unknown>(
  own: Own<Query, Body, Sent, Output>,
): Omit<Endpoint<Query, Body, Sent, Output>, "id"> {
  return {
    who: own.method === "GET" ? "reads" : "tunes",
    query: null,
    body: null,
    mostBytes: mostJsonBytes,
    bounds: usualBounds,
    file: null,
    streams: false,
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
