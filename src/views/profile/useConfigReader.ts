import { useEffect, useState } from "react";
import { startConfigReader } from "@/workers";

/** The worker that reads config files, as long as the page is shown; null until it has started. */
export function useConfigReader() {
  const [worker, setWorker] = useState<ReturnType<typeof startConfigReader> | null>(null);
  useEffect(() => {
    const started = startConfigReader();
    setWorker(() => started);
    return () => started.end();
  }, []);
  return worker;
}
