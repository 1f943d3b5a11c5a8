"use client";
import { useQuery } from "@tanstack/react-query";
import { useDeferredValue } from "react";
import { call } from "@/contract/client";
import type { TitleListRow } from "@/core/records";

const mostOffered = 20;

/** Titles on the shelf whose name holds what is typed. */
export function useTitlesLike(typed: string): TitleListRow[] {
  const search = useDeferredValue(typed.trim());
  const { data } = useQuery({
    queryKey: ["titles", search],
    enabled: search !== "",
    queryFn: async () => {
      const sent = await call("listTitles", { query: { search, limit: mostOffered } });
      return sent.ok ? sent.answer.rows : [];
    },
  });
  return data ?? [];
}
