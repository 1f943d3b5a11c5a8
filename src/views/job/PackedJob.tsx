"use client";
import { useMemo } from "react";
import type { JobView } from "@/core/records";
import { JobPage } from "./JobPage";

/**
 * A job handed over as one text. Two hundred runs are thousands of small objects, and a page that carries them
 * one by one takes longer to write than to work out; moments arrive as text either way.
 */
export function PackedJob({ packed }: { packed: string }) {
  const view = useMemo(() => JSON.parse(packed) as JobView, [packed]);
  return <JobPage {...view} />;
}
