"use client";
import { outcomes, type SeenOutcome } from "@/core/kit";
import { Button, Field, Input, Sheet } from "@/ui";

/** Asks what was seen of a title that didn't run, or that crashed before it ran. */
export function SeenSheet({
  asked,
  open,
  onOpenChange,
  what,
  onWhat,
  onKeep,
}: {
  asked: SeenOutcome | "at first" | null;
  open: boolean;
  onOpenChange: (open: boolean) => void;
  what: string;
  onWhat: (what: string) => void;
  onKeep: () => void;
}) {
  return (
    <Sheet
      open={open}
      onOpenChange={onOpenChange}
      title={
        asked === "at first"
          ? "It crashed at first, then ran"
          : `It ${asked === "bad copy" ? "is a bad copy" : asked}`
      }
    >
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          onKeep();
        }}
      >
        <Field label="What was seen">
          {(ids) => (
            <Input
              {...ids}
              autoFocus
              value={what}
              maxLength={400}
              placeholder={outcomes.find(({ outcome }) => outcome === asked)?.what}
              onChange={(event) => onWhat(event.target.value)}
            />
          )}
        </Field>
        <Button type="submit" look="lit" className="justify-self-start" hint="Enter">
          Keep it
        </Button>
      </form>
    </Sheet>
  );
}
