"use client";
import { useEffect, useState, type KeyboardEvent } from "react";

/**
 * Which row of a list found by typing is lit: the one moved to, else the first there is.
 * Enter waits for the answer to what was typed and takes its first row then, never one of an older answer.
 */
export function useLit(ids: readonly string[], answered: boolean, take: (id: string) => void) {
  const [moved, setMoved] = useState("");
  const [waiting, setWaiting] = useState(false);
  const first = ids[0];
  useEffect(() => {
    if (!waiting || !answered) return;
    // In its own turn: what is taken may change what is shown.
    const soon = setTimeout(() => {
      setWaiting(false);
      if (first !== undefined) take(first);
    });
    return () => clearTimeout(soon);
  }, [waiting, answered, first, take]);
  return {
    /** To be called when something else is typed. */
    typed: () => {
      setMoved("");
      setWaiting(false);
    },
    list: {
      value: ids.includes(moved) ? moved : (first ?? ""),
      onValueChange: setMoved,
      onKeyDown: (event: KeyboardEvent) => {
        if (event.key !== "Enter" || answered || event.nativeEvent.isComposing) return;
        event.preventDefault();
        setWaiting(true);
      },
    },
  };
}
