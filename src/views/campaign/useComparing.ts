"use client";
import { useEffect } from "react";
import { call } from "@/contract/client";
import type { CampaignView } from "@/core/records";

/** Has what isn't compared yet compared, one title after the other. */
export function useComparing({ campaign, pending }: CampaignView, refresh: () => void): void {
  const [next] = pending;
  const key = next && `${next.title} ${next.rigId} ${pending.length}`;
  const title = next?.title;
  const rigId = next?.rigId;
  useEffect(() => {
    if (!key || title === undefined) return;
    let current = true;
    void call("reckonCampaign", { id: campaign.id, body: { title, rigId } }).then((sent) => {
      if (current && sent.ok) refresh();
    });
    return () => {
      current = false;
    };
  }, [campaign.id, key, title, rigId, refresh]);
}
