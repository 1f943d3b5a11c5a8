"use client";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { call } from "@/contract";
import type { TitleRow } from "@/core/records";

/** Titles found by typing, of however many there are; the first stand there before anything is typed. */
export function useTitles(first: TitleRow[]) {
  const [typed, setTyped] = useState("");
  const search = typed.trim();
  const { data } = useQuery({
    queryKey: ["kit", "titles", search],
    queryFn: async () => {
      const sent = await call("listTitles", { query: { search } });
      return sent.ok ? sent.answer : null;
    },
    enabled: search !== "",
    placeholderData: keepPreviousData,
  });
  const found = search === "" ? null : data;
  const titles: TitleRow[] = found?.rows ?? first;
  return { titles, more: found ? found.total - found.rows.length : 0, search: setTyped };
}
