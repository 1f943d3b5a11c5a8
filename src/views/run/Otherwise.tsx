"use client";
import { heldConditions, type Holding, type Differing } from "@/core/job";
import type { Conditions } from "@/core/kit";
import { said, words } from "@/core/words";
import { Button, Keys } from "@/ui";

/** The bench's conditions with those that hold in a job in their place. */
export const benchAsHeld = (bench: Conditions, holds: Holding): Conditions => ({
  ...bench,
  ...Object.fromEntries(
    heldConditions.flatMap((key) =>
      holds.conditions[key] === undefined ? [] : [[key, holds.conditions[key]]],
    ),
  ),
});

/** In what the next run would be made otherwise than what holds, and one key that sets the bench to it. */
export function Otherwise({ differing, onSet }: { differing: Differing[]; onSet: (() => void) | null }) {
  if (differing.length === 0) return null;
  return (
    <div
      role="status"
      className="mb-4 flex flex-wrap items-center gap-3 rounded-md border border-caution px-3 py-2 text-[13px]"
    >
      <p className="min-w-0 flex-1">{words(said("holds.otherwise", { differing }))}</p>
      {onSet && (
        <>
          <Keys actions={[{ keys: "b", shown: "B", label: "set the bench to what holds", run: onSet }]} />
          <Button hint="B" onClick={onSet}>
            Set the bench to what holds
          </Button>
        </>
      )}
    </div>
  );
}
