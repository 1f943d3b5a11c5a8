"use client";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { call } from "@/contract/client";
import type { Incoming } from "@/core/incoming";
import { logWords } from "@/core/words";
import { Button, ChoiceField, Sheet, TextArea, say, toast } from "@/ui";
import { callback, startIncomingReader } from "@/workers";
import { calledSo, enginesForConfig, kindWords, type Places } from "./bringing";
import type { BroughtIn } from "./broughtIn";

const anyTitle = "choose the title there";

/** What a file says of itself, beside its kind. */
function ofItself(as: Incoming): string {
  switch (as.kind) {
    case "config":
      return `${as.format.toUpperCase()}, ${say.count(as.keys.length, "key")}`;
    case "profile":
      return `of ${as.engine} on ${as.rig}, ${say.count(as.values, "value")}`;
    case "recipe":
      return `for ${as.title} (${as.system}) with ${as.engine}, ${say.count(as.settings, "setting")}`;
    case "publication":
      return as.name;
    case "catalogue":
      return `of ${as.engine}, ${say.count(as.settings, "setting")}`;
    case "job":
      return `${as.title} on ${as.rig}, ${say.count(as.runs, "run")} with a trace`;
    case "unknown":
      return logWords(as.why);
    case "log":
    case "video":
      return "";
  }
}

/**
 * Everything that can be brought in, at one place: what each file was taken for by what it holds, and where it goes
 * from here. Nothing is kept by this sheet.
 */
export function BringInSheet({
  open,
  onOpenChange,
  items,
  onFiles,
  onChoose,
  onAs,
  onPut,
  go,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  items: BroughtIn[];
  onFiles: (files: File[]) => void;
  onChoose: () => void;
  /** Takes a file for something else. */
  onAs: (id: number, as: Incoming) => void;
  /** Puts files away. */
  onPut: (ids: number[]) => void;
  /** Takes files along to the page that takes them. */
  go: (files: File[], path: string) => void;
}) {
  const [pasted, setPasted] = useState("");
  const title = items.flatMap(({ as }) => (as.kind === "recipe" ? [as.title] : []))[0] ?? "";
  const { data: places } = useQuery({
    queryKey: ["incoming", title],
    enabled: open,
    queryFn: async () => {
      const sent = await call("viewIncoming", { query: { title } });
      return sent.ok ? sent.answer : null;
    },
  });
  const runs = items.filter(({ as }) => as.kind === "log" || as.kind === "video");
  const others = items.filter((item) => !runs.includes(item));
  const take = (taken: BroughtIn[], path: string) => {
    go(
      taken.map(({ file }) => file),
      path,
    );
    onPut(taken.map(({ id }) => id));
    onOpenChange(false);
  };
  return (
    <Sheet open={open} onOpenChange={onOpenChange} title="Bring in">
      <p className="text-[13px] text-soft">
        Logs, videos, config files, recipes, profiles, publications, catalogues and whole jobs. What a file is,
        is told by what it holds; nothing is kept yet.
      </p>
      <div className="mt-3 flex flex-wrap gap-2">
        <Button look={items.length === 0 ? "lit" : "plain"} onClick={onChoose}>
          Choose files
        </Button>
      </div>
      {runs.length > 0 && (
        <section className="mt-4 border-t border-line pt-3" aria-label="Logs and videos">
          <ul className="space-y-1">
            {runs.map((item) => (
              <Named key={item.id} item={item} onAs={onAs} onPut={onPut} />
            ))}
          </ul>
          <div className="mt-2 flex flex-wrap gap-2">
            {places?.bench.job && (
              <Button look="lit" onClick={() => take(runs, `/jobs/${places.bench.job?.id}/runs/new`)}>
                As runs of {places.bench.job.title}
              </Button>
            )}
            <Button look={places?.bench.job ? "plain" : "lit"} onClick={() => take(runs, "/look")}>
              A first look, kept nowhere yet
            </Button>
          </div>
        </section>
      )}
      {others.map((item) => (
        <section key={item.id} className="mt-4 border-t border-line pt-3" aria-label={item.file.name}>
          <ul>
            <Named item={item} onAs={onAs} onPut={onPut} />
          </ul>
          {places && item.as.kind !== "unknown" && (
            <Destination item={item} places={places} take={take} onFiles={onFiles} onPut={onPut} />
          )}
        </section>
      ))}
      <form
        className="mt-4 grid gap-2 border-t border-line pt-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (pasted.trim() === "") return;
          onFiles([new File([pasted], "pasted text.txt", { type: "text/plain" })]);
          setPasted("");
        }}
      >
        <TextArea
          aria-label="Or paste its text"
          placeholder="or paste the text of a file here"
          rows={2}
          value={pasted}
          onChange={(event) => setPasted(event.target.value)}
        />
        <Button type="submit" className="justify-self-start" disabled={pasted.trim() === ""}>
          Take the text
        </Button>
      </form>
    </Sheet>
  );
}

/** A file with what it was taken for, and what else it may be taken for. */
function Named({
  item: { id, file, as },
  onAs,
  onPut,
}: {
  item: BroughtIn;
  onAs: (id: number, as: Incoming) => void;
  onPut: (ids: number[]) => void;
}) {
  return (
    <li className="flex flex-wrap items-baseline gap-x-2 text-[13px]" data-kind={as.kind}>
      <b className="min-w-0 [overflow-wrap:anywhere]">{file.name}</b>
      <span className={as.kind === "unknown" ? "text-caution" : "text-soft"}>
        {kindWords[as.kind]}
        {ofItself(as) && `${as.kind === "unknown" ? ". " : ": "}${ofItself(as)}`}
      </span>
      <span className="ml-auto flex gap-1">
        {(as.kind === "unknown" || as.kind === "config") && (
          <Button look="quiet" onClick={() => onAs(id, { kind: "log" })}>
            Read it as a log
          </Button>
        )}
        <Button look="quiet" aria-label={`Put ${file.name} away`} onClick={() => onPut([id])}>
          Put away
        </Button>
      </span>
    </li>
  );
}

/** Where a file that is no run goes. */
function Destination({
  item,
  places,
  take,
  onFiles,
  onPut,
}: {
  item: BroughtIn;
  places: Places;
  take: (items: BroughtIn[], path: string) => void;
  onFiles: (files: File[]) => void;
  onPut: (ids: number[]) => void;
}) {
  const { file, as } = item;
  const { job } = places.bench;
  const forConfig = as.kind === "config" ? enginesForConfig(places.engines, file.name, as.keys) : [];
  const guessed = {
    engine:
      as.kind === "config"
        ? forConfig[0]?.id
        : "engine" in as
          ? (calledSo(places.engines, as.engine)?.id ?? job?.engineId ?? places.engines[0]?.id)
          : undefined,
    rig:
      (as.kind === "profile" ? calledSo(places.rigs, as.rig)?.id : undefined) ??
      places.bench.rigId ??
      places.rigs[0]?.id,
    title:
      as.kind === "recipe"
        ? (
            places.titles.find(({ system }) => system.toLowerCase() === as.system.toLowerCase()) ??
            places.titles[0]
          )?.id
        : undefined,
  };
  const [set, setSet] = useState<{ engine?: string; rig?: string; title?: string }>({});
  const { engine = "", rig = "", title = "" } = { ...guessed, ...set };
  const known = forConfig.find(({ id }) => id === engine)?.known ?? 0;
  const pick = (
    label: string,
    key: "engine" | "rig" | "title",
    value: string,
    options: { value: string; label: string; note?: string }[],
  ) => (
    <ChoiceField
      label={`${label} for ${file.name}`}
      value={value}
      placeholder={label}
      options={options}
      onChange={(chosen) => setSet({ ...set, [key]: chosen })}
    />
  );
  const engines = pick(
    "Engine",
    "engine",
    engine,
    places.engines.map(({ id, name }) => ({
      value: id,
      label: name,
      note:
        as.kind === "config" ? `${forConfig.find((each) => each.id === id)?.known ?? 0} keys known` : undefined,
    })),
  );
  const rigs = pick(
    "Rig",
    "rig",
    rig,
    places.rigs.map(({ id, name }) => ({ value: id, label: name })),
  );
  const profile = (tab: string) =>
    `/profiles?${new URLSearchParams({ rig, engine, ...(title && { title }), tab })}`;
  const row = "mt-2 grid items-center gap-2 sm:grid-flow-col sm:auto-cols-auto sm:justify-start";
  switch (as.kind) {
    case "config":
      return (
        <>
          <div className={row}>
            {engines}
            {rigs}
            <Button look="lit" disabled={!engine || !rig} onClick={() => take([item], profile("file"))}>
              Open it beside the profile
            </Button>
          </div>
          <p className={`mt-1 text-[12px] ${known === 0 ? "text-caution" : "text-soft"}`}>
            {known === 0
              ? "The file has no setting that this engine's catalogue knows: another engine's, or a catalogue that is still empty. Its keys can be taken into the catalogue there."
              : `${say.count(known, "setting")} of this engine ${known === 1 ? "stands" : "stand"} in the file.`}
          </p>
        </>
      );
    case "profile":
    case "recipe":
      return (
        <div className={row}>
          {engines}
          {rigs}
          {as.kind === "recipe" &&
            places.titles.length > 0 &&
            pick("Title", "title", title, [
              ...places.titles.map(({ id, name, system }) => ({ value: id, label: name, note: system })),
              { value: "", label: anyTitle },
            ])}
          <Button look="lit" disabled={!engine || !rig} onClick={() => take([item], profile("elsewhere"))}>
            Look at what it would change
          </Button>
        </div>
      );
    case "catalogue":
      return (
        <div className={row}>
          {engines}
          <Button look="lit" disabled={!engine} onClick={() => take([item], `/kit/engines/${engine}`)}>
            Open it at the engine
          </Button>
        </div>
      );
    case "publication":
      return (
        <div className={row}>
          <Button look="lit" onClick={() => take([item], "/board")}>
            Put it beside the board
          </Button>
        </div>
      );
    case "job":
      return (
        <SavedJobTaken
          file={file}
          runs={as.runs}
          onLogs={(logs) => {
            onPut([item.id]);
            onFiles(logs);
          }}
          onTaken={(path) => {
            onPut([item.id]);
            take([], path);
          }}
        />
      );
    case "log":
    case "video":
    case "unknown":
      return null;
  }
}

/** A saved job: taken in with all that is said of its runs, or its runs as logs of another job. */
function SavedJobTaken({
  file,
  runs,
  onLogs,
  onTaken,
}: {
  file: File;
  runs: number;
  onLogs: (logs: File[]) => void;
  onTaken: (path: string) => void;
}) {
  const [share, setShare] = useState<number | null>(null);
  const opened = async () => {
    const reader = startIncomingReader();
    try {
      return await reader.call.openJob(file);
    } finally {
      reader.end();
    }
  };
  const whole = async () => {
    setShare(0);
    const saved = await opened();
    if (!saved) return setShare(null);
    const { logs, ...names } = saved;
    const refreshHz = Math.max(10, names.nativeFps);
    const made = await call("nameJob", { body: { ...names, refreshHz, houseRulesId: null } });
    if (!made.ok) {
      setShare(null);
      return void toast.error(made.refusal.title, { description: made.refusal.fix });
    }
    const reader = startIncomingReader();
    const refused = await reader.call.keepJob(file, made.answer.id, callback(setShare));
    reader.end();
    setShare(null);
    for (const { name, why } of refused) toast.error(`${name} wasn't kept.`, { description: why });
    if (refused.length < logs.length) onTaken(`/jobs/${made.answer.id}`);
  };
  if (runs === 0) return <p className="mt-2 text-[13px] text-soft">No run of it has a trace.</p>;
  return (
    <>
      <div className="mt-2 flex flex-wrap items-center gap-2">
        <Button look="lit" disabled={share !== null} onClick={() => void whole()}>
          Take the job in
        </Button>
        <Button
          disabled={share !== null}
          onClick={() =>
            void opened().then(
              (saved) =>
                saved && onLogs(saved.logs.map(({ name, csv }) => new File([csv], name, { type: "text/csv" }))),
            )
          }
        >
          Its {say.count(runs, "run")} as logs
        </Button>
        {share !== null && (
          <progress aria-label="Taking the job in" value={share} className="h-2 w-40 accent-(--lit)" />
        )}
      </div>
      <p className="mt-1 text-[12px] text-soft">
        Its runs come with settings, conditions, notes and faults; where a job of the same names is open, they
        are added to it. What its trials came to stays in the file.
      </p>
    </>
  );
}
