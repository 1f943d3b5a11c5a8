"use client";
import { clsx } from "clsx";
import { useRouter } from "next/navigation";
import { useRef, useState } from "react";
import { faultKinds, faultSeverities } from "@/core/kit";
import type { CrashRow, LogAsked, LogRow, LogView } from "@/core/records";
import { crashWords, stillWords } from "@/core/words";
import { stretchText } from "@/views/job";
import {
  Button,
  ChoiceField,
  EmptyPanel,
  KeyHint,
  Keys,
  SearchForm,
  TableFrame,
  TableHead,
  When,
  say,
  Link,
} from "@/ui";

const addressOf = (asked: Partial<LogAsked>) => {
  const query = new URLSearchParams(Object.entries(asked).filter(([, value]) => value !== ""));
  return query.size > 0 ? `/log?${query}` : "/log";
};

/** Shown before and after the moment that a fault was seen at, ms. */
const aroundMs = 5_000;

/** A fault's run, at its moment where that was noted. */
function toMoment({ jobId, runId, atMs }: LogRow): string {
  const view = atMs === null ? null : stretchText([Math.max(0, atMs - aroundMs), atMs + aroundMs]);
  return `/jobs/${jobId}?${new URLSearchParams({ run: runId, ...(view ? { view } : {}) })}`;
}

const all = "all";

/** What went wrong over all jobs: found in words, filtered by the address, each a step from its run. */
export function LogPage({ view, crashes }: { view: LogView; crashes: CrashRow[] | null }) {
  const router = useRouter();
  const { rows, next, query, rigs, engines } = view;
  const [search, setSearch] = useState(query.search);
  const field = useRef<HTMLInputElement>(null);
  const ask = (changed: Partial<LogAsked>) =>
    router.push(addressOf({ ...query, search, cursor: "", ...changed }), { scroll: false });
  const filter = (
    name: "kind" | "severity" | "rig" | "engine" | "still",
    label: string,
    every: string,
    options: { value: string; label: string }[],
  ) => (
    <div className="w-40">
      <ChoiceField
        label={label}
        value={query[name] || all}
        options={[{ value: all, label: every }, ...options]}
        onChange={(value) => ask({ [name]: value === all ? "" : value })}
      />
    </div>
  );
  const plainly = (values: readonly string[]) => values.map((value) => ({ value, label: value }));
  const named = (things: { id: string; name: string }[]) =>
    things.map(({ id, name }) => ({ value: id, label: name }));
  const isAsked = Object.values(query).some((value) => value !== "");
  return (
    <div className="mx-auto max-w-[1400px] p-5">
      <Keys
        actions={[
          { keys: "/", shown: "/", label: "find in the log", run: () => field.current?.focus() },
          { keys: "c", shown: "C", label: "crashes an hour", run: () => router.push("/log?view=crashes") },
          { keys: "a", shown: "A", label: "the whole log", run: () => router.push("/log") },
        ]}
      />
      <header className="mb-4 flex flex-wrap items-center gap-4">
        <div>
          <h1 className="text-xl font-semibold">Log</h1>
          <p className="text-[13px] text-soft">What went wrong, where, with what, and whether it still does.</p>
        </div>
        <nav aria-label="Parts of the log" className="ml-auto flex gap-1 text-[13px]">
          {[
            { to: "/log", name: "Faults", hint: "A", here: crashes === null },
            { to: "/log?view=crashes", name: "Crashes an hour", hint: "C", here: crashes !== null },
          ].map(({ to, name, hint, here }) => (
            <Link
              key={to}
              href={to}
              aria-current={here ? "page" : undefined}
              className={clsx("rounded-md px-3 py-1.5 hover:bg-raised", here ? "bg-raised" : "text-soft")}
            >
              {name} <KeyHint>{hint}</KeyHint>
            </Link>
          ))}
        </nav>
      </header>
      {crashes ? (
        <Crashes rows={crashes} />
      ) : (
        <>
          <SearchForm
            field={field}
            label="Find in the log"
            placeholder="find: upside down, map room …"
            value={search}
            onChange={setSearch}
            onSend={() => ask({ search })}
          >
            {filter("kind", "Kind", "every kind", plainly(faultKinds))}
            {filter("severity", "Severity", "slight to blocking", plainly(faultSeverities))}
            {filter("rig", "Rig", "every rig", named(rigs))}
            {filter("engine", "Engine", "every engine", named(engines))}
            {filter("still", "Still", "then or now", [
              { value: "still", label: "in the newest run" },
              { value: "gone", label: "not seen since" },
            ])}
            {isAsked && (
              <Button
                look="quiet"
                onClick={() => {
                  setSearch("");
                  router.push("/log");
                }}
              >
                Show all
              </Button>
            )}
          </SearchForm>
          {rows.length === 0 ? (
            <EmptyPanel title={isAsked ? "Nothing like it was noted." : "Nothing went wrong yet."}>
              {isAsked
                ? "Other words, or fewer filters, may find it."
                : "Faults that are noted on a job's page, and runs that crash, stand here over all jobs."}
            </EmptyPanel>
          ) : (
            <Faults rows={rows} />
          )}
          {next && (
            <Button className="mt-3" onClick={() => router.push(addressOf({ ...query, cursor: next }))}>
              Older ones
            </Button>
          )}
        </>
      )}
    </div>
  );
}

function Faults({ rows }: { rows: LogRow[] }) {
  return (
    <TableFrame name="Faults" cards>
      <table aria-label="Faults" className="w-full text-left text-[13px]">
        <TableHead names={["What", "Where", "With", "Seen", "Now", "Workaround"]} />
        <tbody className="divide-y divide-line">
          {rows.map((row) => (
            <tr key={row.key} className="align-top">
              <td className="max-w-72 px-2 py-2 [overflow-wrap:anywhere]">
                <Link
                  href={toMoment(row)}
                  aria-label={`${row.kind}: ${row.note || row.scene || row.title}, to its run`}
                  className="underline decoration-line underline-offset-4 hover:decoration-text"
                  dir="auto"
                >
                  {row.note || `a ${row.kind}`}
                </Link>
                <span
                  className={clsx(
                    "block text-[12px]",
                    row.severity === "slight" ? "text-soft" : "text-caution",
                  )}
                >
                  {row.kind}, {row.severity}
                </span>
              </td>
              <td className="max-w-48 px-2 py-2 [overflow-wrap:anywhere]">
                <span dir="auto">{row.title}</span>
                <span className="block text-[12px] text-soft">
                  {row.scene && `${row.scene}, `}on {row.rig}
                </span>
              </td>
              <td className="max-w-48 px-2 py-2 [overflow-wrap:anywhere]">
                {row.engine} {row.builds.join(", ")}
                {row.drivers.length > 0 && (
                  <span className="block text-[12px] text-soft">driver {row.drivers.join(", ")}</span>
                )}
              </td>
              <td className="px-2 py-2">
                <When at={row.lastAt} />
                <span className="block text-[12px] text-soft">
                  run {row.run}
                  {row.atMs !== null && ` at ${say.clock(row.atMs)}`}
                  {row.times > 1 && (
                    <>
                      , {row.times} times since <When at={row.firstAt} />
                    </>
                  )}
                </span>
              </td>
              <td className="px-2 py-2">{stillWords(row.runsSince)}</td>
              <td className="max-w-56 px-2 py-2 text-soft [overflow-wrap:anywhere]" dir="auto">
                {row.workaround}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </TableFrame>
  );
}

function Crashes({ rows }: { rows: CrashRow[] }) {
  if (rows.length === 0)
    return (
      <EmptyPanel title="No run has crashed.">
        A run that ends in a crash counts here, with the time that its title ran with that build.
      </EmptyPanel>
    );
  return (
    <TableFrame name="Crashes an hour" cards>
      <table aria-label="Crashes an hour" className="w-full text-left text-[13px]">
        <TableHead names={["Title", "Engine and build", "Runs", "Crashes"]} />
        <tbody className="divide-y divide-line">
          {rows.map((row) => (
            <tr key={row.titleId + row.buildId}>
              <td className="px-2 py-2 [overflow-wrap:anywhere]" dir="auto">
                {row.title}
              </td>
              <td className="px-2">
                <Link
                  href={`/builds/${row.buildId}`}
                  className="underline decoration-line underline-offset-4 hover:decoration-text"
                >
                  {row.engine} {row.build}
                </Link>
              </td>
              <td className="figure px-2">{row.runs}</td>
              <td className="figure px-2">{crashWords({ ...row, ruledOutAbove: row.high })}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </TableFrame>
  );
}
