"use client";
import { Plus } from "lucide-react";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { call } from "@/contract/client";
import { mostCampaignArms, newCampaignSchema, questions, type Question } from "@/core/campaign";
import type { CampaignKitView } from "@/core/records";
import { Button, ChoiceField, Field, Input, Panel, Suggest, hasFieldsOf, say, toast, useDraft } from "@/ui";
import { ArmCard, type ArmDraft } from "./ArmCard";
import { freshArm, nameOf } from "./armDrafts";
import { betterOrder } from "./betterOrder";
import { ScaleArms } from "./ScaleArms";
import { TitlePicker } from "./TitlePicker";

const questionNotes: Record<Question, string> = {
  "which is best": "engines, drivers or settings against one another, title by title",
  "what changed": "the same titles before and after: name the older arm first",
  "what it manages": "how many titles hold, by verdict",
  "which scale and mode":
    "the first named arm that holds, for every title: name the one you would rather have first",
};

/** What is typed of a campaign until it is planned; the browser keeps it. */
interface Plan {
  name: string;
  question: Question;
  houseRulesId: string;
  rounds: string;
  titles: [string, readonly string[]][];
  drafts: ArmDraft[];
  needs: string;
  times: Record<string, string>;
}

const usualTimes = {
  loadingMin: "1.5",
  passMin: "2",
  title: "1",
  rig: "4",
  setUp: "6",
  engine: "2",
  build: "2",
  powerMode: "0.5",
  settings: "0.5",
  eveningMin: "",
  firstEvening: "",
  startsAt: "19:30",
  chargeWatts: "",
};

/** Plans a campaign: what is asked, which titles, in which ways, and what time there is. */
export function PlanCampaignPage({ kit, rigId }: { kit: CampaignKitView; rigId: string | null }) {
  const router = useRouter();
  const [begun] = useState<Plan>(() => ({
    name: "",
    question: "which is best",
    houseRulesId: kit.houseRules[0]?.id ?? "",
    rounds: "3",
    titles: [],
    drafts: [freshArm(rigId ?? kit.rigs[0]?.id ?? "")],
    needs: "",
    times: usualTimes,
  }));
  const [typed, put, forget] = useDraft("campaign", begun, hasFieldsOf(begun));
  const { name, question, houseRulesId, rounds, drafts, needs, times } = typed;
  const titles: ReadonlyMap<string, readonly string[]> = new Map(typed.titles);
  const setDrafts = (changed: ArmDraft[]) => put({ ...typed, drafts: changed });
  const [fields, setFields] = useState<Record<string, string>>({});
  const [busy, setBusy] = useState(false);
  const arms = drafts.map((arm) => (arm.named ? arm : { ...arm, name: nameOf(arm, kit, drafts) }));
  const figure = (key: string) => say.typedNumber(times[key] ?? "");
  const figureOrNone = (key: string) => ((times[key] ?? "").trim() === "" ? null : figure(key));
  const plan = (): unknown => ({
    name: name.trim() === "" ? question.charAt(0).toUpperCase() + question.slice(1) : name,
    question,
    houseRulesId,
    titles: [...titles].flatMap(([titleId, scenes]) => scenes.map((scene) => ({ titleId, scene }))),
    arms: arms.map(({ named: _named, ...arm }) => arm),
    rounds: say.typedNumber(rounds),
    needs: needs
      .split(",")
      .map((need) => need.trim())
      .filter(Boolean),
    loadingMin: figure("loadingMin"),
    passMin: figure("passMin"),
    costs: Object.fromEntries(
      ["title", "rig", "setUp", "engine", "build", "powerMode", "settings"].map((key) => [key, figure(key)]),
    ),
    eveningMin: figureOrNone("eveningMin"),
    firstEvening: times.firstEvening === "" ? null : times.firstEvening,
    startsAt: times.startsAt,
    chargeWatts: figureOrNone("chargeWatts"),
  });
  const keep = async () => {
    const parsed = newCampaignSchema.safeParse(plan());
    if (!parsed.success) {
      const found = Object.fromEntries(
        parsed.error.issues.map(({ path, message }) => [path.join("."), message]),
      );
      setFields(found);
      toast.error("Something is missing or can't be.", { description: Object.values(found)[0] });
      return;
    }
    setFields({});
    setBusy(true);
    const made = await call("addCampaign", { body: parsed.data });
    if (!made.ok) {
      setBusy(false);
      setFields(made.refusal.fields);
      toast.error(made.refusal.title, { description: made.refusal.fix });
      return;
    }
    forget();
    await betterOrder(made.answer.id);
    router.push(`/campaigns/${made.answer.id}`);
  };
  const timeField = (key: string, label: string, unit: string | undefined, help?: string, type?: string) => (
    <Field label={label} unit={unit} help={help} error={fields[key] ?? fields[`costs.${key}`]}>
      {(ids) => (
        <Input
          {...ids}
          type={type}
          inputMode={type ? undefined : "decimal"}
          value={times[key] ?? ""}
          onChange={(event) => put({ ...typed, times: { ...times, [key]: event.target.value } })}
        />
      )}
    </Field>
  );
  const places = [...titles.values()].reduce((sum, scenes) => sum + scenes.length, 0);
  const runs = places * arms.length * (Number(rounds) || 0);
  return (
    <form
      className="mx-auto grid max-w-5xl gap-4 p-5"
      onSubmit={(event) => {
        event.preventDefault();
        void keep();
      }}
    >
      <div className="flex flex-wrap items-baseline gap-4">
        <h1 className="text-xl font-semibold">A campaign</h1>
        {JSON.stringify(typed) !== JSON.stringify(begun) && (
          <Button
            type="button"
            look="quiet"
            onClick={() => {
              put(begun);
              forget();
            }}
          >
            Clear the form
          </Button>
        )}
      </div>
      <Panel className="grid grid-cols-[2fr_1.4fr_1fr_0.6fr] items-start gap-4 max-md:grid-cols-1">
        <Field label="Name" error={fields.name}>
          {(ids) => (
            <Input
              {...ids}
              autoFocus
              value={name}
              maxLength={120}
              placeholder="e.g. Which engine for the hard ones"
              onChange={(event) => put({ ...typed, name: event.target.value })}
            />
          )}
        </Field>
        <Field label="Question" help={questionNotes[question]}>
          {({ id }) => (
            <ChoiceField
              id={id}
              label="Question"
              value={question}
              options={questions.map((value) => ({ value, label: value }))}
              onChange={(value) =>
                put({ ...typed, question: questions.find((each) => each === value) ?? "which is best" })
              }
            />
          )}
        </Field>
        <Field label="House rules" error={fields.houseRulesId}>
          {({ id }) => (
            <ChoiceField
              id={id}
              label="House rules of the campaign"
              value={houseRulesId}
              options={kit.houseRules.map(({ id: value, name: label }) => ({ value, label }))}
              onChange={(value) => put({ ...typed, houseRulesId: value })}
            />
          )}
        </Field>
        <Field label="Rounds" error={fields.rounds}>
          {(ids) => (
            <Input
              {...ids}
              inputMode="decimal"
              value={rounds}
              onChange={(event) => put({ ...typed, rounds: event.target.value })}
            />
          )}
        </Field>
      </Panel>
      <Panel title="Titles">
        <TitlePicker
          systems={kit.systems}
          chosen={titles}
          onChange={(chosen) => put({ ...typed, titles: [...chosen] })}
        />
        {fields.titles && <p className="mt-1 text-[12px] text-caution">{fields.titles}</p>}
      </Panel>
      <Panel
        title="Arms"
        aside={
          <Button
            onClick={() => setDrafts([...drafts, freshArm(drafts.at(-1)?.rigId ?? "")])}
            disabled={drafts.length >= mostCampaignArms}
          >
            <Plus size={14} aria-hidden />
            Arm
          </Button>
        }
      >
        {question === "which scale and mode" && arms[0] && (
          <ScaleArms
            kit={kit}
            base={arms[0]}
            onArms={(made) => setDrafts(made.map((arm) => ({ ...arm, named: true })))}
          />
        )}
        <div className="grid gap-3">
          {arms.map((arm, place) => (
            <ArmCard
              key={place}
              kit={kit}
              arm={arm}
              place={place}
              error={(field) => fields[`arms.${place}.${field}`]}
              onChange={(changed) => setDrafts(drafts.map((each, at) => (at === place ? changed : each)))}
              onRemove={drafts.length > 1 ? () => setDrafts(drafts.filter((_, at) => at !== place)) : null}
            />
          ))}
        </div>
        {fields.arms && <p className="mt-1 text-[12px] text-caution">{fields.arms}</p>}
        <div className="mt-3 max-w-md">
          <Field
            label="An engine must have"
            help="Abilities separated by commas; an engine known to lack one is marked before any run is spent on it."
          >
            {(ids) => (
              <Suggest
                {...ids}
                options={kit.abilities}
                value={needs}
                onChange={(event) => put({ ...typed, needs: event.target.value })}
              />
            )}
          </Field>
        </div>
      </Panel>
      <Panel title="Time">
        <div className="grid grid-cols-[repeat(auto-fill,minmax(9.5rem,1fr))] items-start gap-3">
          {timeField("loadingMin", "Loading", "min")}
          {timeField("passMin", "A pass", "min", "where its scene doesn't say")}
          {timeField("title", "Another title", "min")}
          {timeField("engine", "Another engine", "min")}
          {timeField("powerMode", "Another mode", "min")}
          {timeField("setUp", "Another set-up", "min")}
          {timeField("rig", "Another rig", "min")}
          {timeField("firstEvening", "First evening", undefined, "empty: in one go", "date")}
          {timeField("startsAt", "Begins at", undefined, undefined, "time")}
          {timeField("eveningMin", "An evening has", "min", "empty: as long as it takes")}
          {timeField("chargeWatts", "Charger gives", "W", "empty: not planned")}
        </div>
      </Panel>
      <div className="flex items-center gap-4">
        <Button type="submit" look="lit" disabled={busy}>
          {busy ? "Putting the runs in order …" : "Plan it"}
        </Button>
        <span className="figure text-[13px] text-soft">
          {places} × {arms.length} × {Number(rounds) || 0} = {say.count(runs, "run")}
        </span>
      </div>
    </form>
  );
}
