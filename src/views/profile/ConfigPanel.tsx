import { useSearchParams } from "next/navigation";
import { useEffect, useRef, useState } from "react";
import { call } from "@/contract/client";
import type { ConfigFormat, Setting } from "@/core/kit";
import { fileRows, guessedSetting, originWords, wantedInFile, type FileRow, type Layer } from "@/core/profile";
import type { ProfileView } from "@/contract";
import { valueWords, words } from "@/core/words";
import {
  Button,
  ChoiceField,
  EmptyPanel,
  FileInput,
  Link,
  Panel,
  TableFrame,
  TableHead,
  download,
  say,
  toast,
  toggled,
} from "@/ui";
import type { ConfigOutcome, PatchedConfig, ReadConfig } from "@/workers";
import { useCarried, useDrops } from "@/views/drop";
import { openLayers, placed, type SayChanged } from "./place";
import { useConfigReader } from "./useConfigReader";

const configKinds = ["config"] as const;

interface Opened {
  name: string;
  bytes: Uint8Array<ArrayBuffer>;
  read: ReadConfig;
}

const layerNames: Record<Layer, string> = {
  rig: "the rig's layer",
  system: "the system's layer",
  title: "the title's layer",
};
const stateWords: Record<FileRow["state"], string> = {
  same: "as the profile",
  differs: "differs",
  unknown: "not in the catalogue",
  unreadable: "no value of this setting",
};
/** Rows of a file that are drawn; the rest is counted. */
const mostRows = 400;

/**
 * An engine's own config file: read against the profile, taken into a layer, or written with what the profile
 * decides.
 */
export function ConfigPanel({ view, told }: { view: ProfileView; told: SayChanged }) {
  const worker = useConfigReader();
  const [file, setFile] = useState<Opened | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [patched, setPatched] = useState<PatchedConfig | null>(null);
  const [chosen, setChosen] = useState<ReadonlySet<number>>(new Set());
  const layers = openLayers(view);
  const [layer, setLayer] = useState<Layer>(layers.at(-1) ?? "rig");
  const [only, setOnly] = useState(true);
  const input = useRef<HTMLInputElement>(null);

  const open = async (given: File) => {
    if (!worker) return;
    setPatched(null);
    const bytes = new Uint8Array(await given.arrayBuffer());
    const known = view.engine.configFiles.find(({ name }) => name === given.name)?.format ?? null;
    await readAs(given.name, bytes, known);
  };
  const readAs = async (name: string, bytes: Uint8Array<ArrayBuffer>, format: ConfigFormat | null) => {
    const read: ConfigOutcome<ReadConfig> | undefined = await worker?.call.read(bytes, name, format);
    if (!read) return;
    if (!read.ok) {
      setFile(null);
      return setProblem(`${name}: ${read.message}. Nothing was changed.`);
    }
    setProblem(null);
    setFile({ name, bytes, read });
    setChosen(new Set());
  };
  useDrops((files) => {
    const [first] = files;
    if (first) void open(first);
  }, configKinds);
  const carried = useCarried();
  useEffect(() => {
    const [first] = worker ? carried() : [];
    if (first) void open(first);
    // A file that was brought in elsewhere is opened once, when its reader is there.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [worker]);

  const { entries } = file?.read ?? { entries: [] };
  const rows = fileRows(entries, view.catalogue, view.rows);
  const shown = rows.map((row, at) => ({ row, at })).filter(({ row }) => !only || row.state !== "same");
  const counted = (state: FileRow["state"]) => rows.filter((row) => row.state === state).length;
  const wanted = file ? wantedInFile(view.rows, view.catalogue, entries, file.name) : [];
  const takeable = rows.flatMap((row, at) => (chosen.has(at) && row.state === "differs" ? [row] : []));
  const newOnes = rows.flatMap((row, at) => (chosen.has(at) && row.state === "unknown" ? [row] : []));

  const take = async () => {
    if (!file) return;
    const values = takeable.flatMap(({ setting, taken }) =>
      setting && taken !== null ? [{ key: setting.key, value: taken }] : [],
    );
    await told(
      call("setProfileValues", {
        body: { ...placed(view, layer, values), origin: { kind: "file", name: file.name.slice(0, 200) } },
      }),
    );
    setChosen(new Set());
  };
  const learn = async () => {
    const engine = await call("viewEngine", { id: view.engine.id });
    if (!engine.ok) return void toast.error(engine.refusal.title, { description: engine.refusal.fix });
    const keys = new Set(view.catalogue.map(({ key }) => key));
    const made: Setting[] = newOnes.map((row) => {
      const setting = guessedSetting(row, keys);
      keys.add(setting.key);
      return setting;
    });
    const { id, version, ...rest } = engine.answer;
    await told(
      call("changeEngine", { id, body: { ...rest, catalogue: [...rest.catalogue, ...made] }, saw: version }),
    );
    setChosen(new Set());
  };
  const back = useSearchParams().get("back");
  const patch = async () => {
    if (!file || !worker) return;
    const made: ConfigOutcome<PatchedConfig> = await worker.call.patch(file.bytes, file.read.format, wanted);
    if (made.ok) {
      setProblem(null);
      return setPatched(made);
    }
    setPatched(null);
    setProblem(`${file.name}: ${made.message}. Nothing was written.`);
  };
  const reasonOf = (path: string) => {
    const key = wanted.find((each) => each.path === path)?.key;
    const row = view.rows.find((each) => each.key === key);
    const setting = view.catalogue.find((each) => each.key === key);
    const origin = row?.from ? row.cells[row.from]?.origin : undefined;
    const proof = row?.confirmations.at(-1)?.proof;
    const doubled =
      setting?.countsDouble && typeof row?.value === "number" && row.value > 0
        ? `counts double: gives ${row.value / 2} fps`
        : "";
    const linked = setting && setting.linked.length > 0 ? `linked with ${setting.linked.join(", ")}` : "";
    return [
      row?.from && `${layerNames[row.from]}`,
      origin && originWords(origin),
      proof && words(proof),
      doubled,
      linked,
    ]
      .filter(Boolean)
      .join("; ");
  };
  const toggle = (at: number) => setChosen(toggled(chosen, at));
  return (
    <div className="grid gap-4">
      <div className="flex flex-wrap items-center gap-3">
        <Button look={file ? "plain" : "lit"} disabled={!worker} onClick={() => input.current?.click()}>
          Open a config file
        </Button>
        <span className="text-[13px] text-soft">
          {view.engine.configFiles.length === 0
            ? "The engine's files aren't named yet; any is read by its look."
            : view.engine.configFiles
                .map(({ name, folder }) => (folder ? `${name} (${folder})` : name))
                .join(", ")}
        </span>
        <FileInput ref={input} label="The engine's config file" onFile={(file) => void open(file)} />
      </div>
      {problem && (
        <p role="alert" className="rounded-md border border-caution p-3 text-[13px] [overflow-wrap:anywhere]">
          {problem}
        </p>
      )}
      {!file && !problem && (
        <EmptyPanel title="Drop the engine's config file here.">
          It is read on this machine. What it says stands beside the profile; what the profile decides can be
          written into it, every other byte as it was.
        </EmptyPanel>
      )}
      {file && (
        <Panel
          title={<span dir="auto">{file.name}</span>}
          aside={
            <span className="text-[12px] text-soft">
              {file.read.format.toUpperCase()}, {file.read.encoding}
            </span>
          }
        >
          <p className="mb-2 text-[13px] text-soft">
            {say.count(rows.length, "value")}: {counted("same")} as the profile, {counted("differs")} otherwise,{" "}
            {counted("unknown")} that the catalogue doesn&apos;t know
            {counted("unreadable") > 0 && `, ${counted("unreadable")} that can't be read as their setting`}.
          </p>
          {rows.length > 0 && counted("unknown") === rows.length && view.catalogue.length > 0 && (
            <p role="alert" className="mb-2 text-[13px] text-caution">
              No setting of {view.engine.name} stands in this file: it looks like another engine&apos;s. Its
              keys can still be added to the catalogue.
            </p>
          )}
          {back !== null && /^\/(?!\/)/.test(back) && view.catalogue.length > 0 && (
            <p className="mb-2 text-[13px]">
              <Link href={back} className="underline decoration-line underline-offset-4">
                Back to where settings were missed
              </Link>
            </p>
          )}
          <div className="mb-2 flex flex-wrap items-center gap-3 text-[13px]">
            <label className="inline-flex items-center gap-2">
              <input type="checkbox" checked={only} onChange={(event) => setOnly(event.target.checked)} />
              only what isn&apos;t as the profile
            </label>
            <Button
              look="quiet"
              onClick={() =>
                setChosen(
                  chosen.size > 0
                    ? new Set()
                    : new Set(shown.filter(({ row }) => row.state !== "unreadable").map(({ at }) => at)),
                )
              }
            >
              {chosen.size > 0 ? "Choose none" : "Choose all"}
            </Button>
            {takeable.length > 0 && (
              <>
                <ChoiceField
                  quiet
                  label="Layer"
                  value={layer}
                  options={layers.map((value) => ({ value, label: layerNames[value] }))}
                  onChange={(value) => setLayer(layers.find((each) => each === value) ?? "rig")}
                />
                <Button onClick={() => void take()}>Take {say.count(takeable.length, "value")} in</Button>
              </>
            )}
            {newOnes.length > 0 && (
              <Button onClick={() => void learn()}>
                Add {say.count(newOnes.length, "setting")} to the catalogue
              </Button>
            )}
          </div>
          {shown.length > 0 && (
            <TableFrame name="The file beside the profile">
              <table aria-label="The file beside the profile" className="w-full text-left text-[13px]">
                <thead className="text-[12px] text-soft">
                  <tr>
                    <th className="w-8" />
                    {["Line", "Key", "In the file", "Profile", "How they stand"].map((name) => (
                      <th key={name} className="px-2 py-1.5 font-normal">
                        {name}
                      </th>
                    ))}
                  </tr>
                </thead>
                <tbody className="divide-y divide-line">
                  {shown.slice(0, mostRows).map(({ row, at }) => (
                    <tr key={at} className="hover:bg-raised">
                      <td className="px-1">
                        {row.state !== "same" && row.state !== "unreadable" && (
                          <input
                            type="checkbox"
                            aria-label={`Take ${row.path}`}
                            checked={chosen.has(at)}
                            onChange={() => toggle(at)}
                          />
                        )}
                      </td>
                      <td className="figure px-2 py-1 text-soft">{row.line}</td>
                      <td className="figure px-2 [overflow-wrap:anywhere]">{row.path}</td>
                      <td className="figure px-2 [overflow-wrap:anywhere]">{valueWords(row.value)}</td>
                      <td className="figure px-2 [overflow-wrap:anywhere]">
                        {row.setting ? valueWords(row.profile) : ""}
                      </td>
                      <td className="px-2 text-[12px] text-soft">{stateWords[row.state]}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </TableFrame>
          )}
          {shown.length > mostRows && (
            <p className="text-[12px] text-soft">{shown.length - mostRows} more rows.</p>
          )}
          <div className="mt-3 flex flex-wrap items-center gap-3">
            <Button
              look={wanted.length > 0 && !patched ? "lit" : "plain"}
              disabled={wanted.length === 0}
              onClick={() => void patch()}
            >
              Write the profile into it
            </Button>
            <span className="text-[13px] text-soft">
              {wanted.length === 0
                ? "The file holds everything that the profile decides."
                : `${say.count(wanted.length, "value")} to write; you see the lines first.`}
            </span>
          </div>
        </Panel>
      )}
      {file && patched && (
        <Panel
          title="What would change"
          aside={
            <span className="text-[12px] text-soft">
              {say.count(patched.differences.length, "line")}; nothing else
            </span>
          }
        >
          <TableFrame name="What would change">
            <table aria-label="What would change" className="w-full text-left text-[13px]">
              <TableHead names={["Line", "Key", "Before", "After", "Why"]} />
              <tbody className="divide-y divide-line">
                {patched.differences.map(({ path, line, before, after }) => (
                  <tr key={path}>
                    <td className="figure px-2 py-1 text-soft">{line}</td>
                    <td className="figure px-2 [overflow-wrap:anywhere]">{path}</td>
                    <td className="figure px-2 text-soft">
                      {before === null ? "not there" : valueWords(before)}
                    </td>
                    <td className="figure px-2 font-semibold">{valueWords(after)}</td>
                    <td className="px-2 text-[12px] text-soft">{reasonOf(path)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </TableFrame>
          <div className="flex gap-2">
            <Button look="lit" onClick={() => download(file.name, new Blob([patched.bytes]))}>
              Download {file.name}
            </Button>
            <Button
              onClick={() =>
                void navigator.clipboard.writeText(patched.text).then(
                  () => toast("Copied."),
                  () => toast.error("The browser refused the clipboard: download it instead."),
                )
              }
            >
              Copy it
            </Button>
          </div>
        </Panel>
      )}
    </div>
  );
}
