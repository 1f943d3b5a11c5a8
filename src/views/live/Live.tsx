"use client";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { useRouter } from "next/navigation";
import { useEffect, useState, type ReactNode } from "react";
import { setConnected } from "./connection";

interface Topic {
  kind: string;
  id: string;
}

/** Topics that pages made on the server show. */
const onServer = new Set(["bench", "jobs", "kit", "profile"]);
/** Topics that others hang on as well: a campaign's answer changes with every run of its jobs. */
const alsoStale: Record<string, string> = { jobs: "campaign" };

/** Pauses between tries where the stream of changes is refused, ms. */
const firstPauseMs = 3000,
  mostPauseMs = 60_000;

/** What came in within this time is shown anew once, ms. */
const gatherMs = 150;

/**
 * Refreshes what is shown when something changes, in this window, another, or another process.
 * @param seen the last change when the page was made
 */
export function Live({ seen, children }: { seen: string | null; children: ReactNode }) {
  const [client] = useState(
    () => new QueryClient({ defaultOptions: { queries: { staleTime: Infinity, retry: 1 } } }),
  );
  const [firstSeen] = useState(seen);
  const router = useRouter();
  useEffect(() => {
    let seenLast = firstSeen;
    let timer: ReturnType<typeof setTimeout> | undefined;
    let gathered: Topic[] = [];
    const show = () => {
      const topics = gathered;
      gathered = [];
      for (const { kind, id } of topics)
        void client.invalidateQueries({ queryKey: id === "" ? [kind] : [kind, id] });
      for (const kind of new Set(topics.flatMap((topic) => alsoStale[topic.kind] ?? [])))
        void client.invalidateQueries({ queryKey: [kind] });
      // Lists and the bench strip are made on the server.
      if (topics.some(({ kind }) => onServer.has(kind))) router.refresh();
    };
    let source: EventSource;
    let retry: ReturnType<typeof setTimeout> | undefined;
    let pause = firstPauseMs;
    const listen = () => {
      // What changed between the making of this page and this moment is told first.
      source = new EventSource(seenLast === null ? "/api/v1/events" : `/api/v1/events?since=${seenLast}`);
      source.onopen = () => {
        pause = firstPauseMs;
        setConnected(true);
      };
      source.onerror = () => {
        setConnected(false);
        // The browser goes on by itself, except where it was refused.
        if (source.readyState !== EventSource.CLOSED) return;
        retry = setTimeout(listen, pause);
        pause = Math.min(2 * pause, mostPauseMs);
      };
      source.onmessage = onMessage;
    };
    const onMessage = ({ data, lastEventId }: MessageEvent<string>) => {
      if (lastEventId !== "") seenLast = lastEventId;
      gathered.push(...(JSON.parse(data) as Topic[]));
      clearTimeout(timer);
      timer = setTimeout(show, gatherMs);
    };
    listen();
    const left = () => setConnected(false);
    window.addEventListener("offline", left);
    return () => {
      window.removeEventListener("offline", left);
      clearTimeout(timer);
      clearTimeout(retry);
      source.close();
    };
  }, [client, router, firstSeen]);
  return <QueryClientProvider client={client}>{children}</QueryClientProvider>;
}
