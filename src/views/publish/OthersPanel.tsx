"use client";
import { useRouter } from "next/navigation";
import { useRef, useState } from "react";
import { call } from "@/contract/client";
import type { OtherPublication } from "@/core/records";
import { Button, FileInput, Input, Panel, When, toast } from "@/ui";
import { useBrought } from "@/views/drop";
import { Other } from "./Other";

const publicationKinds = ["publication"] as const;

/** What others published, brought in from their JSON: beside one's own, never counted with it. */
export function OthersPanel({ rows }: { rows: OtherPublication[] }) {
  const router = useRouter();
  const chooser = useRef<HTMLInputElement>(null);
  const [from, setFrom] = useState("");
  const [shown, setShown] = useState<string | null>(null);
  const take = async (file: File) => {
    let read: unknown;
    try {
      read = JSON.parse(await file.text());
    } catch {
      toast.error("This file is no JSON.", {
        description: "A publication is saved as JSON by whoever made it.",
      });
      return;
    }
    const { publicationSchema } = await import("@/core/publication");
    const parsed = publicationSchema.safeParse(read);
    if (!parsed.success) {
      const [issue] = parsed.error.issues;
      toast.error("This file is no publication.", {
        description: issue && `${issue.path.join(".") || "the file"}: ${issue.message}`,
      });
      return;
    }
    const sent = await call("takePublication", { body: { from, publication: parsed.data } });
    if (sent.ok) {
      setFrom("");
      router.refresh();
    } else toast.error(sent.refusal.title, { description: sent.refusal.fix });
  };
  useBrought(publicationKinds, (file) => void take(file));
  const drop = async (id: string) => {
    const sent = await call("dropPublication", { id });
    if (sent.ok) router.refresh();
    else toast.error(sent.refusal.title, { description: sent.refusal.fix });
  };
  return (
    <Panel title="From others" className="mt-4">
      <p className="mb-3 text-[13px] text-soft">
        What somebody else measured, from the JSON that they saved. It stands here by itself: none of your
        figures counts it.
      </p>
      <div className="mb-3 flex flex-wrap items-center gap-2">
        <Input
          aria-label="Who it is from"
          placeholder="who it is from"
          className="max-w-56"
          maxLength={120}
          value={from}
          onChange={(event) => setFrom(event.target.value)}
        />
        <Button onClick={() => chooser.current?.click()}>Bring in a publication</Button>
        <FileInput
          ref={chooser}
          label="Publication to bring in"
          accept=".json,application/json"
          onFile={(file) => void take(file)}
        />
      </div>
      <ul className="grid gap-2">
        {rows.map(({ id, from: whom, addedAt, name, madeAt }) => (
          <li key={id} className="rounded-md border border-line p-3">
            <div className="flex flex-wrap items-center gap-3">
              <span className="min-w-0 flex-1 [overflow-wrap:anywhere]" dir="auto">
                {name}
                <span className="block text-[12px] text-soft">
                  {whom ? `from ${whom}, ` : ""}made {madeAt.slice(0, 10)}, brought in <When at={addedAt} />
                </span>
              </span>
              <Button onClick={() => setShown(shown === id ? null : id)}>
                {shown === id ? "Fold" : "Show"}
              </Button>
              <Button look="quiet" onClick={() => void drop(id)}>
                Take away
              </Button>
            </div>
            {shown === id && <Other id={id} />}
          </li>
        ))}
      </ul>
    </Panel>
  );
}
