"use client";
import { X } from "lucide-react";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { preflightWhens, type PreflightItem } from "@/core/kit";
import type { PreflightItemRow } from "@/core/records";
import { Button, ChoiceField, Field, Input, Panel, toast } from "@/ui";
import { call } from "@/contract/client";

/** What is checked before a run; a tuner's own items stand beside those that ship. */
export function PreflightPage({ items }: { items: PreflightItemRow[] }) {
  const router = useRouter();
  const blank: PreflightItem = { label: "", why: "", when: "always" };
  const [item, setItem] = useState(blank);
  const [problem, setProblem] = useState<string | undefined>();
  const add = async (added: PreflightItem) => {
    const sent = await call("addPreflight", { body: added });
    setProblem(sent.ok ? undefined : sent.refusal.title);
    if (sent.ok) setItem(blank);
    router.refresh();
  };
  const remove = async ({ id, label, why, when }: PreflightItemRow) => {
    const sent = await call("removePreflight", { id });
    if (!sent.ok) return toast.error(sent.refusal.title);
    router.refresh();
    toast("Taken off the list.", { action: { label: "Undo", onClick: () => void add({ label, why, when }) } });
  };
  return (
    <Panel title="Pre-flight list">
      <ul className="divide-y divide-line">
        {items.map((row) => (
          <li
            key={row.id}
            className="grid grid-cols-[1.6fr_2fr_8rem_auto] items-center gap-3 py-1.5 text-[13px]"
          >
            <span>{row.label}</span>
            <span className="text-soft">{row.why}</span>
            <span className="text-soft">{row.when}</span>
            <Button look="quiet" aria-label={`Take off: ${row.label}`} onClick={() => void remove(row)}>
              <X size={14} aria-hidden />
            </Button>
          </li>
        ))}
      </ul>
      <form
        className="mt-4 grid grid-cols-[1.6fr_2fr_10rem_auto] items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          void add(item);
        }}
      >
        <Field label="Your own item" error={problem}>
          {(ids) => (
            <Input
              {...ids}
              value={item.label}
              maxLength={200}
              onChange={(event) => setItem({ ...item, label: event.target.value })}
            />
          )}
        </Field>
        <Field label="Why">
          {(ids) => (
            <Input
              {...ids}
              value={item.why}
              maxLength={300}
              onChange={(event) => setItem({ ...item, why: event.target.value })}
            />
          )}
        </Field>
        <Field label="When">
          {({ id }) => (
            <ChoiceField
              id={id}
              label="When"
              value={item.when}
              options={preflightWhens.map((value) => ({ value, label: value }))}
              onChange={(value) => setItem({ ...item, when: value as PreflightItem["when"] })}
            />
          )}
        </Field>
        <Button type="submit" look="lit" className="min-h-9">
          Add
        </Button>
      </form>
    </Panel>
  );
}
