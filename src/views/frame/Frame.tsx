"use client";
import { clsx } from "clsx";
import { FileUp, Moon, Search, Sun } from "lucide-react";
import dynamic from "next/dynamic";
import { usePathname, useRouter } from "next/navigation";
import { useEffect, useState, type ReactNode } from "react";
import { call } from "@/contract/client";
import type { BenchView } from "@/contract";
import { ChartKeys, KeyHint, Keys, KeysProvider, Toasts, Link } from "@/ui";
import { DropZone, useBringIn } from "@/views/drop";
import { useUndo } from "@/views/done/useUndo";
import { Connection, forgetPages, useShell } from "@/views/live";
import { useHeading } from "./useHeading";
import { BenchStrip } from "./BenchStrip";
import { MeasuringAnew } from "./MeasuringAnew";
import { isSettings, railPlaces } from "./places";

/** Loaded when it is opened. */
const Palette = dynamic(async () => (await import("./Palette")).Palette, { ssr: false });

export type Theme = "evening" | "daylight";

/** What is round every page: the bench strip, the rail, the palette, and the keys. */
export function Frame({
  bench,
  theme: firstTheme,
  person = null,
  children,
}: {
  bench: BenchView | null;
  theme: Theme;
  /** Who signed in, where anybody has to. */
  person?: { name: string; reads: boolean } | null;
  children: ReactNode;
}) {
  const path = usePathname();
  const router = useRouter();
  const [theme, setTheme] = useState(firstTheme);
  const [palette, setPalette] = useState(false);
  const [wasOpened, setWasOpened] = useState(false);
  const openPalette = () => {
    setWasOpened(true);
    setPalette(true);
  };
  const [ready, setReady] = useState(false);
  useEffect(() => setReady(true), []);
  const changeTheme = () => {
    const other = theme === "evening" ? "daylight" : "evening";
    document.documentElement.dataset.theme = other;
    document.cookie = `theme=${other}; path=/; max-age=31536000; samesite=strict`;
    setTheme(other);
  };
  const undo = useUndo(path);
  useHeading(path);
  useShell();
  const inside = (place: string) =>
    place === "/"
      ? path === "/"
      : place === "/kit" || isSettings(place)
        ? path.startsWith("/kit") && isSettings(path) === isSettings(place)
        : path.startsWith(place);
  return (
    <KeysProvider>
      <a
        href="#content"
        className="sr-only focus:not-sr-only focus:fixed focus:left-2 focus:top-2 focus:z-50 focus:rounded-md focus:bg-lit focus:px-3 focus:py-2 focus:text-on-lit"
      >
        Skip to the content
      </a>
      <DropZone>
        <div
          className="grid h-dvh grid-cols-[72px_1fr] grid-rows-[44px_1fr] print:block print:h-auto max-sm:grid-cols-1 max-sm:grid-rows-[44px_1fr_56px]"
          data-ready={ready || undefined}
        >
          <header
            className="col-span-full flex items-center gap-1 border-b border-line bg-panel pr-2 print:hidden"
            aria-label="Bench strip"
          >
            <Link
              href="/"
              className="flex h-full w-[72px] shrink-0 items-center justify-center text-[11px] leading-3 font-semibold tracking-wide text-soft max-sm:hidden"
            >
              Velvet
              <br />
              Lamp
            </Link>
            {bench ? (
              <BenchStrip bench={bench} />
            ) : (
              <span className="flex-1 px-3 text-[13px] text-soft">The bench can&apos;t be read just now.</span>
            )}
            {bench && bench.growing > 0 && (
              <Link
                href="/live"
                className="inline-flex min-h-7 shrink-0 items-center gap-1.5 rounded-md border border-line px-2 text-[13px] hover:bg-raised"
              >
                <span aria-hidden className="size-2 rounded-full bg-lit" />
                live
                <span className="sr-only">: {bench.growing === 1 ? "a run" : `${bench.growing} runs`}</span>
              </Link>
            )}
            <Connection person={person?.name ?? null} />
            <MeasuringAnew />
            {person && (
              <button
                type="button"
                title="Sign out"
                onClick={() =>
                  void call("signOut")
                    .then(forgetPages)
                    .then(() => window.location.assign("/sign-in"))
                }
                className="max-w-40 shrink-0 truncate rounded-md px-2 py-1 text-[13px] text-soft hover:bg-raised hover:text-text"
              >
                {person.name}
                {person.reads && " (reads)"}, sign out
              </button>
            )}
            <BringInButton />
            <button
              type="button"
              onClick={openPalette}
              className="inline-flex min-h-7 shrink-0 items-center gap-1.5 rounded-md px-2 text-[13px] text-soft hover:bg-raised hover:text-text"
            >
              <Search size={14} aria-hidden /> Find <KeyHint>Ctrl K</KeyHint>
            </button>
            <button
              type="button"
              onClick={changeTheme}
              aria-label={theme === "evening" ? "Daylight theme" : "Evening theme"}
              className="shrink-0 rounded-md p-1.5 text-soft hover:bg-raised hover:text-text"
            >
              {theme === "evening" ? <Sun size={15} aria-hidden /> : <Moon size={15} aria-hidden />}
            </button>
          </header>
          <nav
            aria-label="Places"
            className="flex flex-col gap-1 border-r border-line bg-panel p-1.5 print:hidden max-sm:order-last max-sm:flex-row max-sm:gap-0 max-sm:px-0.5 max-sm:border-r-0 max-sm:border-t"
          >
            {railPlaces.map(({ path: place, name, key, icon: Icon }) => (
              <Link
                key={place}
                href={place}
                aria-current={inside(place) ? "page" : undefined}
                className={clsx(
                  "flex flex-col items-center gap-0.5 rounded-md py-2 text-[11px] hover:bg-raised max-sm:min-w-0 max-sm:flex-1 max-sm:py-1 max-sm:text-[10px] max-sm:tracking-tight",
                  inside(place) ? "bg-raised text-text" : "text-soft",
                )}
              >
                <Icon size={20} aria-hidden className={inside(place) ? "text-lit" : undefined} />
                {name}
                <span className="max-sm:hidden">
                  <KeyHint>{key}</KeyHint>
                </span>
              </Link>
            ))}
            <p className="mt-auto hidden text-center text-[10px] text-soft sm:block">
              <KeyHint>?</KeyHint>
              <br />
              keys
            </p>
          </nav>
          <main
            id="content"
            tabIndex={-1}
            className="min-h-0 min-w-0 overflow-auto outline-none print:overflow-visible"
          >
            {children}
          </main>
        </div>
        {wasOpened && <Palette open={palette} onOpenChange={setPalette} onTheme={changeTheme} />}
      </DropZone>
      <ChartKeys />
      <Keys
        actions={[
          {
            keys: "mod&k",
            shown: "Ctrl K",
            label: "find a place, a job or an action",
            run: openPalette,
          },
          ...railPlaces.map(({ path: place, name, key }) => ({
            keys: key,
            shown: key,
            label: name,
            run: () => router.push(place),
          })),
          {
            keys: "mod&z",
            shown: "Ctrl Z",
            label: "undo what was last done on this page",
            run: () => void undo(),
          },
          { keys: "9", shown: "9", label: "live: runs as they happen", run: () => router.push("/live") },
          { keys: "t", shown: "T", label: "change theme", run: changeTheme },
        ]}
      />
      <Toasts dark={theme === "evening"} />
    </KeysProvider>
  );
}

/** Where everything is brought in; beside what is found. */
function BringInButton() {
  const bringIn = useBringIn();
  return (
    <button
      type="button"
      onClick={bringIn}
      className="inline-flex min-h-7 shrink-0 items-center gap-1.5 rounded-md px-2 text-[13px] text-soft hover:bg-raised hover:text-text"
    >
      <FileUp size={14} aria-hidden />
      <span className="max-sm:sr-only">Bring in</span>
      <span className="max-lg:hidden">
        <KeyHint>Ctrl O</KeyHint>
      </span>
    </button>
  );
}
