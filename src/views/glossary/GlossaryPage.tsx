"use client";
import { useDeferredValue, useEffect, useRef, useState } from "react";
import { explainedNames, type ExplainedKey } from "@/core/explained";
import { explainedTitle, searchExplanations } from "@/core/glossary";
import { EmptyPanel, Explanation, Input, Keys, Link } from "@/ui";

/** Names under which something stands on pages, beside its title. */
const othersOf = (key: ExplainedKey) => explainedNames[key].slice(1).join("; ");

/** Every figure and word of the application, explained by the same texts as where it stands; searchable. */
export function GlossaryPage() {
  const [search, setSearch] = useState("");
  const field = useRef<HTMLInputElement>(null);
  const keys = searchExplanations(useDeferredValue(search));
  // The address names one of them; it is drawn after the browser has looked for it.
  useEffect(() => document.getElementById(window.location.hash.slice(1))?.scrollIntoView(), []);
  return (
    <div className="mx-auto max-w-5xl p-5">
      <Keys
        actions={[{ keys: "/", shown: "/", label: "search the glossary", run: () => field.current?.focus() }]}
      />
      <h1 className="text-xl font-semibold">Glossary</h1>
      <p className="mt-1 max-w-prose text-soft">
        What every figure and word means, how it is made and what is good. The same texts open wherever a name
        is underlined with dots.
      </p>
      <div className="mt-3 flex flex-wrap items-center gap-3">
        <Input
          ref={field}
          type="search"
          aria-label="Search the glossary"
          placeholder="1 % low, hitches, layer …"
          className="max-w-72"
          value={search}
          onChange={(event) => setSearch(event.target.value)}
        />
        <span className="text-[13px] text-soft" role="status">
          {keys.length} of {searchExplanations("").length}
        </span>
      </div>
      <div className="mt-4 grid gap-6 md:grid-cols-[180px_minmax(0,1fr)]">
        <nav aria-label="Words" className="max-md:hidden">
          <ul className="sticky top-4 max-h-[calc(100vh-90px)] space-y-0.5 overflow-auto text-[13px]">
            {keys.map((key) => (
              <li key={key}>
                <Link
                  href={`#${key}`}
                  className="block rounded px-2 py-1 text-soft hover:bg-raised hover:text-text"
                >
                  {explainedTitle(key)}
                </Link>
              </li>
            ))}
          </ul>
        </nav>
        {keys.length === 0 ? (
          <EmptyPanel title="No word like that">
            Try a shorter one, or a word of the trade: average, stutter, watts.
          </EmptyPanel>
        ) : (
          <div className="grid items-start gap-4 xl:grid-cols-2">
            {keys.map((key) => (
              <section key={key} id={key} className="scroll-mt-4 rounded-(--radius-panel) bg-panel p-4">
                <h2 className="text-[15px] font-semibold">{explainedTitle(key)}</h2>
                {othersOf(key) && <p className="text-[12px] text-soft">also: {othersOf(key)}</p>}
                <Explanation of={key} />
              </section>
            ))}
          </div>
        )}
      </div>
    </div>
  );
}
