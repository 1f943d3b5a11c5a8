"use client";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { call } from "@/contract/client";
import type { TitleRow } from "@/core/records";

type Named = Pick<TitleRow, "id" | "name">;

/**
 * Titles found by typing, of however many there are; the first stand there before anything is typed, and are
 * fetched where they aren't handed over.
 * @param filter a system's or an engine's id that they are of; empty for every title
 * @param beside how many there are beside the first
 */
export function useTitles<First extends Named = TitleRow>(first?: First[], filter = "", beside = 0) {
  const [typed, setTyped] = useState("");
  const search = typed.trim();
  const asked = search !== "" || !first;
  const { data, isPending, isPlaceholderData } = useQuery({
    queryKey: ["kit", "titles", filter, search],
    queryFn: async () => {
      const sent = await call("listTitles", { query: { search, filter } });
      return sent.ok ? sent.answer : null;
    },
    enabled: asked,
    placeholderData: keepPreviousData,
  });
  const found = asked ? data : null;
  const titles: (TitleRow | First)[] = found?.rows ?? first ?? [];
  return {
    titles,
    more: found ? found.total - found.rows.length : asked ? 0 : beside,
    search: setTyped,
    finding: asked && (isPending || isPlaceholderData),
  };
}
