"use client";
import { useQuery } from "@tanstack/react-query";
import { call } from "@/contract/client";

const askedAgainMs = 4000;

/**
 * Asks the server to make what a trial comes to, once for the runs there are, where that isn't at hand.
 * @param pending which facts aren't reckoned yet; others than before are asked for again
 * @param refresh called when it is made
 */
export function useReckoning(
  trialId: string,
  pending: string | null,
  refresh: () => void,
): { problem: string | null; again: () => void } {
  const { data, isFetching, refetch } = useQuery({
    queryKey: ["reckoning", trialId, pending],
    enabled: pending !== null,
    gcTime: 0,
    // A refresh that a page change swallowed leaves the facts pending: they are asked for again, which is cheap once made.
    refetchInterval: ({ state }) => (pending !== null && state.data === null ? askedAgainMs : false),
    queryFn: async () => {
      const sent = await call("reckonTrial", { id: trialId });
      if (!sent.ok) return `${sent.refusal.title} ${sent.refusal.fix}`;
      refresh();
      return null;
    },
  });
  // While it is asked for again the last problem is over.
  return { problem: isFetching ? null : (data ?? null), again: () => void refetch() };
}
