"use client";
import { useCallback, useEffect, useState } from "react";
import { call } from "@/contract/client";

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
  const [problem, setProblem] = useState<string | null>(null);
  const [tries, setTries] = useState(0);
  const again = useCallback(() => setTries((made) => made + 1), []);
  useEffect(() => {
    if (pending === null) return;
    let current = true;
    setProblem(null);
    void call("reckonTrial", { id: trialId }).then((sent) => {
      if (!current) return;
      if (sent.ok) refresh();
      else setProblem(`${sent.refusal.title} ${sent.refusal.fix}`);
    });
    return () => {
      current = false;
    };
  }, [trialId, pending, refresh, tries]);
  return { problem, again };
}
