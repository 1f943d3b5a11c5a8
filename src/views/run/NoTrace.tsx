"use client";
import { useState } from "react";
import { outcomes, type SeenOutcome } from "@/core/kit";
import { Button, Keys, onceOpen } from "@/ui";

/** Loaded when it is first asked. */
const SeenSheet = onceOpen(async () => (await import("./SeenSheet")).SeenSheet);

/** A title that left no trace, or crashed before it ran: said with one key and what was seen, it counts as an outcome. */
export function NoTrace({
  onOutcome,
  atFirst,
  onAtFirst,
}: {
  /** Keeps it; says whether it was kept. */
  onOutcome: (outcome: SeenOutcome, what: string) => Promise<boolean>;
  /** What happened at first, where it ran after that; null where nothing did. */
  atFirst: string | null;
  onAtFirst: (what: string | null) => void;
}) {
  const [asked, setAsked] = useState<SeenOutcome | "at first" | null>(null);
  const [what, setWhat] = useState("");
  const ask = (of: typeof asked) => {
    setWhat(of === "at first" ? (atFirst ?? "") : "");
    setAsked(of);
  };
  const keep = async () => {
    if (asked === null) return;
    if (asked === "at first") onAtFirst(what.trim() || "crashed at first, then ran");
    else if (!(await onOutcome(asked, what.trim()))) return;
    setAsked(null);
  };
  return (
    <section aria-label="It didn't run" className="mt-4 flex flex-wrap items-center gap-2 text-[13px]">
      <Keys
        actions={[
          ...outcomes.map(({ outcome, key }) => ({
            keys: key,
            shown: key.toUpperCase(),
            label: outcome,
            run: () => ask(outcome),
          })),
          { keys: "a", shown: "A", label: "crashed at first, then ran", run: () => ask("at first") },
        ]}
      />
      <span className="text-soft">It didn&apos;t run:</span>
      {outcomes.map(({ outcome, key }) => (
        <Button key={outcome} look="quiet" hint={key.toUpperCase()} onClick={() => ask(outcome)}>
          {outcome}
        </Button>
      ))}
      <Button look="quiet" hint="A" onClick={() => ask("at first")}>
        crashed at first, then ran
      </Button>
      {atFirst !== null && (
        <span className="text-caution">
          Noted with the next run: {atFirst}.{" "}
          <button type="button" className="underline" onClick={() => onAtFirst(null)}>
            Take it back
          </button>
        </span>
      )}
      <SeenSheet
        asked={asked}
        open={asked !== null}
        onOpenChange={(open) => !open && setAsked(null)}
        what={what}
        onWhat={setWhat}
        onKeep={() => void keep()}
      />
    </section>
  );
}
