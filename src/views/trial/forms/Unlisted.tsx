"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import type { Body, Refusal } from "@/contract";
import { call } from "@/contract/client";
import { Button, ChoiceField, Field, Input } from "@/ui";

type Owner = Body<"nameSwitch">["owner"];
const owners: { value: Owner; label: string }[] = [
  { value: "engine", label: "the engine's settings" },
  { value: "rig", label: "the device itself" },
  { value: "title", label: "the title's own menus" },
];

/** Something that can be set and isn't listed: named in place, with its values, and chosen at once. */
export function Unlisted({
  jobId,
  onListed,
}: {
  jobId: string;
  onListed: (key: string, label: string, others: string[]) => void;
}) {
  const router = useRouter();
  const [label, setLabel] = useState("");
  const [values, setValues] = useState("off, on");
  const [owner, setOwner] = useState<Owner>("engine");
  const [refusal, setRefusal] = useState<Refusal | null>(null);
  const [busy, setBusy] = useState(false);
  const list = async () => {
    setBusy(true);
    const named = values
      .split(",")
      .map((value) => value.trim())
      .filter(Boolean);
    const sent = await call("nameSwitch", { id: jobId, body: { owner, label, values: named } });
    setBusy(false);
    if (!sent.ok) return setRefusal(sent.refusal);
    setRefusal(null);
    setLabel("");
    onListed(sent.answer.key, label.trim(), named.slice(1));
    router.refresh();
  };
  return (
    <details>
      <summary className="cursor-pointer text-[13px] text-soft hover:text-text">
        Something that isn&apos;t listed
      </summary>
      <div className="mt-2 grid grid-cols-[1.2fr_1.4fr_1.2fr_auto] items-start gap-3 max-sm:grid-cols-1">
        <Field label="What it is called" error={refusal?.fields.label}>
          {(ids) => (
            <Input
              {...ids}
              value={label}
              maxLength={80}
              placeholder="e.g. Texture filter"
              onChange={(event) => setLabel(event.target.value)}
            />
          )}
        </Field>
        <Field
          label="Its values"
          help="Separated by commas, the one in force first."
          error={refusal?.fields.values}
        >
          {(ids) => <Input {...ids} value={values} onChange={(event) => setValues(event.target.value)} />}
        </Field>
        <Field label="Where it is set">
          {({ id }) => (
            <ChoiceField
              id={id}
              label="Where it is set"
              value={owner}
              options={owners}
              onChange={(chosen) => setOwner(chosen as Owner)}
            />
          )}
        </Field>
        <Button className="sm:mt-6" disabled={busy || label.trim() === ""} onClick={() => void list()}>
          List it
        </Button>
      </div>
      {refusal && Object.keys(refusal.fields).length === 0 && (
        <p role="alert" className="mt-2 text-[13px] text-caution">
          {refusal.title} {refusal.fix}
        </p>
      )}
    </details>
  );
}
