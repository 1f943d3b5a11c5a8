"use client";
import { format } from "date-fns";
import { useEffect, useMemo, useState } from "react";
import { scheduleOf, type Schedule, type ScheduleFacts } from "@/core/campaign";
import type { CampaignView } from "@/core/records";

export const scheduleFacts = ({
  campaign,
  arms,
  titles,
  rigs,
}: Pick<CampaignView, "campaign" | "arms" | "titles" | "rigs">): ScheduleFacts => ({
  plan: campaign.plan,
  arms,
  titles,
  rigs,
});

const nowHere = () => ({ date: format(new Date(), "yyyy-MM-dd"), clock: format(new Date(), "HH:mm") });

/** Minutes after which what is planned for now is planned anew. */
const againMs = 60_000;

/** The runs still to be made, from now on by this device's own clock; null before the page is at hand. */
export function useSchedule(view: CampaignView): Schedule | null {
  const [now, setNow] = useState<ReturnType<typeof nowHere> | null>(null);
  useEffect(() => {
    setNow(nowHere());
    const timer = setInterval(() => setNow(nowHere()), againMs);
    return () => clearInterval(timer);
  }, []);
  return useMemo(
    () =>
      now &&
      scheduleOf(
        scheduleFacts(view),
        view.slots.filter(({ state }) => state === "open"),
        now,
      ),
    [view, now],
  );
}
