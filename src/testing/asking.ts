import { endpointNamed, type EndpointName } from "@/contract";
import { answerApi } from "@/app/api/answer";
import { journal } from "@/server";
import { callerHeader, type Asker } from "@/server/actor";

/** What the route says of an answer that isn't what its endpoint promises: the journal's lines. */
export const broken: string[] = [];
export const noteWhatBreaks = (): void => {
  jest.spyOn(journal(), "error").mockImplementation(((told: { err?: Error }) => {
    if (told.err) broken.push(told.err.message);
  }) as never);
};

export interface Asked {
  id?: string;
  query?: Record<string, string>;
  body?: unknown;
  saw?: number;
  /** Who asks; this machine unless said. */
  as?: Asker;
}

/** An answer as a test reads it: its endpoint's schema was held against it already. */
// eslint-disable-next-line @typescript-eslint/no-explicit-any
type Answer = any;

/** Asks an endpoint as a browser does. @returns its status and, of JSON, its answer */
export async function ask(
  name: EndpointName,
  { id = "", query = {}, body, saw, as }: Asked = {},
): Promise<{ status: number; answer: Answer }> {
  const endpoint = endpointNamed(name);
  const path = `/api/v1${endpoint.path.replace("{id}", id)}`;
  const bytes = body instanceof Uint8Array;
  const response = await answerApi(
    new Request(`http://127.0.0.1${path}?${new URLSearchParams(query)}`, {
      method: endpoint.method,
      headers: {
        host: "127.0.0.1",
        ...(as && {
          [callerHeader]: encodeURIComponent(JSON.stringify({ asker: as, address: "", secure: false })),
        }),
        ...(body === undefined
          ? {}
          : { "content-type": bytes ? "application/octet-stream" : "application/json" }),
        ...(saw === undefined ? {} : { "if-match": `"${saw}"` }),
      },
      ...(body === undefined ? {} : { body: bytes ? (body as BodyInit) : JSON.stringify(body) }),
    }),
    path.split("/").slice(3),
  );
  const isJson = /json/.test(response.headers.get("content-type") ?? "");
  const answer: unknown = isJson ? await response.json() : await response.text();
  return { status: response.status, answer };
}

/** The answer of an endpoint that has to do what it is asked. @throws where it refuses */
export async function done(name: EndpointName, asked: Asked = {}) {
  const { status, answer } = await ask(name, asked);
  if (status >= 300) throw new Error(`${name}: ${status} ${JSON.stringify(answer)} ${broken.join("; ")}`);
  answered.add(name);
  return answer;
}
/** Endpoints that did what they were asked. */
export const answered = new Set<EndpointName>();
