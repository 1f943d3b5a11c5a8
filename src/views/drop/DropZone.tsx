"use client";
import type { FileWithPath } from "file-selector";
import { FileUp } from "lucide-react";
import { useRouter } from "next/navigation";
import {
  createContext,
  useCallback,
  useContext,
  useEffect,
  useMemo,
  useRef,
  useState,
  type DragEvent,
  type ReactNode,
} from "react";

/** What the page that is shown does with files: it takes them itself, or names the page that will. */
type Taker = ((files: File[]) => void) | string;

interface Dropping {
  /** Whoever was asked last takes what is dropped. */
  offer: (id: symbol, taker: Taker | null) => void;
  /** Files dropped on another page, for the one that was opened for them; they are given once. */
  carried: () => File[];
  /** Takes files along to another page. */
  carry: (files: File[], path: string) => void;
  choose: () => void;
}
const Drops = createContext<Dropping>({
  offer: () => {},
  carried: () => [],
  carry: () => {},
  choose: () => {},
});

/** Where files go that no page asks for: looked at first, kept after. */
const lookPath = "/look";

/**
 * Catches files that are dropped anywhere, and hands them to the page that is shown, or opens the one that
 * takes them.
 */
export function DropZone({ children }: { children: ReactNode }) {
  const router = useRouter();
  const takers = useRef(new Map<symbol, Taker>());
  const waiting = useRef<File[]>([]);
  const carry = useCallback(
    (files: File[], path: string) => {
      waiting.current = files;
      router.push(path);
    },
    [router],
  );
  const give = (files: File[]) => {
    if (files.length === 0) return;
    const taker = [...takers.current.values()].at(-1) ?? lookPath;
    if (typeof taker === "function") taker(files);
    else carry(files, taker);
  };
  const [isOver, setIsOver] = useState(false);
  // What looks into folders is loaded while something is dragged over the page.
  const reader = useRef<typeof import("file-selector") | null>(null);
  const onDragEnter = (event: DragEvent) => {
    if (!event.dataTransfer.types.includes("Files")) return;
    event.preventDefault();
    setIsOver(true);
    void import("file-selector").then((loaded) => (reader.current = loaded));
  };
  const onDragLeave = (event: DragEvent) => {
    if (!event.currentTarget.contains(event.relatedTarget as Node | null)) setIsOver(false);
  };
  const onDrop = (event: DragEvent) => {
    event.preventDefault();
    setIsOver(false);
    // The event's files are gone after it: both ways take hold of them at once.
    if (reader.current)
      void reader.current
        .fromEvent(event.nativeEvent)
        .then((found) => give(found.filter((each): each is FileWithPath => each instanceof File)));
    else give([...event.dataTransfer.files]);
  };
  const chooser = useRef<HTMLInputElement>(null);
  const open = useCallback(() => chooser.current?.click(), []);
  const offer = useCallback((id: symbol, taker: Taker | null) => {
    if (taker === null) takers.current.delete(id);
    else takers.current.set(id, taker);
  }, []);
  const carried = useCallback(() => {
    const files = waiting.current;
    waiting.current = [];
    return files;
  }, []);
  const dropping = useMemo(() => ({ offer, carried, carry, choose: open }), [offer, carried, carry, open]);
  return (
    <Drops.Provider value={dropping}>
      <div
        className="contents"
        onDragEnter={onDragEnter}
        onDragOver={(event) => event.preventDefault()}
        onDragLeave={onDragLeave}
        onDrop={onDrop}
      >
        <section aria-label="Files">
          <input
            ref={chooser}
            type="file"
            multiple
            hidden
            aria-label="Log files"
            onChange={(event) => {
              const files = [...(event.target.files ?? [])];
              event.target.value = "";
              give(files);
            }}
          />
        </section>
        {children}
        {isOver && (
          <div className="pointer-events-none fixed inset-0 z-50 grid place-items-center bg-(--shade)">
            <p className="flex items-center gap-3 rounded-(--radius-panel) border-2 border-dashed border-lit bg-panel px-10 py-8 text-xl">
              <FileUp size={28} aria-hidden /> Let go: logs are read here, nothing is kept yet
            </p>
          </div>
        )}
      </div>
    </Drops.Provider>
  );
}

/** Takes what is dropped while a page is shown: itself, or at the page named. */
export function useDrops(taker: Taker): void {
  const { offer } = useContext(Drops);
  const latest = useRef(taker);
  useEffect(() => {
    latest.current = taker;
  });
  const kind = typeof taker === "string" ? taker : "itself";
  useEffect(() => {
    const id = Symbol("drops");
    const now = latest.current;
    offer(
      id,
      typeof now === "string" ? now : (files) => typeof latest.current === "function" && latest.current(files),
    );
    return () => offer(id, null);
  }, [offer, kind]);
}

/** Files that were dropped on the page before, once. */
export const useCarried = () => useContext(Drops).carried;

/** Takes files along to another page. */
export const useCarry = () => useContext(Drops).carry;

/** Opens the dialog that chooses files. */
export const useChooseFiles = () => useContext(Drops).choose;
