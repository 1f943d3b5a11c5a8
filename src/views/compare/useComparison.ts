"use client";
import { useEffect, useState } from "react";
import type { ArmsOutcome } from "@/core/compare";
import { startComparer, type ComparedUnder } from "@/workers";

export type ComparisonState =
  | { step: "idle" }
  | { step: "working" }
  | { step: "made"; outcome: ArmsOutcome }
  | { step: "failed"; problem: string };

/**
 * Compares arms in a worker; stopping ends the worker. Nothing is told meanwhile: a callback into it lost its
 * answer now and then.
 * @param arms ids of every arm's runs; null while there is nothing to compare
 */
export function useComparison(
  arms: string[][] | null,
  under: ComparedUnder,
): { state: ComparisonState; stop: () => void; start: () => void; stopped: boolean } {
  const [state, setState] = useState<ComparisonState>({ step: "idle" });
  const [stopped, setStopped] = useState(false);
  // What is asked, as one text: new arrays of the same runs ask nothing new, another margin or other rules do.
  const asked = arms === null ? "" : JSON.stringify({ arms, under });
  useEffect(() => {
    if (asked === "" || stopped) {
      setState({ step: "idle" });
      return;
    }
    const { arms: runs, under: how } = JSON.parse(asked) as { arms: string[][]; under: ComparedUnder };
    const worker = startComparer();
    let current = true;
    setState({ step: "working" });
    worker.call.compare(runs, how).then(
      (outcome) => current && setState({ step: "made", outcome }),
      (error: Error) => current && setState({ step: "failed", problem: error.message }),
    );
    return () => {
      current = false;
      worker.end();
    };
  }, [asked, stopped]);
  return { state, stop: () => setStopped(true), start: () => setStopped(false), stopped };
}
