"use client";
import { useQuery } from "@tanstack/react-query";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { call } from "@/contract/client";
import { Button, ChoiceField, Field, Panel, SearchChoice, say, toast } from "@/ui";

const kinds = [
  { value: "title", label: "Titles" },
  { value: "system", label: "Systems" },
  { value: "rig", label: "Rigs" },
  { value: "engine", label: "Engines" },
] as const;
type What = (typeof kinds)[number]["value"];

interface Chosen {
  id: string;
  name: string;
}
const none: Chosen = { id: "", name: "" };

/** Things of a kind by what is typed. */
function useThings(what: What, typed: string) {
  return useQuery({
    queryKey: ["merge", what, typed],
    placeholderData: (before) => before,
    queryFn: async (): Promise<{ id: string; name: string; note?: string }[]> => {
      if (what === "title") {
        const sent = await call("listTitles", { query: { search: typed } });
        return sent.ok ? sent.answer.rows.map(({ id, name, system }) => ({ id, name, note: system })) : [];
      }
      if (what === "rig") {
        const sent = await call("listRigs", { query: { search: typed } });
        return sent.ok ? sent.answer.rows.map(({ id, name }) => ({ id, name })) : [];
      }
      const sent = await call("viewKitNames");
      return sent.ok ? (what === "system" ? sent.answer.systems : sent.answer.engines) : [];
    },
  });
}

/** One thing that is there twice, put into the other: what moves is listed first, and one undoing takes it back. */
export function MergePage({ first }: { first: { what: string; from: string; name: string } }) {
  const router = useRouter();
  const [what, setWhat] = useState<What>(kinds.find(({ value }) => value === first.what)?.value ?? "title");
  const [from, setFrom] = useState<Chosen>(first.from === "" ? none : { id: first.from, name: first.name });
  const [into, setInto] = useState<Chosen>(none);
  const [busy, setBusy] = useState(false);
  const isChosen = from.id !== "" && into.id !== "" && from.id !== into.id;
  const { data: facts } = useQuery({
    queryKey: ["merge facts", what, from.id, into.id],
    enabled: isChosen,
    queryFn: async () => {
      const sent = await call("viewMerge", { query: { what, from: from.id, into: into.id } });
      if (!sent.ok) throw new Error(sent.refusal.title);
      return sent.answer;
    },
  });
  const merge = async () => {
    setBusy(true);
    const sent = await call("merge", { body: { what, from: from.id, into: into.id } });
    setBusy(false);
    if (!sent.ok) return void toast.error(sent.refusal.title, { description: sent.refusal.fix });
    toast(`${from.name} is merged into ${into.name}.`, {
      description: "Ctrl+Z takes all of it back.",
      action: { label: "What was done", onClick: () => router.push("/done?kind=kit") },
    });
    setFrom(none);
    setInto(none);
    router.refresh();
  };
  return (
    <Panel title="Merge two of a kind" className="max-w-3xl">
      <p className="mb-3 text-[13px] text-soft">
        For what was entered twice: everything of the first moves to the second, and the first leaves the shelf.
        What rests on it is judged anew.
      </p>
      <div className="grid gap-3 sm:grid-cols-3">
        <Field label="What">
          {({ id }) => (
            <ChoiceField
              id={id}
              label="What is merged"
              value={what}
              options={kinds.map((kind) => ({ ...kind }))}
              onChange={(value) => {
                setWhat(value as What);
                setFrom(none);
                setInto(none);
              }}
            />
          )}
        </Field>
        <Pick label="This one goes" what={what} value={from} onChange={setFrom} />
        <Pick label="This one stays" what={what} value={into} onChange={setInto} />
      </div>
      {from.id !== "" && from.id === into.id && (
        <p role="alert" className="mt-3 text-[13px] text-caution">
          That is one and the same: choose two.
        </p>
      )}
      {isChosen && facts && (
        <section className="mt-4 border-t border-line pt-3 text-[13px]" aria-label="What moves">
          <p>
            From <b>{from.name}</b> to <b>{into.name}</b>:
          </p>
          <ul className="mt-1 list-disc pl-5">
            {facts.moves.map(({ what: each, count }) => (
              <li key={each}>{count === 0 ? `no ${each}` : `${count} × ${each}`}</li>
            ))}
          </ul>
          {facts.against.length > 0 && (
            <p role="alert" className="mt-2 text-caution">
              Both have {say.count(facts.against.length, "title")} of the same name: {facts.against.join(", ")}.
              Merge those first.
            </p>
          )}
          <Button
            look="lit"
            className="mt-3"
            disabled={busy || facts.against.length > 0}
            onClick={() => void merge()}
          >
            Merge
          </Button>
        </section>
      )}
    </Panel>
  );
}

function Pick({
  label,
  what,
  value,
  onChange,
}: {
  label: string;
  what: What;
  value: Chosen;
  onChange: (chosen: Chosen) => void;
}) {
  const [typed, setTyped] = useState("");
  const { data = [], isFetching } = useThings(what, typed);
  return (
    <Field label={label}>
      {({ id }) => (
        <SearchChoice
          id={id}
          label={label}
          value={value.id}
          shown={value.name || undefined}
          options={data.map((each) => ({ value: each.id, label: each.name, note: each.note }))}
          onSearch={what === "title" || what === "rig" ? setTyped : undefined}
          finding={isFetching}
          onChange={(chosen) => onChange(data.find((each) => each.id === chosen) ?? none)}
        />
      )}
    </Field>
  );
}
