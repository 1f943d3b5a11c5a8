import { mayPass, watchChanges, whoCalls, type Caller } from "@/server";

/** Milliseconds between signs of life, so that nobody between closes a quiet stream. */
const beatMs = 15_000;

/**
 * Changes as server-sent events; a browser that was away says the last one it saw. Whoever listens is looked at
 * again before each: the stream ends with the session or the token that let it in.
 */
export function streamChanges(request: Request, { asker, secure }: Caller): Response {
  const encoder = new TextEncoder();
  const since = request.headers.get("last-event-id") ?? new URL(request.url).searchParams.get("since");
  const [authorization, cookie] = ["authorization", "cookie"].map(
    (name) => request.headers.get(name) ?? undefined,
  );
  const mayStay = async () => {
    const now = await whoCalls({ authorization, cookie, secure }).catch(() => null);
    return now?.id === asker?.id && mayPass(now, "reads");
  };
  let end = () => {};
  const stream = new ReadableStream<Uint8Array>({
    async start(controller) {
      let isOver = false;
      let unwatch = () => {};
      const send = (text: string) => {
        try {
          controller.enqueue(encoder.encode(text));
        } catch {
          end();
        }
      };
      // One after the other: what comes while the session is looked at waits for it.
      let told = Promise.resolve();
      const tell = (text: string) => {
        told = told.then(async () => {
          if (isOver) return;
          if (await mayStay()) send(text);
          else end();
        });
      };
      const beat = setInterval(() => tell(": here\n\n"), beatMs);
      end = () => {
        if (isOver) return;
        isOver = true;
        clearInterval(beat);
        unwatch();
        try {
          controller.close();
        } catch {
          // Closed by the other side already.
        }
      };
      send("retry: 2000\n\n");
      unwatch = await watchChanges(since, ({ id, topics }) =>
        tell(`id: ${id}\ndata: ${JSON.stringify(topics)}\n\n`),
      );
      if (isOver) unwatch();
      if (request.signal.aborted) end();
      request.signal.addEventListener("abort", () => end());
    },
    cancel: () => end(),
  });
  return new Response(stream, {
    headers: { "content-type": "text/event-stream", "cache-control": "no-store" },
  });
}
