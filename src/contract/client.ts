import type { SentBody, EndpointName, Output } from "./registry";
import { endpoints } from "./endpoints";

/** What a refused request says, ready to show. */
export interface Refusal {
  status: number;
  title: string;
  fix: string;
  fields: Record<string, string>;
  /** For an edit that saw an older version: that one, and the one there is now. */
  versions: { saw: number; current: number } | null;
}

export type Sent<Answer> = { ok: true; answer: Answer } | { ok: false; refusal: Refusal };

export interface Asking<Name extends EndpointName> {
  /** The id in the path. */
  id?: string;
  query?: Record<string, string | number | boolean>;
  body?: SentBody<Name> | Uint8Array<ArrayBuffer> | string;
  /** The version that an edit saw. */
  saw?: number;
  /** What makes trying again safe; made up where none is given. */
  key?: string;
}

/** Tries of something that may safely be tried again, and the pause between them, ms. */
const mostTries = 3,
  pauseMs = 400;

const noAnswer: Refusal = {
  status: 0,
  title: "The application doesn't answer.",
  fix: "Nothing was lost here: try again when it does.",
  fields: {},
  versions: null,
};

const isBytes = (body: unknown) => body instanceof Uint8Array || typeof body === "string";

/**
 * A client of the application's own endpoints: what it sends and gets is typed by the contract. Never throws.
 * @param base where the application is; empty for the page's own
 * @param token of a program, where somebody has to say who they are
 */
export function createClient(base = "", token: string | null = null) {
  return async function call<Name extends EndpointName>(
    name: Name,
    { id = "", query, body, saw, key }: Asking<Name> = {},
  ): Promise<Sent<Output<Name>>> {
    const endpoint = endpoints[name];
    const asked = new URLSearchParams(
      Object.entries(query ?? {}).map(([field, value]) => [field, String(value)]),
    );
    const path = endpoint.path.replace("{id}", encodeURIComponent(id));
    const address = `${base}/api/v1${path}${asked.size > 0 ? `?${asked}` : ""}`;
    const headers: Record<string, string> = token === null ? {} : { authorization: `Bearer ${token}` };
    if (body !== undefined)
      headers["content-type"] = isBytes(body) ? "application/octet-stream" : "application/json";
    if (saw !== undefined) headers["if-match"] = `"${saw}"`;
    if (endpoint.creates) headers["idempotency-key"] = key ?? crypto.randomUUID();
    const sent = body === undefined ? undefined : isBytes(body) ? (body as BodyInit) : JSON.stringify(body);
    for (let tries = 1; ; tries++) {
      try {
        const response = await fetch(address, { method: endpoint.method, headers, body: sent });
        const answer = await response.json();
        if (response.ok) return { ok: true, answer };
        const { status } = response;
        const versions =
          typeof answer.current === "number" ? { saw: answer.saw, current: answer.current } : null;
        const { title, detail: fix, fields = {} } = answer;
        return { ok: false, refusal: { status, title, fix, fields, versions } };
      } catch {
        // A key makes it safe to ask again for what may have been made.
        if (tries >= mostTries || !(endpoint.creates || endpoint.method === "GET"))
          return { ok: false, refusal: noAnswer };
        await new Promise((resolve) => setTimeout(resolve, pauseMs * tries));
      }
    }
  };
}

/** Calls an endpoint of the page's own application. */
export const call = createClient();
