"use client";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { useRouter } from "next/navigation";
import { useEffect, useState, type ReactNode } from "react";

interface Topic {
  kind: string;
  id: string;
}

/** Topics that pages made on the server show. */
const onServer = new Set(["bench", "jobs", "kit", "profile"]);
/** Topics that others hang on as well: a campaign's answer changes with every run of its jobs. */
const alsoStale: Record<string, string> = { jobs: "campaign" };

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
    // What changed between the making of this page and this moment is told first.
    const source = new EventSource(firstSeen === null ? "/api/v1/events" : `/api/v1/events?since=${firstSeen}`);
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
    source.onmessage = ({ data }: MessageEvent<string>) => {
      gathered.push(...(JSON.parse(data) as Topic[]));
      clearTimeout(timer);
      timer = setTimeout(show, gatherMs);
    };
    return () => {
      clearTimeout(timer);
      source.close();
    };
  }, [client, router, firstSeen]);
  return <QueryClientProvider client={client}>{children}</QueryClientProvider>;
}
