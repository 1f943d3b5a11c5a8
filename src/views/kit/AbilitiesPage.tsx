"use client";
import { Check, CircleHelp, X } from "lucide-react";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { call } from "@/contract/client";
import type { AbilitiesView } from "@/core/records";
import { Button, EmptyPanel, Field, Input, Keys, Sheet, TableFrame, When, toast } from "@/ui";

interface Place {
  engineId: string;
  ability: string;
}

/**
 * Engines against what they are able to: outside controls, own drivers, save states …, with who checked it and
 * when.
 */
export function AbilitiesPage({ engines, rows, asked }: AbilitiesView) {
  const [place, setPlace] = useState<Place | null>(null);
  const [typed, setTyped] = useState("");
  const names = new Map<string, string>();
  for (const { ability } of [...rows, ...asked])
    if (!names.has(ability.toLowerCase())) names.set(ability.toLowerCase(), ability);
  const abilities = [...names.values()].sort((a, b) => a.localeCompare(b));
  const found = ({ engineId, ability }: Place) =>
    rows.find((row) => row.engineId === engineId && row.ability.toLowerCase() === ability.toLowerCase());
  const add = () => {
    const [engine] = engines;
    if (engine && typed.trim() !== "") setPlace({ engineId: engine.id, ability: typed.trim() });
  };
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-3">
      <Keys
        actions={[
          {
            keys: "n",
            shown: "N",
            label: "another ability",
            run: () => document.getElementById("new-ability")?.focus(),
          },
        ]}
      />
      <form
        className="flex flex-wrap items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          add();
        }}
      >
        <Field label="Another ability" className="w-72 max-w-full">
          {({ id: _id }) => (
            <Input
              id="new-ability"
              aria-label="Another ability"
              value={typed}
              maxLength={80}
              placeholder="e.g. outside controls"
              onChange={(event) => setTyped(event.target.value)}
            />
          )}
        </Field>
        <Button type="submit" hint="N">
          Put it down
        </Button>
      </form>
      {abilities.length === 0 || engines.length === 0 ? (
        <EmptyPanel title="Nothing is put down yet.">
          What an engine must have before a run is spent on it: outside controls, own drivers, reading from a
          card, save states. Put down what was found, and by whom; titles and house rules can ask for it.
        </EmptyPanel>
      ) : (
        <TableFrame name="Abilities">
          <table aria-label="Abilities" className="w-full text-left text-[13px]">
            <thead className="text-[12px] text-soft">
              <tr>
                <th className="px-2 py-1.5 font-normal">Engine</th>
                {abilities.map((ability) => (
                  <th key={ability} className="px-2 font-normal" dir="auto">
                    {ability}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody className="divide-y divide-line">
              {engines.map(({ id, name }) => (
                <tr key={id}>
                  <th scope="row" className="px-2 py-2 text-left font-normal" dir="auto">
                    {name}
                  </th>
                  {abilities.map((ability) => {
                    const row = found({ engineId: id, ability });
                    return (
                      <td key={ability} className="p-1">
                        <button
                          type="button"
                          onClick={() => setPlace({ engineId: id, ability })}
                          aria-label={`${name}: ${ability}, ${row ? (row.able ? "able" : "not able") : "not checked"}`}
                          className="inline-flex min-h-7 items-center gap-1.5 rounded-md px-2 hover:bg-raised"
                        >
                          {row ? (
                            row.able ? (
                              <Check size={14} aria-hidden />
                            ) : (
                              <X size={14} aria-hidden className="text-caution" />
                            )
                          ) : (
                            <CircleHelp size={14} aria-hidden className="text-soft" />
                          )}
                          <span className={row ? undefined : "text-soft"}>
                            {row ? (row.able ? "able" : "not able") : "not checked"}
                          </span>
                        </button>
                        {row && (
                          <span className="block px-2 text-[11px] text-soft">
                            {row.checkedBy}, <When at={row.checkedAt} as="ago" />
                            {row.note && <span className="block [overflow-wrap:anywhere]">{row.note}</span>}
                          </span>
                        )}
                      </td>
                    );
                  })}
                </tr>
              ))}
            </tbody>
          </table>
        </TableFrame>
      )}
      {asked.length > 0 && (
        <p className="text-[13px] text-soft">
          Asked for:{" "}
          {asked
            .map(({ ability, by }) => `${ability} (${by.slice(0, 3).join(", ")}${by.length > 3 ? " …" : ""})`)
            .join("; ")}
          .
        </p>
      )}
      {place && (
        <AbilitySheet
          engines={engines}
          place={place}
          there={found(place)}
          onPlace={setPlace}
          onClose={() => {
            setPlace(null);
            setTyped("");
          }}
        />
      )}
    </div>
  );
}

function AbilitySheet({
  engines,
  place,
  there,
  onPlace,
  onClose,
}: {
  engines: AbilitiesView["engines"];
  place: Place;
  there: AbilitiesView["rows"][number] | undefined;
  onPlace: (place: Place) => void;
  onClose: () => void;
}) {
  const router = useRouter();
  const [note, setNote] = useState(there?.note ?? "");
  const [who, setWho] = useState("");
  const put = async (able: boolean | null) => {
    const sent = await call("putAbility", { body: { ...place, able, note, checkedBy: who } });
    if (sent.ok) {
      onClose();
      router.refresh();
    } else toast.error(sent.refusal.title, { description: sent.refusal.fix });
  };
  return (
    <Sheet open onOpenChange={(open) => !open && onClose()} title={place.ability}>
      <div className="grid gap-3">
        <Field label="Engine">
          {({ id }) => (
            <select
              id={id}
              value={place.engineId}
              onChange={(event) => onPlace({ ...place, engineId: event.target.value })}
              className="min-h-9 rounded-md border border-edge bg-ground px-2"
            >
              {engines.map((engine) => (
                <option key={engine.id} value={engine.id}>
                  {engine.name}
                </option>
              ))}
            </select>
          )}
        </Field>
        <Field label="What was found" help="May stay empty.">
          {(ids) => (
            <Input {...ids} value={note} maxLength={400} onChange={(event) => setNote(event.target.value)} />
          )}
        </Field>
        <Field label="Who checked it" help="Empty: this machine.">
          {(ids) => (
            <Input {...ids} value={who} maxLength={80} onChange={(event) => setWho(event.target.value)} />
          )}
        </Field>
        <div className="flex flex-wrap gap-2">
          <Button look="lit" onClick={() => void put(true)}>
            Able
          </Button>
          <Button onClick={() => void put(false)}>Not able</Button>
          {there && (
            <Button look="quiet" onClick={() => void put(null)}>
              Forget it
            </Button>
          )}
        </div>
      </div>
    </Sheet>
  );
}
