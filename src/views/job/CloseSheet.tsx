"use client";
import { useState } from "react";
import { call } from "@/contract/client";
import type { JobRow } from "@/core/records";
import { Button, Field, Sheet, TextArea, say, toast } from "@/ui";

/** Closes a job, with a note. */
export function CloseSheet({
  job,
  open,
  onOpenChange,
  overrides,
  decided,
  onChanged,
}: {
  job: Pick<JobRow, "id" | "version">;
  open: boolean;
  onOpenChange: (open: boolean) => void;
  /** How many overrides are kept, and how many trials were decided. */
  overrides: number;
  decided: number;
  onChanged: () => void;
}) {
  const [note, setNote] = useState("");
  const close = async () => {
    const sent = await call("closeJob", { id: job.id, body: { note }, saw: job.version });
    if (!sent.ok) toast.error(sent.refusal.title, { description: sent.refusal.fix });
    else onOpenChange(false);
    onChanged();
  };
  return (
    <Sheet open={open} onOpenChange={onOpenChange} title="Close the job">
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          void close();
        }}
      >
        <p className="text-soft">
          The confirmation run, {say.count(overrides, "override")} and what proved each are kept as the profile.{" "}
          {say.count(decided, "trial")} decided.
        </p>
        <Field label="Note">
          {(ids) => (
            <TextArea
              {...ids}
              value={note}
              maxLength={1000}
              onChange={(event) => setNote(event.target.value)}
            />
          )}
        </Field>
        <Button type="submit" look="lit" className="justify-self-start">
          Close it
        </Button>
      </form>
    </Sheet>
  );
}
