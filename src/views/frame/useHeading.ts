"use client";
import { useEffect, useRef } from "react";

const application = "Velvet Lamp";

/** The page is called by its heading; on another page the heading has the focus, unless a field took it. */
export function useHeading(path: string): void {
  const before = useRef<string | null>(null);
  useEffect(() => {
    const heading = document.querySelector<HTMLElement>("main h1");
    document.title = heading?.textContent ? `${heading.textContent.trim()} – ${application}` : application;
    const moved = before.current !== null && before.current !== path;
    before.current = path;
    if (!moved || !heading) return;
    if (document.activeElement?.closest("main input, main textarea, [role=dialog]")) return;
    heading.tabIndex = -1;
    heading.focus({ preventScroll: true });
  }, [path]);
}
