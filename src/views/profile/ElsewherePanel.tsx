import { useQuery } from "@tanstack/react-query";
import { useState, useRef } from "react";
import { call } from "@/contract/client";
import { profileDifferences, type Proof } from "@/core/profile";
import { besideInRecipe } from "@/core/recipe";
import type { Output, ProfileView } from "@/contract";
import { valueWords } from "@/core/words";
import {
  Button,
  ChoiceField,
  Field,
  FileInput,
  Input,
  Panel,
  SearchChoice,
  TableFrame,
  TableHead,
  buttonLook,
  say,
  toast,
  Link,
} from "@/ui";
import { useBrought } from "@/views/drop";
import { useTitles } from "@/views/kit/useTitles";
import { standingWords } from "./LayerTable";
import { placed, type SayChanged } from "./place";
import { TakeInSheet } from "./TakeInSheet";
import { readTakenIn, rowsTakenIn, type TakenIn } from "./takingIn";

const fileKinds = ["profile", "recipe"] as const;
const everyTitle = { value: "every", label: "every title of the system" };

/** This profile held against another one, taken to another rig, and as a file. */
export function ElsewherePanel({ view, told }: { view: ProfileView; told: SayChanged }) {
  const { rig, engine, rigs, titles, titleId, systemId, buildId } = view;
  const others = rigs.filter(({ id }) => id !== rig.id);
  const [rigId, setRigId] = useState(rig.id);
  const [other, setOther] = useState({
    id: titleId ?? "",
    name: titles.find(({ id }) => id === titleId)?.name ?? everyTitle.label,
  });
  const found = useTitles(titles, engine.id, view.moreTitles);
  const [asOf, setAsOf] = useState("");
  const [carryTo, setCarryTo] = useState(others[0]?.id ?? "");
  const input = useRef<HTMLInputElement>(null);
  const [taken, setTaken] = useState<TakenIn | null>(null);
  const query = {
    rig: rigId,
    engine: engine.id,
    title: other.id,
    system: systemId,
    build: buildId,
    asOf: asOf === "" ? "" : new Date(`${asOf}T23:59:59`).toISOString(),
  };
  const isSame = rigId === rig.id && other.id === (titleId ?? "") && asOf === "";
  const { data, error } = useQuery({
    queryKey: ["profile", query, view.saw],
    enabled: !isSame,
    queryFn: async () => {
      const sent = await call("viewProfile", { query });
      if (!sent.ok) throw new Error(sent.refusal.title);
      return sent.answer;
    },
  });
  const differences = data && !isSame ? profileDifferences(view.rows, data.rows) : null;
  const rowsOf = (row: { value: string | number | boolean; standing: Proof } | null) =>
    row
      ? `${valueWords(row.value)}, ${standingWords({ standing: row.standing, stale: [] }).replace(/:.*$/, "")}`
      : "no such setting";
  const bringIn = async (file: File) => {
    const read = readTakenIn(file.name, await file.text());
    if ("refusal" in read) return void toast.error(read.refusal, { description: read.why });
    setTaken(read);
  };
  useBrought(fileKinds, (file) => void bringIn(file));
  /** Takes a looked-at file in, but for what was unticked. */
  const take = async (read: TakenIn, left: ReadonlySet<number>) => {
    const { rows } = rowsTakenIn(read, view);
    const wanted = new Set(rows.flatMap(({ at }) => (left.has(at) ? [] : [at])));
    const sent =
      read.kind === "profile"
        ? await call("takeProfile", {
            body: {
              rigId: rig.id,
              engineId: engine.id,
              file: { ...read.file, values: read.file.values.filter((_, at) => wanted.has(at)) },
              saw: view.saw,
            },
          })
        : await call("setProfileValues", {
            body: {
              ...placed(view, "title", [
                ...read.recipe.settings.flatMap(({ key, after }, at) =>
                  wanted.has(at) ? [{ key, value: after }] : [],
                ),
                ...besideInRecipe(read.recipe, view.beside).filter((_, at) =>
                  wanted.has(read.recipe.settings.length + at),
                ),
              ]),
              origin: { kind: "carried", from: `a recipe for ${read.recipe.title.name}`.slice(0, 200) },
            },
          });
    if (!sent.ok) return void toast.error(sent.refusal.title, { description: sent.refusal.fix });
    const unknown: string[] = "unknown" in sent.answer ? (sent.answer as Output<"takeProfile">).unknown : [];
    toast(`${say.count(sent.answer.changed, "value")} taken in, to be confirmed here.`, {
      description:
        unknown.length > 0
          ? `Left out, not here: ${unknown.slice(0, 6).join(", ")}`
          : "Ctrl+Z takes all of it back. A run with it and one without would prove it: plan the check under Layers.",
    });
    setTaken(null);
    await told(Promise.resolve({ ok: true }));
  };
  const ask = new URLSearchParams({
    rig: rig.id,
    engine: engine.id,
    system: systemId,
    title: titleId ?? "",
    build: buildId,
  });
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_20rem] gap-5 max-lg:grid-cols-1">
      <Panel title="Held against another profile">
        <div className="mb-3 grid grid-cols-3 gap-3 max-sm:grid-cols-1">
          <Field label="Rig">
            {({ id }) => (
              <ChoiceField
                id={id}
                label="Rig"
                value={rigId}
                options={rigs.map((each) => ({ value: each.id, label: each.name }))}
                onChange={setRigId}
              />
            )}
          </Field>
          <Field label="Title">
            {({ id }) => (
              <SearchChoice
                id={id}
                label="Title to compare with"
                value={other.id || "every"}
                shown={other.name}
                options={[everyTitle, ...found.titles.map((each) => ({ value: each.id, label: each.name }))]}
                onChange={(value) =>
                  setOther({
                    id: value === everyTitle.value ? "" : value,
                    name: found.titles.find((each) => each.id === value)?.name ?? everyTitle.label,
                  })
                }
                onSearch={found.search}
                finding={found.finding}
                more={found.more}
              />
            )}
          </Field>
          <Field label="As it stood at the end of">
            {(ids) => (
              <Input {...ids} type="date" value={asOf} onChange={(event) => setAsOf(event.target.value)} />
            )}
          </Field>
        </div>
        {isSame && <p className="text-[13px] text-soft">Choose another rig, title or day.</p>}
        {error && <p className="text-[13px] text-caution">{error.message}</p>}
        {differences?.length === 0 && <p className="text-[13px] text-soft">They hold the same values.</p>}
        {differences && differences.length > 0 && (
          <TableFrame name="Differences of two profiles">
            <table aria-label="Differences of two profiles" className="w-full text-left text-[13px]">
              <TableHead names={["Setting", "This one", "The other"]} />
              <tbody className="divide-y divide-line">
                {differences.map(({ key, label, a, b }) => (
                  <tr key={key}>
                    <th scope="row" className="px-2 py-1.5 font-normal">
                      {label}
                    </th>
                    <td className="figure px-2">{rowsOf(a)}</td>
                    <td className="figure px-2">{rowsOf(b)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </TableFrame>
        )}
      </Panel>
      {taken && (
        <TakeInSheet
          taken={taken}
          view={view}
          onTake={(left) => take(taken, left)}
          onClose={() => setTaken(null)}
        />
      )}
      <div className="grid content-start gap-4">
        <Panel title="Take it to another rig">
          {others.length === 0 ? (
            <p className="text-[13px] text-soft">There is no other rig on the shelf.</p>
          ) : (
            <>
              <ChoiceField
                label="Rig to take it to"
                value={carryTo}
                options={others.map(({ id, name }) => ({ value: id, label: name }))}
                onChange={setCarryTo}
              />
              <p className="my-2 text-[13px] text-soft">Nothing reads as proven there until it is tested.</p>
              <Button
                onClick={() =>
                  void told(
                    call("carryProfile", {
                      body: {
                        fromRigId: rig.id,
                        toRigId: carryTo,
                        engineId: engine.id,
                        systemId,
                        titleId,
                        buildId,
                      },
                    }),
                  ).then(() => toast("Taken along, to be confirmed here."))
                }
              >
                Take it along
              </Button>
            </>
          )}
        </Panel>
        <Panel title="As a file">
          <div className="flex flex-wrap gap-2">
            <a
              className={buttonLook()}
              download="profile.json"
              href={`/api/v1/profile/file?${new URLSearchParams({ rig: rig.id, engine: engine.id })}`}
            >
              Save the profile
            </a>
            <Button onClick={() => input.current?.click()}>Bring one in</Button>
            <Link className={buttonLook()} href={`/profiles/recipe?${ask}`}>
              Recipe
            </Link>
          </div>
          <p className="mt-2 text-[12px] text-soft">
            A profile or a recipe; what comes in is untested here until a check confirms it. Their shapes:{" "}
            <a className="underline" href="/api/v1/profile-schema">
              profile
            </a>
            ,{" "}
            <a className="underline" href="/api/v1/recipe-schema">
              recipe
            </a>
            .
          </p>
          <FileInput
            ref={input}
            accept=".json,application/json"
            label="Profile or recipe file"
            onFile={(file) => void bringIn(file)}
          />
        </Panel>
      </div>
    </div>
  );
}
