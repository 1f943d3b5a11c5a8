"use client";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { call } from "@/contract/client";
import type { TitleRow } from "@/core/records";

/**
 * Titles found by typing, of however many there are; the first stand there before anything is typed, and are
 * fetched where they aren't handed over.
 */
export function useTitles(first?: TitleRow[]) {
  const [typed, setTyped] = useState("");
  const search = typed.trim();
  const asked = search !== "" || !first;
  const { data, isPending, isPlaceholderData } = useQuery({
    queryKey: ["kit", "titles", search],
    queryFn: async () => {
      const sent = await call("listTitles", { query: { search } });
      return sent.ok ? sent.answer : null;
    },
    enabled: asked,
    placeholderData: keepPreviousData,
  });
  const found = asked ? data : null;
  const titles: TitleRow[] = found?.rows ?? first ?? [];
  return {
    titles,
    more: found ? found.total - found.rows.length : 0,
    search: setTyped,
    finding: asked && (isPending || isPlaceholderData),
  };
}
