"use client";
import { useEffect, useState } from "react";

const kept = "lamp taker";

/** Who takes runs from this window: a text of its own, kept as long as the window is. */
export function useTaker(): string | null {
  const [taker, setTaker] = useState<string | null>(null);
  useEffect(() => {
    const there = sessionStorage.getItem(kept) ?? crypto.randomUUID();
    sessionStorage.setItem(kept, there);
    setTaker(there);
  }, []);
  return taker;
}
