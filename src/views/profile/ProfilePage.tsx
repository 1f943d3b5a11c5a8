"use client";
import { clsx } from "clsx";
import { Tabs } from "radix-ui";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { call } from "@/contract/client";
import type { ProfileView } from "@/contract";
import { overruledWords } from "@/core/words";
import { ChoiceField, Keys, Link, SearchChoice, toast } from "@/ui";
import { useTitles } from "@/views/kit/useTitles";
import { VerdictLamp } from "@/views/verdict/VerdictLamp";
import { CellSheet } from "./CellSheet";
import { placed, type LayerCell, type SayChanged } from "./place";
import { ConfigPanel } from "./ConfigPanel";
import { ElsewherePanel } from "./ElsewherePanel";
import { LayerTable, rowFilters, type RowFilter } from "./LayerTable";
import { Origins } from "./Origins";
import { Todo } from "./Todo";

const every = "every title of the system";
const tabs = [
  { value: "layers", name: "Layers", key: "l" },
  { value: "file", name: "Config file", key: "c" },
  { value: "elsewhere", name: "Compare and take along", key: "m" },
] as const;

/** A rig's profile of an engine: settings by layers, the engine's own file, and other profiles. */
export function ProfilePage({ view, tab: asked }: { view: ProfileView; tab: string }) {
  const router = useRouter();
  const [filter, setFilter] = useState<RowFilter>("all");
  const [cell, setCell] = useState<LayerCell | null>(null);
  const [editing, setEditing] = useState<LayerCell | null>(null);
  const { rig, engine, titles, titleId, systems, systemId, builds, buildId } = view;
  const tab = tabs.some(({ value }) => value === asked) ? asked : "layers";
  const to = (changed: Record<string, string>) => {
    const kept = {
      rig: rig.id,
      engine: engine.id,
      system: systemId,
      title: titleId ?? "",
      build: buildId,
      tab,
      ...changed,
    };
    router.replace(
      `/profiles?${new URLSearchParams(Object.entries(kept).filter(([, value]) => value !== ""))}`,
    );
  };
  const undoLast = async () => {
    const [last] = view.history;
    if (!last) return toast("Nothing was set here yet.");
    await told(call("undoProfileValue", { body: { rigId: rig.id, engineId: engine.id, id: last.id } }));
  };
  const told: SayChanged = async (sending) => {
    const sent = await sending;
    if (!sent.ok) toast.error(sent.refusal?.title ?? "That was not kept.", { description: sent.refusal?.fix });
    router.refresh();
  };
  const title = titles.find(({ id }) => id === titleId);
  const found = useTitles(titles, engine.id, view.moreTitles);
  const worked = new Set(titles.filter((each) => each.worked).map(({ id }) => id));
  return (
    <div className="mx-auto max-w-[88rem] p-5">
      <Keys
        actions={[
          { keys: "u", shown: "U", label: "take the last change back", run: () => void undoLast() },
          {
            keys: "f",
            shown: "F",
            label: "show other settings",
            run: () => setFilter(rowFilters[(rowFilters.indexOf(filter) + 1) % rowFilters.length] ?? "all"),
          },
          ...tabs.map(({ value, name, key }) => ({
            keys: key,
            shown: key.toUpperCase(),
            label: name.toLowerCase(),
            run: () => to({ tab: value }),
          })),
        ]}
      />
      <header className="mb-4 flex flex-wrap items-end gap-x-4 gap-y-2">
        <div className="min-w-0">
          <h1 className="text-xl font-semibold [overflow-wrap:anywhere]" dir="auto">
            {engine.name} on {rig.name}
          </h1>
          <p className="text-[13px] text-soft" dir="auto">
            Revision {rig.revision};{" "}
            {title
              ? title.name
              : `every title of ${systems.find(({ id }) => id === systemId)?.name ?? "no system"}`}
          </p>
          {view.light && (
            <p className="flex flex-wrap items-center gap-x-2 text-[13px]">
              <Link href={`/jobs/${view.light.jobId}?run=${view.light.runId}`} aria-label="The run that tells">
                <VerdictLamp grade={view.light.grade} between={view.light.between} size={15} ran />
              </Link>
              {view.light.overruled && (
                <span className="text-soft">{overruledWords(view.light.overruled)}</span>
              )}
            </p>
          )}
        </div>
        <div className="w-72 max-sm:w-full">
          <SearchChoice
            label="Title"
            value={titleId ?? every}
            options={[
              { value: every, label: every },
              ...found.titles.map(({ id, name }) => ({
                value: id,
                label: name,
                note: worked.has(id) ? "tuned here" : undefined,
              })),
            ]}
            shown={title?.name ?? every}
            onSearch={found.search}
            finding={found.finding}
            more={found.more}
            onChange={(value) => to({ title: value === every ? "" : value })}
          />
        </div>
        {!title && systems.length > 1 && (
          <ChoiceField
            quiet
            label="System"
            value={systemId}
            options={systems.map(({ id, name }) => ({ value: id, label: name }))}
            onChange={(value) => to({ system: value })}
          />
        )}
        <ChoiceField
          quiet
          label="Build"
          value={buildId}
          options={builds.map(({ id, version, branch }) => ({ value: id, label: version, note: branch }))}
          onChange={(value) => to({ build: value })}
        />
      </header>
      <Tabs.Root value={tab} onValueChange={(value) => to({ tab: value })}>
        <Tabs.List aria-label="Profile" className="mb-4 flex flex-wrap gap-1 border-b border-line">
          {tabs.map(({ value, name }) => (
            <Tabs.Trigger
              key={value}
              value={value}
              className={clsx(
                "min-h-9 border-b-2 border-transparent px-3 text-[13px] text-soft hover:text-text",
                "data-[state=active]:border-lit data-[state=active]:text-text",
              )}
            >
              {name}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
        <Tabs.Content value="layers">
          <div className="grid grid-cols-[minmax(0,1fr)_20rem] gap-5 max-lg:grid-cols-1">
            <LayerTable
              view={view}
              filter={filter}
              onFilter={setFilter}
              cell={cell}
              onCell={setCell}
              onEdit={setEditing}
              onInherit={({ key, layer }) =>
                void told(call("setProfileValues", { body: placed(view, layer, [{ key, value: null }]) }))
              }
            />
            <aside className="grid content-start gap-4" aria-label="About the setting">
              <Origins
                view={view}
                cell={cell}
                onUndo={(id) =>
                  told(call("undoProfileValue", { body: { rigId: rig.id, engineId: engine.id, id } }))
                }
              />
              <Todo view={view} told={told} />
            </aside>
          </div>
        </Tabs.Content>
        <Tabs.Content value="file">
          <ConfigPanel view={view} told={told} />
        </Tabs.Content>
        <Tabs.Content value="elsewhere">
          <ElsewherePanel view={view} told={told} />
        </Tabs.Content>
      </Tabs.Root>
      {editing && (
        <CellSheet
          key={editing.key + editing.layer}
          view={view}
          cell={editing}
          onClose={() => setEditing(null)}
          onSet={(value, onlyBuild) => {
            setEditing(null);
            const body = placed(view, editing.layer, [{ key: editing.key, value }], onlyBuild);
            void told(call("setProfileValues", { body }));
          }}
        />
      )}
    </div>
  );
}
