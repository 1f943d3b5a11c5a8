import { useEffect } from "react";

/** Registers what keeps pages and files for a time without a network, and hands it the page that is open. */
export function useShell(): void {
  useEffect(() => {
    if (process.env.NODE_ENV !== "production" || !("serviceWorker" in navigator)) return;
    const keep = async () => {
      await navigator.serviceWorker.register("/worker.js", { updateViaCache: "none" });
      const { active } = await navigator.serviceWorker.ready;
      active?.postMessage({ keep: location.href });
    };
    // After what the page itself needs.
    const timer = setTimeout(() => void keep().catch(() => undefined), 1000);
    return () => clearTimeout(timer);
  }, []);
}

/** Forgets the pages that were kept: somebody else may use this device next. */
export async function forgetPages(): Promise<void> {
  if (!("caches" in window)) return;
  for (const name of await caches.keys()) await caches.delete(name);
}
