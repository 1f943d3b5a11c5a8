"use client";
import { useRouter } from "next/navigation";

/** Undoes the last thing done on the page at an address; what does so is loaded when it is asked for. */
export function useUndo(path: string): () => Promise<void> {
  const router = useRouter();
  return async () => {
    const { undoLast } = await import("./undoLast");
    if (await undoLast(path, (to) => router.push(to))) router.refresh();
  };
}
