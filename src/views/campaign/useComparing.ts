"use client";
import { useQuery } from "@tanstack/react-query";
import { call } from "@/contract/client";
import type { CampaignView } from "@/core/records";

/** Has what isn't compared yet compared, one title after the other. */
export function useComparing({ campaign, pending }: CampaignView, refresh: () => void): void {
  const [next] = pending;
  useQuery({
    queryKey: ["comparing", campaign.id, next?.title, next?.rigId, pending.length],
    enabled: next !== undefined,
    // The same title may wait again: what was asked once isn't remembered.
    gcTime: 0,
    queryFn: async () => {
      if (!next) return false;
      const sent = await call("reckonCampaign", { id: campaign.id, body: next });
      if (sent.ok) refresh();
      return sent.ok;
    },
  });
}
