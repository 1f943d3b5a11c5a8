import { useEffect, useRef, useState } from "react";
import { call } from "@/contract/client";
import type { LiveRun } from "@/core/records";
import { WatchedRun, type Watched } from "./watched";

/** A run is asked for so often, ms. */
const everyMs = 1000;

/** A run that is watched: what it comes to, and when a piece of it came last, by `performance.now()`. */
export interface Watching {
  now: Watched;
  cameAt: number;
}

/** Asks for a run's pieces while it grows, each once. @returns null before the first answer */
export function useWatched({ runId, form, targetFps, measuring }: LiveRun): Watching | null {
  const [watching, setWatching] = useState<Watching | null>(null);
  const rules = useRef(measuring);
  useEffect(() => {
    const run = new WatchedRun(form, targetFps, rules.current);
    let [ended, since]: [boolean, string | null] = [false, null];
    let timer: ReturnType<typeof setTimeout> | undefined;
    const ask = async () => {
      let [fresh, more, open] = [false, true, true];
      while (more && !ended) {
        const sent = await call("readPieces", { id: runId, query: since === null ? {} : { since } });
        // What can't be reached is asked for again; what is gone isn't.
        if (!sent.ok) {
          open = sent.refusal.status !== 404;
          break;
        }
        // A piece of that very moment comes once more: it isn't taken twice.
        fresh ||= sent.answer.pieces.length > 0 && sent.answer.until !== since;
        for (const piece of sent.answer.pieces) run.take(piece);
        ({ more, open } = sent.answer);
        since = sent.answer.until;
      }
      if (ended) return;
      if (fresh) setWatching({ now: run.now(), cameAt: performance.now() });
      if (open) timer = setTimeout(() => void ask(), everyMs);
    };
    void ask();
    return () => {
      ended = true;
      clearTimeout(timer);
    };
  }, [runId, form, targetFps]);
  return watching;
}

/** A number that counts seconds, so that what depends on the clock is drawn anew. */
export function useSeconds(): number {
  const [at, setAt] = useState(0);
  useEffect(() => {
    const timer = setInterval(() => setAt(performance.now()), everyMs);
    return () => clearInterval(timer);
  }, []);
  return at;
}
