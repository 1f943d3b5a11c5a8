"use client";
import { useRouter } from "next/navigation";
import type { PageQuery } from "@/core/records";

/**
 * Asks a list anew by changing its address, so that Back and links keep what was searched, sorted and filtered.
 */
export function useListAddress(path: string, query: PageQuery) {
  const router = useRouter();
  return (changes: Partial<PageQuery>) => {
    const next = { ...query, cursor: "", ...changes };
    const params = new URLSearchParams();
    if (next.search) params.set("search", next.search);
    if (next.filter) params.set("filter", next.filter);
    if (next.sort !== "name") params.set("sort", next.sort);
    if (next.descending) params.set("descending", "true");
    if (next.cursor) params.set("cursor", next.cursor);
    router.push(params.size > 0 ? `${path}?${params}` : path);
  };
}
