"use client";
import { useEffect, useRef, useState } from "react";

/** What is used of the File System Access API (WICG): it is in no type library yet. */
interface Folder {
  name: string;
  values: () => AsyncIterable<{ kind: "file" | "directory"; name: string; getFile?: () => Promise<File> }>;
}
type Picking = typeof globalThis & { showDirectoryPicker?: (asked: { mode: "read" }) => Promise<Folder> };

/** ms between looks into the folder; a log is taken once its size has stood still for one of them. */
const lookEvery = 1500;
const isLog = (name: string) => /\.(csv|tsv|txt|log)$/i.test(name);

/**
 * A folder whose new logs are taken as they appear, where the browser can; what lay there before is left alone.
 */
export function useWatchedFolder(onFiles: (files: File[]) => void) {
  const [folder, setFolder] = useState<Folder | null>(null);
  const [offered, setOffered] = useState(false);
  useEffect(() => setOffered("showDirectoryPicker" in globalThis), []);
  const latest = useRef(onFiles);
  useEffect(() => {
    latest.current = onFiles;
  });
  useEffect(() => {
    if (!folder) return;
    /** Taken, or there from the beginning. */
    const done = new Set<string>();
    /** Size at the look before. */
    const sizes = new Map<string, number>();
    let first = true,
      over = false;
    const look = async () => {
      const settled: File[] = [];
      for await (const entry of folder.values()) {
        if (entry.kind !== "file" || !isLog(entry.name) || done.has(entry.name)) continue;
        if (first) {
          done.add(entry.name);
          continue;
        }
        const file = await entry.getFile?.().catch(() => undefined);
        if (!file) continue;
        if (file.size > 0 && sizes.get(entry.name) === file.size) {
          done.add(entry.name);
          settled.push(file);
        } else sizes.set(entry.name, file.size);
      }
      first = false;
      if (!over && settled.length > 0) latest.current(settled);
    };
    let timer: ReturnType<typeof setTimeout>;
    const again = () => {
      // A folder that is gone is looked for again: it may be a card that was pulled out.
      void look()
        .catch(() => {})
        .finally(() => {
          if (!over) timer = setTimeout(again, lookEvery);
        });
    };
    again();
    return () => {
      over = true;
      clearTimeout(timer);
    };
  }, [folder]);
  const watch = async () => {
    const picked = await (globalThis as Picking).showDirectoryPicker?.({ mode: "read" }).catch(() => null);
    if (picked) setFolder(picked);
  };
  return { offered, name: folder?.name ?? null, watch, stop: () => setFolder(null) };
}
