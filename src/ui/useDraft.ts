"use client";
import { useEffect, useRef, useState } from "react";

/** Whether what the browser kept has the fields of a draft, each of the same kind. */
export const hasFieldsOf =
  <State extends object>(draft: State) =>
  (kept: unknown): kept is State =>
    typeof kept === "object" &&
    kept !== null &&
    Object.entries(draft).every(([name, value]) => {
      const held = (kept as Record<string, unknown>)[name];
      if (held === null || value === null) return held !== undefined;
      return typeof held === typeof value && Array.isArray(held) === Array.isArray(value);
    });

/**
 * A state that outlives leaving the page and a reload: kept in this browser until it is forgotten.
 * @param name of what is typed; another name is another draft
 * @param isOne whether what the browser kept is one, of this version
 * @returns the state, its setter, and what forgets the draft
 */
export function useDraft<State>(
  name: string,
  first: State,
  isOne: (kept: unknown) => kept is State,
): [State, (now: State) => void, () => void] {
  const [state, setState] = useState(first);
  const check = useRef(isOne);
  useEffect(() => {
    try {
      const kept: unknown = JSON.parse(window.localStorage.getItem(`draft ${name}`) ?? "null");
      if (kept !== null && check.current(kept)) setState(kept);
    } catch {
      // What can't be read was no draft.
    }
  }, [name]);
  const put = (now: State) => {
    setState(now);
    try {
      window.localStorage.setItem(`draft ${name}`, JSON.stringify(now));
    } catch {
      // A full store keeps no draft; what is typed stays on the page.
    }
  };
  return [state, put, () => window.localStorage.removeItem(`draft ${name}`)];
}
