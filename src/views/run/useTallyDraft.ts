"use client";
import { useEffect, useState } from "react";
import { z } from "@/core/schema";
import { readingKinds } from "@/core/metrics";
import type { TallyReading } from "./blocks";

const draftSchema = z.object({
  /** When the first reading was taken, ms since 1970; null before it. */
  startedAt: z.number().nullable(),
  readings: z.array(
    z.object({
      fps: z.number(),
      second: z.number(),
      scene: z.string(),
      arm: z.number().int(),
      kind: z.enum(readingKinds).optional(),
      value: z.number().optional(),
      channels: z.record(z.string(), z.number()).optional(),
    }),
  ),
});
interface Draft {
  startedAt: number | null;
  readings: TallyReading[];
}
const nothing: Draft = { startedAt: null, readings: [] };

/** What a browser held under a name; nothing where it can't be read. */
export function draftFrom(text: string | null): Draft {
  if (text === null) return nothing;
  try {
    return draftSchema.parse(JSON.parse(text));
  } catch {
    return nothing;
  }
}

/**
 * The readings of a tally, kept in the browser until the run is: they outlive a reload, another page and a
 * closed lid.
 * @param name whose tally it is
 */
export function useTallyDraft(name: string) {
  const place = `tally ${name}`;
  const [draft, setDraft] = useState<Draft>(nothing);
  const [restored, setRestored] = useState(false);
  useEffect(() => {
    const before = draftFrom(localStorage.getItem(place));
    if (before.readings.length === 0) return;
    setDraft(before);
    setRestored(true);
  }, [place]);
  const put = (changed: Draft) => {
    setDraft(changed);
    if (changed.readings.length === 0) localStorage.removeItem(place);
    else localStorage.setItem(place, JSON.stringify(changed));
  };
  return { ...draft, restored, put, forget: () => put(nothing) };
}
