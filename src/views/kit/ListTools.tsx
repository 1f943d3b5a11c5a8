"use client";
import { Search } from "lucide-react";
import { useRef } from "react";
import type { PageQuery } from "@/core/records";
import { Button, ChoiceField, Input, Keys, say, type ChoiceOption } from "@/ui";

/** Search, filter and pages of a list. */
export function ListTools({
  query,
  total,
  next,
  noun,
  filters,
  ask,
  children,
}: {
  query: PageQuery;
  total: number;
  next: string | null;
  noun: string;
  filters: ChoiceOption[];
  ask: (changes: Partial<PageQuery>) => void;
  children?: React.ReactNode;
}) {
  const field = useRef<HTMLInputElement>(null);
  return (
    <div className="mb-3 flex flex-wrap items-center gap-3 text-[13px]">
      <Keys actions={[{ keys: "/", shown: "/", label: "search", run: () => field.current?.focus() }]} />
      <form
        className="relative w-64"
        onSubmit={(event) => {
          event.preventDefault();
          ask({ search: field.current?.value ?? "" });
        }}
      >
        <Search size={15} aria-hidden className="absolute left-2.5 top-2.5 text-soft" />
        <Input
          key={query.search}
          ref={field}
          defaultValue={query.search}
          aria-label={`Search ${noun}s`}
          placeholder="name, then Enter"
          className="pl-8"
        />
      </form>
      <div className="w-48">
        <ChoiceField
          label="Show"
          value={query.filter || "all"}
          options={[
            { value: "all", label: `all ${noun}s in use` },
            ...filters,
            { value: "retired", label: "retired" },
          ]}
          onChange={(value) => ask({ filter: value === "all" ? "" : value })}
        />
      </div>
      <span className="text-soft">{say.count(total, noun)}</span>
      {children}
      {(next || query.cursor) && (
        <span className="ml-auto flex items-center gap-2">
          <Button disabled={!query.cursor} onClick={() => ask({ cursor: "" })}>
            From the start
          </Button>
          <Button disabled={!next} onClick={() => ask({ cursor: next ?? "" })}>
            After
          </Button>
        </span>
      )}
    </div>
  );
}
