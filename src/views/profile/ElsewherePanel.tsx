import { useQuery } from "@tanstack/react-query";
import { useState, useRef } from "react";
import { call } from "@/contract/client";
import { profileDifferences, profileFileSchema, type Proof } from "@/core/profile";
import { besideInRecipe, recipeSchema } from "@/core/recipe";
import type { ProfileView } from "@/contract";
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
import { useTitles } from "@/views/kit/useTitles";
import { standingWords } from "./LayerTable";
import { placed, type SayChanged } from "./place";

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
    let read: unknown;
    try {
      read = JSON.parse(await file.text());
    } catch {
      return void toast.error(`${file.name} is no JSON.`, { description: "Nothing was changed." });
    }
    const profile = profileFileSchema.safeParse(read);
    if (profile.success) {
      const sent = await call("takeProfile", {
        body: { rigId: rig.id, engineId: engine.id, file: profile.data, saw: view.saw },
      });
      if (!sent.ok) return void toast.error(sent.refusal.title, { description: sent.refusal.fix });
      const { changed, unknown } = sent.answer;
      toast(`${say.count(changed, "value")} taken in as a hypothesis.`, {
        description: unknown.length > 0 ? `Left out, not here: ${unknown.slice(0, 6).join(", ")}` : undefined,
      });
      return told(Promise.resolve({ ok: true }));
    }
    const recipe = recipeSchema.safeParse(read);
    if (!recipe.success)
      return void toast.error(`${file.name} is neither a profile nor a recipe of this application.`, {
        description: profile.error.issues[0]?.message,
      });
    if (titleId === null)
      return void toast.error("Choose the title that the recipe is for first.", {
        description: "It lands in the title's layer.",
      });
    const known = recipe.data.settings.filter(({ key }) =>
      view.catalogue.some((setting) => setting.key === key),
    );
    const beside = besideInRecipe(recipe.data, view.beside);
    if (known.length + beside.length === 0)
      return void toast.error("The recipe sets nothing that this engine has.");
    await told(
      call("setProfileValues", {
        body: {
          ...placed(view, "title", [...known.map(({ key, after }) => ({ key, value: after })), ...beside]),
          origin: { kind: "carried", from: `a recipe for ${recipe.data.title.name}`.slice(0, 200) },
        },
      }),
    );
    const words = beside.length > 0 ? `, and ${say.count(beside.length, "value")} beside them` : "";
    const taken = `${say.count(known.length, "setting")} of ${recipe.data.settings.length}${words}`;
    toast(`${taken} taken in as a hypothesis.`, {
      description:
        "Two runs would prove it here: one with it, one without, more where they lie close. Plan the check under Layers.",
    });
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
                  ).then(() => toast("Taken along, as a hypothesis."))
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
            A profile or a recipe; what comes in is a hypothesis here. Their shapes:{" "}
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
