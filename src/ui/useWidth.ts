"use client";
import { useCallback, useState } from "react";

/** The width of an element in CSS pixels, followed as it changes; 0 until it is laid out. */
export function useWidth(): [ref: (element: HTMLElement | null) => void, width: number] {
  const [width, setWidth] = useState(0);
  const ref = useCallback((element: HTMLElement | null) => {
    if (!element) return;
    const observer = new ResizeObserver(([entry]) => setWidth(Math.floor(entry?.contentRect.width ?? 0)));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return [ref, width];
}
