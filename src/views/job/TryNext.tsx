"use client";
import type { Suggestion } from "@/core/advise";
import dynamic from "next/dynamic";
import { strategyWords, words } from "@/core/words";
import { strategies, type Strategy } from "@/core/kit";
import type { JobView } from "@/contract";
import { Button, ChoiceField, Keys, Link, say, toast, Explained } from "@/ui";
import { call } from "@/contract/client";
import type { useTrying } from "./useTrying";

/** Loaded where an engine has no settings. */
const NoCatalogue = dynamic(async () => (await import("@/views/kit/NoCatalogue")).NoCatalogue);

/** Three things worth trying, each begun in one key; how the job is begun can be changed here. */
export function TryNext({
  job,
  suggestions,
  opening,
  trying: { tryOne, open, busy },
  onChanged,
  isSteady,
  settings,
  decided,
}: {
  trying: ReturnType<typeof useTrying>;
  onChanged: () => void;
  isSteady: boolean;
  /** How many settings its engine has listed, and how many trials were decided. */
  settings: number;
  decided: number;
} & Pick<JobView, "job" | "suggestions" | "opening">) {
  const setStrategy = async (strategy: Strategy) => {
    const sent = await call("changeJob", { id: job.id, body: { strategy }, saw: job.version });
    if (!sent.ok) toast.error(sent.refusal.title, { description: sent.refusal.fix });
    onChanged();
  };
  return (
    <section className="border-t border-line pt-4" aria-label="Try next">
      <Keys
        actions={[
          ...(opening ? [{ keys: "a", shown: "A", label: "begin as offered", run: open }] : []),
          ...suggestions.slice(0, 1).map((suggestion) => ({
            keys: "y",
            shown: "Y",
            label: `try ${suggestion.lever.label.toLowerCase()}`,
            run: () => tryOne(suggestion),
          })),
        ]}
      />
      <header className="flex items-center justify-between">
        <h2 className="text-[13px] font-semibold text-soft">
          <Explained by="Try next">Try next</Explained>
        </h2>
        <ChoiceField
          quiet
          label="How to begin"
          value={job.strategy}
          options={strategies.map((strategy) => ({
            value: strategy,
            label: strategyWords[strategy].name.toLowerCase(),
            note: strategyWords[strategy].when.split(". ")[0],
          }))}
          onChange={(strategy) => void setStrategy(strategy as Strategy)}
        />
      </header>
      {opening && (
        <div className="mt-1 rounded-md border border-lit p-2 text-[13px]">
          <p>{words(opening.sentence)}</p>
          <Button look="lit" hint="A" className="mt-2" disabled={busy} onClick={open}>
            {opening.strategy === "descend" ? "All fastest, once" : "Plan the screening"}
          </Button>
        </div>
      )}
      <ol className="mt-2 space-y-3">
        {suggestions.map((suggestion, index) => (
          <li key={`${suggestion.lever.key} ${String(suggestion.lever.to)}`} className="text-[13px]">
            <p>{words(suggestion.sentence)}</p>
            <p className="mt-0.5 flex items-center justify-between gap-2">
              <span className="figure text-[12px] text-soft">
                {(100 * suggestion.belief.chance).toFixed(0)} % chance, {suggestion.minutes} min
                {costWords(suggestion)}
              </span>
              <Button hint={index === 0 ? "Y" : undefined} disabled={busy} onClick={() => tryOne(suggestion)}>
                Try it
              </Button>
            </p>
            {suggestion.cautions.length > 0 && (
              <p className="mt-1 text-[12px] text-caution">{suggestion.cautions.map(words).join(" ")}</p>
            )}
          </li>
        ))}
      </ol>
      {suggestions.length === 0 && (
        <div className="mt-1 text-[13px] text-soft">
          {isSteady ? (
            "It is Steady, and nothing is missing."
          ) : settings === 0 ? (
            <NoCatalogue engineId={job.engineId} rigId={job.rigId} />
          ) : decided > 0 ? (
            "Nothing to suggest: nothing that is left, and that the house rules allow, is likely to help."
          ) : (
            <>
              None of the {say.count(settings, "setting")} listed is likely to help, as far as it is known what
              they are for.{" "}
              <Link
                href={`/kit/engines/${job.engineId}`}
                className="underline decoration-line underline-offset-4"
              >
                Say what they relieve
              </Link>
              , or try one.
            </>
          )}
        </div>
      )}
    </section>
  );
}

/** What a lever costs, in words. */
function costWords({ lever: { costs, restart } }: Suggestion): string {
  const named = Object.entries(costs)
    .filter(([, cost]) => cost > 0)
    .map(([name, cost]) => `${["", "little ", "some ", "much "][cost]}${name}`);
  return `${named.length > 0 ? `, costs ${named.join(", ")}` : ""}${restart ? ", restart" : ""}`;
}
