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
import type { Incoming, IncomingKind } from "@/core/incoming";
import { Keys, onceOpen } from "@/ui";
import { isTaken, type BroughtIn } from "./broughtIn";

/** What the page that is shown does with files: it takes them itself, or names the page that will. */
type Taker = ((files: File[]) => void) | string;

/** Loaded where something is brought in that the page doesn't take. */
const BringInSheet = onceOpen(async () => (await import("./BringInSheet")).BringInSheet);

/** What becomes a run. */
const runKinds: readonly IncomingKind[] = ["log", "video"];

interface Dropping {
  /** Whoever was asked last takes what is dropped. */
  offer: (id: symbol, taker: Taker | null, kinds?: readonly IncomingKind[]) => void;
  /** Files dropped on another page, for the one that was opened for them; they are given once. */
  carried: () => File[];
  /** Takes files along to another page. */
  carry: (files: File[], path: string) => void;
  choose: () => void;
  /** Opens the sheet that everything can be brought in by. */
  bringIn: () => void;
}
const Drops = createContext<Dropping>({
  offer: () => {},
  carried: () => [],
  carry: () => {},
  choose: () => {},
  bringIn: () => {},
});

/** Where files go that no page asks for: looked at first, kept after. */
const lookPath = "/look";

/**
 * Catches files that are dropped anywhere, and hands them to the page that is shown, or opens the one that
 * takes them.
 */
export function DropZone({ children }: { children: ReactNode }) {
  const router = useRouter();
  const takers = useRef(new Map<symbol, { taker: Taker; kinds: readonly IncomingKind[] }>());
  const waiting = useRef<File[]>([]);
  const carry = useCallback(
    (files: File[], path: string) => {
      waiting.current = files;
      router.push(path);
    },
    [router],
  );
  const [sheet, setSheet] = useState(false);
  const [brought, setBrought] = useState<BroughtIn[]>([]);
  const counted = useRef(0);
  const toSheet = useRef(false);
  const recognised = async (files: File[]): Promise<BroughtIn[]> => {
    const reader = (await import("@/workers")).startIncomingReader();
    try {
      const made: BroughtIn[] = [];
      for (const file of files)
        made.push({ id: ++counted.current, file, as: await reader.call.recognise(file).catch(unreadable) });
      return made;
    } finally {
      reader.end();
    }
  };
  /** To the page that is shown, where it takes all of them; else to the sheet that says what each is. */
  const give = async (files: File[], always = false) => {
    if (files.length === 0) return;
    const items = await recognised(files);
    const asked = [...[...takers.current.values()].reverse(), { taker: lookPath, kinds: runKinds }];
    const found = asked.find(({ kinds }) => items.every((item) => isTaken(item, kinds)));
    if (always || !found) {
      setBrought((before) => [...before, ...items]);
      setSheet(true);
    } else if (typeof found.taker === "function") found.taker(files);
    else carry(files, found.taker);
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
        .then((found) => void give(found.filter((each): each is FileWithPath => each instanceof File)));
    else void give([...event.dataTransfer.files]);
  };
  const chooser = useRef<HTMLInputElement>(null);
  const open = useCallback(() => {
    toSheet.current = false;
    chooser.current?.click();
  }, []);
  const bringIn = useCallback(() => setSheet(true), []);
  const offer = useCallback((id: symbol, taker: Taker | null, kinds: readonly IncomingKind[] = runKinds) => {
    if (taker === null) takers.current.delete(id);
    else takers.current.set(id, { taker, kinds });
  }, []);
  const latestGive = useRef(give);
  useEffect(() => {
    latestGive.current = give;
  });
  // Files, and texts of several lines, that are pasted where nothing is typed.
  useEffect(() => {
    const onPaste = ({ target, clipboardData }: ClipboardEvent) => {
      if (target instanceof HTMLElement && target.closest("input, textarea, [contenteditable]")) return;
      const files = [...(clipboardData?.files ?? [])];
      const text = clipboardData?.getData("text/plain") ?? "";
      if (files.length > 0) void latestGive.current(files);
      else if (text.trim().includes("\n"))
        void latestGive.current([new File([text], "pasted text.txt", { type: "text/plain" })], true);
    };
    document.addEventListener("paste", onPaste);
    return () => document.removeEventListener("paste", onPaste);
  }, []);
  const carried = useCallback(() => {
    const files = waiting.current;
    waiting.current = [];
    return files;
  }, []);
  const dropping = useMemo(
    () => ({ offer, carried, carry, choose: open, bringIn }),
    [offer, carried, carry, open, bringIn],
  );
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
              void give(files, toSheet.current);
            }}
          />
        </section>
        {children}
        <Keys actions={[{ keys: "mod&o", shown: "Ctrl O", label: "bring in a file", run: bringIn }]} />
        <BringInSheet
          open={sheet}
          onOpenChange={(now) => {
            setSheet(now);
            if (!now) setBrought([]);
          }}
          items={brought}
          onFiles={(files) => void give(files, true)}
          onChoose={() => {
            toSheet.current = true;
            chooser.current?.click();
          }}
          onAs={(id, as) =>
            setBrought((before) => before.map((each) => (each.id === id ? { ...each, as } : each)))
          }
          onPut={(ids) => setBrought((before) => before.filter(({ id }) => !ids.includes(id)))}
          go={carry}
        />
        {isOver && (
          <div className="pointer-events-none fixed inset-0 z-50 grid place-items-center bg-(--shade)">
            <p className="flex items-center gap-3 rounded-(--radius-panel) border-2 border-dashed border-lit bg-panel px-10 py-8 text-xl">
              <FileUp size={28} aria-hidden /> Let go: it is told what each file is, nothing is kept yet
            </p>
          </div>
        )}
      </div>
    </Drops.Provider>
  );
}

const unreadable = (): Incoming => ({ kind: "unknown", why: { code: "incoming.unreadable", figures: {} } });

/**
 * Takes what is dropped while a page is shown: itself, or at the page named.
 * @param kinds what the page takes, one list for good; the rest goes to the sheet that says what it is
 */
export function useDrops(taker: Taker, kinds: readonly IncomingKind[] = runKinds): void {
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
      kinds,
    );
    return () => offer(id, null);
  }, [offer, kind, kinds]);
}

/** Files that were dropped on the page before, once. */
export const useCarried = () => useContext(Drops).carried;

/** Takes files along to another page. */
export const useCarry = () => useContext(Drops).carry;

/** Opens the dialog that chooses files. */
export const useChooseFiles = () => useContext(Drops).choose;

/** Takes files of some kinds while a page is shown, and those that were brought in for it before it was. */
export function useBrought(kinds: readonly IncomingKind[], take: (file: File) => void): void {
  const carried = useCarried();
  useDrops((files) => files.slice(0, 1).forEach(take), kinds);
  useEffect(() => {
    carried().slice(0, 1).forEach(take);
    // What was brought in before is taken once.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);
}

/** Opens the sheet that everything can be brought in by. */
export const useBringIn = () => useContext(Drops).bringIn;
