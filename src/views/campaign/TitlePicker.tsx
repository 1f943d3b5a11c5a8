"use client";
import { useQuery } from "@tanstack/react-query";
import { Popover } from "radix-ui";
import { useDeferredValue, useState } from "react";
import { call } from "@/contract/client";
import { hardnesses } from "@/core/kit";
import type { CampaignKitView } from "@/core/records";
import { Button, ChoiceField, Input, Switch, say } from "@/ui";

const nowhere: ReadonlyMap<string, readonly string[]> = new Map();

/**
 * Titles by filter, by hand, or the hard ones of every system. @param chosen id → scenes, the empty one for the
 * usual
 */
export function TitlePicker({
  systems,
  there = nowhere,
  chosen,
  onChange,
}: {
  systems: CampaignKitView["systems"];
  /** Scenes that are planned already, by title. */
  there?: ReadonlyMap<string, readonly string[]>;
  chosen: ReadonlyMap<string, readonly string[]>;
  onChange: (chosen: ReadonlyMap<string, readonly string[]>) => void;
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
  const shown = data?.rows ?? [];
  const ids = (data?.ids ?? []).filter((id) => !there.has(id));
  const freeOf = (id: string, scenes: string[]) => scenes.filter((scene) => !there.get(id)?.includes(scene));
  const toggle = (id: string, on: boolean, scenes: string[]) => {
    const next = new Map(chosen);
    if (on) next.set(id, [there.has(id) ? (freeOf(id, scenes)[0] ?? "") : ""]);
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
          <ChoiceField
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
          <ChoiceField
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
            onChange(new Map([...chosen, ...ids.map((id) => [id, chosen.get(id) ?? [""]] as const)]))
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
            {there.has(id) && freeOf(id, scenes).length === 0 ? (
              name
            ) : (
              <Switch label={name} checked={chosen.has(id)} onChange={(on) => toggle(id, on, scenes)} />
            )}
            <span className="truncate text-[12px] text-soft">
              {there.has(id) ? "planned already" : `${of}, ${how}`}
            </span>
            {chosen.has(id) && scenes.length > 1 && (
              <Scenes
                title={name}
                scenes={freeOf(id, scenes)}
                chosen={chosen.get(id) ?? [""]}
                onChange={(own) => onChange(new Map([...chosen, [id, own]]))}
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

/** Which scenes of a title are run: one or several, each for itself; the usual one where none is said. */
function Scenes({
  title,
  scenes,
  chosen,
  onChange,
}: {
  title: string;
  scenes: string[];
  chosen: readonly string[];
  onChange: (chosen: string[]) => void;
}) {
  const named = chosen.filter((scene) => scene !== "");
  return (
    <Popover.Root>
      <Popover.Trigger
        aria-label={`Scenes of ${title}`}
        className="shrink-0 text-[12px] underline decoration-line underline-offset-4 hover:decoration-text"
      >
        {named.length === 0 ? "its usual scene" : say.count(named.length, "scene")}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          className="z-50 grid gap-2 rounded-md border border-line bg-raised p-3 text-[13px] shadow-lg"
        >
          {scenes.map((scene) => (
            <Switch
              key={scene}
              label={scene}
              checked={named.includes(scene)}
              onChange={(on) => {
                const next = scenes.filter((each) => (each === scene ? on : named.includes(each)));
                onChange(next.length > 0 ? next : [""]);
              }}
            />
          ))}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
