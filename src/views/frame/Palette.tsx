"use client";
import { useQuery } from "@tanstack/react-query";
import { Command } from "cmdk";
import { useRouter } from "next/navigation";
import { useDeferredValue, useState } from "react";
import { call } from "@/contract/client";
import { explainedNames, type ExplainedKey } from "@/core/explained";
import type { FoundRow } from "@/core/records";
import { useBringIn } from "@/views/drop";
import { useActions, useLit } from "@/ui";
import { bringInAlso, doable } from "./doable";
import { railPlaces } from "./places";

const item =
  "flex cursor-pointer items-center justify-between gap-3 rounded px-3 py-2 data-[selected=true]:bg-raised";
const group =
  "[&_[cmdk-group-heading]]:px-3 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:text-[11px] [&_[cmdk-group-heading]]:text-soft";
const kindNames: Record<FoundRow["kind"], string> = {
  job: "Jobs",
  trial: "Trials",
  title: "Titles",
  rig: "Rigs",
  system: "Systems",
  engine: "Engines",
  campaign: "Campaigns",
  setting: "Settings",
};
/** Lists that are shown before anything is typed hold this many. */
const firstJobs = 8;

/** Whether a text holds every word that is looked for. */
const matches = (text: string, search: string) =>
  search
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.toLowerCase().includes(word));

/** Words that are explained, at most. */
const mostExplained = 5;

/** Words of the glossary whose names hold what is looked for. */
const explainedLike = (search: string) =>
  search === ""
    ? []
    : (Object.keys(explainedNames) as ExplainedKey[])
        .flatMap((key) => {
          const found = explainedNames[key].find((name) => matches(name, search));
          return found ? [{ key, name: explainedNames[key][0], note: "glossary" }] : [];
        })
        .slice(0, mostExplained);

/** Everything by name: what this page can do, places, jobs, trials, titles, rigs, settings. */
export function Palette({
  open,
  onOpenChange,
  onTheme,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  onTheme: () => void;
}) {
  const onBringIn = useBringIn();
  const router = useRouter();
  const here = useActions();
  const [text, setText] = useState("");
  const search = useDeferredValue(text.trim());
  const {
    data: found = [],
    isPending,
    isPlaceholderData,
  } = useQuery({
    queryKey: ["find", search],
    enabled: open,
    queryFn: async (): Promise<FoundRow[]> => {
      if (search !== "") {
        const sent = await call("find", { query: { search } });
        return sent.ok ? sent.answer.rows : [];
      }
      const sent = await call("listJobs", { query: { limit: firstJobs } });
      return sent.ok
        ? sent.answer.rows.map(({ id, title, rig, engine }) => ({
            kind: "job" as const,
            id,
            path: `/jobs/${id}`,
            name: title,
            note: `${rig}, ${engine}`,
          }))
        : [];
    },
    placeholderData: (before) => before,
  });
  const act = (run: () => void) => () => {
    onOpenChange(false);
    setText("");
    // The dialog gives the focus back first: what comes then may want it.
    setTimeout(run);
  };
  const go = (path: string) => act(() => router.push(path));
  const offered = [
    ...railPlaces.map(({ path, name, key }) => ({ name, note: key, also: "", run: go(path) })),
    { name: "Bring in a file", note: "Ctrl O", also: bringInAlso, run: act(onBringIn) },
    ...doable.map(({ path, ...each }) => ({ note: "", ...each, run: go(path) })),
    { name: "Change theme", note: "T", also: "dark light evening daylight", run: act(onTheme) },
  ].filter(({ name, also }) => matches(`${name} ${also}`, search));
  const ownActions = here.filter(({ label }) => search !== "" && matches(label, search));
  const groups = [
    {
      heading: "On this page",
      rows: ownActions.map(({ keys, label, shown, run }) => ({
        id: `do ${keys} ${label}`,
        name: label,
        note: shown,
        run: act(run),
      })),
    },
    { heading: "Go to, or do", rows: offered.map((each) => ({ id: `go ${each.name}`, ...each })) },
    {
      heading: "What it means",
      rows: explainedLike(search).map(({ key, name, note }) => ({
        id: `word ${key}`,
        name,
        note,
        run: go(`/glossary#${key}`),
      })),
    },
    ...(Object.keys(kindNames) as FoundRow["kind"][]).map((kind) => ({
      heading: kindNames[kind],
      rows: found
        .filter((each) => each.kind === kind)
        .map(({ id, path, name, note }) => ({ id: `${kind} ${id}`, name, note, run: go(path) })),
    })),
  ].filter(({ rows }) => rows.length > 0);
  const rows = groups.flatMap((each) => each.rows);
  // What is known here needs no answer from elsewhere to come first.
  const answered = search === text.trim() && (groups.length > 0 || !(isPending || isPlaceholderData));
  const lit = useLit(
    rows.map(({ id }) => id),
    answered,
    (id) => rows.find((each) => each.id === id)?.run(),
  );
  return (
    <Command.Dialog
      open={open}
      onOpenChange={onOpenChange}
      label="Go to or do"
      shouldFilter={false}
      {...lit.list}
      overlayClassName="fixed inset-0 z-40 bg-(--shade)"
      contentClassName="fixed left-1/2 top-[14vh] z-50 w-[min(560px,92vw)] -translate-x-1/2 rounded-(--radius-panel) border border-line bg-panel p-2 shadow-xl"
    >
      <Command.Input
        value={text}
        onValueChange={(typed) => {
          setText(typed);
          lit.typed();
        }}
        placeholder="Go to a place, a job or a setting; do something; or a word to explain"
        className="mb-2 w-full bg-transparent px-3 py-2 text-[15px] outline-none placeholder:text-soft"
      />
      <Command.List className="max-h-[50vh] overflow-auto">
        <Command.Empty className="px-3 py-4 text-soft">
          {answered ? "Nothing by that name." : "Looking …"}
        </Command.Empty>
        {groups.map(({ heading, rows: shown }) => (
          <Command.Group key={heading} heading={heading} className={group}>
            {shown.map(({ id, name, note, run }) => (
              <Command.Item key={id} value={id} onSelect={run} className={item}>
                <span className="min-w-0 [overflow-wrap:anywhere]" dir="auto">
                  {name}
                </span>
                <span className="shrink-0 text-[12px] text-soft">{note}</span>
              </Command.Item>
            ))}
          </Command.Group>
        ))}
      </Command.List>
    </Command.Dialog>
  );
}
