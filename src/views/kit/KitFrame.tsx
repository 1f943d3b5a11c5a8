"use client";
import { clsx } from "clsx";
import { usePathname, useRouter } from "next/navigation";
import type { ReactNode } from "react";
import { KeyHint, Keys, buttonLook, Link } from "@/ui";

interface Shelf {
  path: string;
  name: string;
  add: string | null;
}

const kit: Shelf[] = [
  { path: "/kit/rigs", name: "Rigs", add: "/kit/rigs/new" },
  { path: "/kit/titles", name: "Titles", add: "/kit/titles/new" },
  { path: "/kit/systems", name: "Systems", add: "/kit/systems/new" },
  { path: "/kit/engines", name: "Engines", add: "/kit/engines/new" },
  { path: "/kit/abilities", name: "Abilities", add: null },
  { path: "/kit/planner", name: "Resolution planner", add: null },
];
/** What belongs to running the place. */
const settings: Shelf[] = [
  { path: "/kit/rules", name: "House rules", add: "/kit/rules/new" },
  { path: "/kit/preflight", name: "Pre-flight", add: null },
  { path: "/kit/store", name: "Store", add: null },
  { path: "/kit/merge", name: "Merge", add: null },
  { path: "/kit/people", name: "People", add: null },
  { path: "/kit/workshop", name: "Workshop", add: null },
];

/** The shelves of the kit, and what is on the one that is open. */
export function KitFrame({ children }: { children: ReactNode }) {
  const path = usePathname();
  const router = useRouter();
  const isSettings = settings.some((each) => path.startsWith(each.path));
  const shelves = isSettings ? settings : kit;
  const shelf = shelves.find((each) => path.startsWith(each.path));
  return (
    <div className="mx-auto max-w-6xl p-5">
      <Keys
        actions={[
          ...(shelf?.add
            ? [{ keys: "n", shown: "N", label: "add one", run: () => router.push(shelf.add ?? "") }]
            : []),
          {
            keys: "]",
            shown: "]",
            label: "next shelf",
            run: () =>
              router.push((shelves[shelf ? shelves.indexOf(shelf) + 1 : 0] ?? shelves[0])?.path ?? "/kit"),
          },
        ]}
      />
      <header className="mb-4 flex flex-wrap items-center gap-x-4 gap-y-2">
        <h1 className="text-xl font-semibold">{isSettings ? "Settings" : "Kit"}</h1>
        <nav aria-label={isSettings ? "Settings" : "Shelves"} className="flex flex-wrap gap-1 text-[13px]">
          {shelves.map((each) => (
            <Link
              key={each.path}
              href={each.path}
              aria-current={each === shelf ? "page" : undefined}
              className={clsx(
                "rounded-md px-2.5 py-1.5 hover:bg-raised",
                each === shelf ? "bg-raised text-text" : "text-soft",
              )}
            >
              {each.name}
            </Link>
          ))}
        </nav>
        <Link
          href={isSettings ? "/done" : "/done?kind=kit"}
          className="ml-auto text-[13px] text-soft underline decoration-line underline-offset-4 hover:decoration-text"
        >
          What was done
        </Link>
        {shelf?.add && (
          <Link href={shelf.add} className={buttonLook("lit")}>
            Add <KeyHint>N</KeyHint>
          </Link>
        )}
      </header>
      {children}
    </div>
  );
}
