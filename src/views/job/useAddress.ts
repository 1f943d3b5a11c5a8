"use client";
import { useSearchParams } from "next/navigation";
import { useCallback } from "react";

/** Reads and writes what is selected in the address, so that Back works and a link shows the same. */
export function useAddress() {
  const params = useSearchParams();
  const put = useCallback((changes: Record<string, string | null>, keepStep = false) => {
    const next = new URLSearchParams(window.location.search);
    for (const [key, value] of Object.entries(changes)) {
      if (value === null) next.delete(key);
      else next.set(key, value);
    }
    const address = `${window.location.pathname}${next.size > 0 ? `?${next}` : ""}`;
    if (keepStep) window.history.pushState(null, "", address);
    else window.history.replaceState(null, "", address);
  }, []);
  return { params, put };
}

/** "1200-5400" → [1200, 5400]; anything else → null. */
export function stretchIn(text: string | null): [number, number] | null {
  const found = /^(\d+(?:\.\d+)?)-(\d+(?:\.\d+)?)$/.exec(text ?? "");
  const stretch = found && ([Number(found[1]), Number(found[2])] as [number, number]);
  return stretch && stretch[1] > stretch[0] ? stretch : null;
}

export const stretchText = (stretch: [number, number] | null) =>
  stretch && stretch.map((ms) => ms.toFixed(0)).join("-");
