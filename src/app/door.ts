import type { ReactNode } from "react";
import { createElement } from "react";
import { Problem, asProblem } from "@/server";
import { ProblemPanel } from "@/ui";

/** What a route with an id in its address is handed. */
export interface WithId {
  params: Promise<{ id: string }>;
}

/** Requests from elsewhere than the page itself may not write: Host and Origin are held against each other. */
function checkOrigin(request: Request): void {
  const origin = request.headers.get("origin");
  const host = request.headers.get("host") ?? "";
  const local = /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/.test(host);
  if (!local)
    throw new Problem(421, "This address isn't answered.", "Open the application at the address it printed.");
  if (origin !== null && new URL(origin).host !== host)
    throw new Problem(
      403,
      "This request came from another site and was refused.",
      "Use the application's own page.",
    );
  if (origin === null && request.headers.get("sec-fetch-site") === "cross-site")
    throw new Problem(
      403,
      "This request came from another site and was refused.",
      "Use the application's own page.",
    );
}

function refused(error: unknown): Response {
  let problem: Problem;
  try {
    problem = asProblem(error);
  } catch (unknown) {
    console.error(unknown);
    problem = new Problem(
      500,
      "Something went wrong here.",
      "Nothing was changed. Try again; the log of the server says more.",
    );
  }
  return Response.json(problem.toJSON(), {
    status: problem.status,
    headers: { "content-type": "application/problem+json", "cache-control": "no-store" },
  });
}

const answer = (body: unknown, status = 200) =>
  body instanceof Response
    ? body
    : Response.json(body ?? {}, { status, headers: { "cache-control": "no-store" } });

/** A route that changes nothing. */
export async function reads(action: () => Promise<unknown>): Promise<Response> {
  try {
    return answer(await action());
  } catch (error) {
    return refused(error);
  }
}

const mostJsonBytes = 2 * 1024 * 1024;

/** A route that changes something; its body is JSON. */
export async function writes(
  request: Request,
  action: (body: unknown) => Promise<unknown>,
  status = 200,
): Promise<Response> {
  try {
    checkOrigin(request);
    const text = new TextDecoder().decode(await bodyOf(request, mostJsonBytes));
    let body: unknown;
    try {
      body = text === "" ? undefined : JSON.parse(text);
    } catch {
      throw new Problem(400, "The request's body is no JSON.", "Send a JSON object.");
    }
    return answer(await action(body), status);
  } catch (error) {
    return refused(error);
  }
}

/** A route that takes bytes, up to a limit, read as a stream. */
export async function takesBytes(
  request: Request,
  limit: number,
  action: (bytes: Uint8Array) => Promise<unknown>,
): Promise<Response> {
  try {
    checkOrigin(request);
    return answer(await action(await bodyOf(request, limit)), 201);
  } catch (error) {
    return refused(error);
  }
}

async function bodyOf(request: Request, limit: number): Promise<Uint8Array> {
  const tooMuch = new Problem(
    413,
    `The request is larger than ${Math.round(limit / 1024 / 1024)} MB.`,
    "Send less at once.",
  );
  if (Number(request.headers.get("content-length") ?? 0) > limit) throw tooMuch;
  const parts: Uint8Array[] = [];
  let length = 0;
  if (request.body) {
    for await (const part of request.body as unknown as AsyncIterable<Uint8Array>) {
      length += part.length;
      if (length > limit) throw tooMuch;
      parts.push(part);
    }
  }
  const bytes = new Uint8Array(length);
  let at = 0;
  for (const part of parts) {
    bytes.set(part, at);
    at += part.length;
  }
  return bytes;
}

/** What a page shows from a use-case; a refusal becomes a panel that says what to do. */
export async function shown<View>(
  load: () => Promise<View>,
  show: (view: View) => ReactNode,
): Promise<ReactNode> {
  let view: View;
  try {
    view = await load();
  } catch (error) {
    const { title, fix, status } = asProblem(error);
    return createElement(ProblemPanel, { title, fix, retry: status === 503 });
  }
  return show(view);
}
