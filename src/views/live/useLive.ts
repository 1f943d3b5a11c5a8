"use client";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect } from "react";
import { call } from "@/contract/client";
import type { EndpointName, Output } from "@/contract";

/** Screens that stay up to date, and the topic that changes to each are told under. */
const topicOf = { viewJob: "job", viewTrial: "trial", viewCampaign: "campaign" } as const satisfies Partial<
  Record<EndpointName, string>
>;
type Shown = keyof typeof topicOf;

/**
 * A view that is asked for anew whenever it changes; what the page was made with is shown meanwhile.
 * @param loaded as the page was made with it
 */
export function useLive<Name extends Shown>(
  name: Name,
  id: string,
  loaded: Output<Name>,
): { view: Output<Name>; refresh: () => void } {
  const client = useQueryClient();
  const topic = topicOf[name];
  const { data = loaded } = useQuery<Output<Name>>({
    queryKey: [topic, id],
    queryFn: async () => {
      const sent = await call(name, { id });
      if (!sent.ok) throw new Error(sent.refusal.title);
      return sent.answer;
    },
    initialData: loaded,
  });
  // A page made anew on the server is the newest there is.
  useEffect(() => {
    client.setQueryData([topic, id], loaded);
  }, [client, topic, id, loaded]);
  const refresh = useCallback(
    () => void client.invalidateQueries({ queryKey: [topic, id] }),
    [client, topic, id],
  );
  return { view: data, refresh };
}
