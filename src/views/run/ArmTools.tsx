"use client";
import { useState } from "react";
import { Button, ChoiceField, say } from "@/ui";

/** A log or a run that has an arm, or none yet. */
export interface Armed {
  id: string;
  arm: number | null;
}

/**
 * Gives several logs or runs their arms at once: swapped, in turn, by their names, or those that are ticked to one.
 * @param byName arms by the names; null where they say nothing
 */
export function ArmTools({
  names,
  items,
  ticked,
  byName,
  onSet,
}: {
  names: string[];
  items: Armed[];
  ticked: ReadonlySet<string>;
  byName: (number | null)[] | null;
  onSet: (arms: Map<string, number>) => void;
}) {
  const [to, setTo] = useState(0);
  const each = (arm: (item: Armed, at: number) => number | null) =>
    onSet(
      new Map(
        items.flatMap((item, at) => {
          const now = arm(item, at);
          return now === null ? [] : [[item.id, now] as const];
        }),
      ),
    );
  return (
    <div className="flex flex-wrap items-center gap-2" role="group" aria-label="Arms of several">
      {names.length === 2 && (
        <Button onClick={() => each(({ arm }) => (arm === null ? null : 1 - arm))}>
          Swap {names[0]} and {names[1]}
        </Button>
      )}
      <Button onClick={() => each((_, at) => at % names.length)}>In turn</Button>
      {byName && <Button onClick={() => each((_, at) => byName[at] ?? null)}>By name</Button>}
      <span className="flex items-center gap-1.5 text-[13px]">
        <Button disabled={ticked.size === 0} onClick={() => each(({ id }) => (ticked.has(id) ? to : null))}>
          Set {ticked.size === 0 ? "the ticked" : say.count(ticked.size, "ticked")} to
        </Button>
        <ChoiceField
          label="Arm for the ticked"
          value={String(to)}
          options={names.map((name, arm) => ({ value: String(arm), label: name }))}
          onChange={(arm) => setTo(Number(arm))}
        />
      </span>
    </div>
  );
}
