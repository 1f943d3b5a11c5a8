"use client";
import { useMemo } from "react";
import type { JobView } from "@/contract";
import { JobPage } from "./JobPage";
import type { FirstTrace } from "./useTraces";

/**
 * A job handed over as one text. Two hundred runs are thousands of small objects, and a page that carries them
 * one by one takes longer to write than to work out; moments arrive as text either way.
 */
export function PackedJob({ packed }: { packed: string }) {
  const { view, firstTrace } = useMemo(
    () => JSON.parse(packed) as { view: JobView; firstTrace: FirstTrace | null },
    [packed],
  );
  return <JobPage loaded={view} firstTrace={firstTrace} />;
}
