"use client";
import { useQuery } from "@tanstack/react-query";
import { useDeferredValue, useState } from "react";
import { call } from "@/contract";
import { hardnesses } from "@/core/kit";
import type { CampaignKitView } from "@/core/records";
import { Button, Choice, Input, Switch, say } from "@/ui";

/** Titles by filter, by hand, or the hard ones of every system. @param chosen id → scene, empty for the usual */
export function TitlePicker({
  systems,
  chosen,
  onChange,
}: {
  systems: CampaignKitView["systems"];
  chosen: ReadonlyMap<string, string>;
  onChange: (chosen: ReadonlyMap<string, string>) => void;
}) {
  const [search, setSearch] = useState("");
  const [system, setSystem] = useState("all");
  const [hardness, setHardness] = useState("all");
  const asked = useDeferredValue(search.trim());
  const { data } = useQuery({
    queryKey: ["titles to plan", asked, system, hardness],
    queryFn: async () => {
      const sent = await call("planTitles", {
        query: {
          search: asked,
          system: system === "all" ? "" : system,
          hardness: hardness === "all" ? "" : hardness,
        },
      });
      return sent.ok ? sent.answer : null;
    },
    placeholderData: (before) => before,
  });
  const shown = data?.rows ?? [],
    ids = data?.ids ?? [];
  const toggle = (id: string, on: boolean) => {
    const next = new Map(chosen);
    if (on) next.set(id, "");
    else next.delete(id);
    onChange(next);
  };
  return (
    <div className="grid gap-3">
      <div className="flex flex-wrap items-center gap-2">
        <Input
          aria-label="Find a title"
          placeholder="find a title"
          className="max-w-56"
          value={search}
          onChange={(event) => setSearch(event.target.value)}
        />
        <div className="w-44">
          <Choice
            label="System"
            value={system}
            options={[
              { value: "all", label: "every system" },
              ...systems.map(({ id, name }) => ({ value: id, label: name })),
            ]}
            onChange={setSystem}
          />
        </div>
        <div className="w-44">
          <Choice
            label="Hardness"
            value={hardness}
            options={[
              { value: "all", label: "easy to hard" },
              ...hardnesses.map((value) => ({ value, label: `the ${value} ones` })),
            ]}
            onChange={setHardness}
          />
        </div>
        <Button
          disabled={ids.length === 0}
          onClick={() =>
            onChange(new Map([...chosen, ...ids.map((id) => [id, chosen.get(id) ?? ""] as const)]))
          }
        >
          Choose these {ids.length}
        </Button>
        <Button look="quiet" disabled={chosen.size === 0} onClick={() => onChange(new Map())}>
          None
        </Button>
        <span className="ml-auto text-[13px] text-soft">{say.count(chosen.size, "title")} chosen</span>
      </div>
      <ul
        tabIndex={0}
        aria-label="Titles to choose from"
        className="grid max-h-64 gap-x-6 gap-y-1 overflow-auto rounded-md border border-line p-3 sm:grid-cols-2"
      >
        {shown.map(({ id, name, system: of, hardness: how, scenes }) => (
          <li key={id} className="flex min-w-0 items-center gap-2 text-[13px]">
            <Switch label={name} checked={chosen.has(id)} onChange={(on) => toggle(id, on)} />
            <span className="truncate text-[12px] text-soft">
              {of}, {how}
            </span>
            {chosen.has(id) && scenes.length > 1 && (
              <Choice
                quiet
                label={`Scene of ${name}`}
                value={chosen.get(id) || scenes[0] || null}
                options={scenes.map((scene) => ({ value: scene, label: scene }))}
                onChange={(scene) => onChange(new Map([...chosen, [id, scene]]))}
              />
            )}
          </li>
        ))}
        {shown.length === 0 && <li className="text-soft">No title by this filter.</li>}
        {ids.length > shown.length && (
          <li className="text-[12px] text-soft">
            {ids.length - shown.length} more are chosen with the button above.
          </li>
        )}
      </ul>
    </div>
  );
}
