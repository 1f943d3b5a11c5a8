"use client";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { Checkbox, Tabs } from "radix-ui";
import { Check } from "lucide-react";
import { useState, type ReactNode } from "react";
import {
  changesBetween,
  firstConditions,
  trialKinds,
  type ArmConditions,
  type NewTrial,
  type TrialKind,
} from "@/core/kit";
import type { PlanView } from "@/core/records";
import { heatCautions, limiterOf } from "@/core/advise";
import { Button, Choice, Field, Input, Keys, Panel, Switch, buttonLook, say } from "@/ui";
import { SettingsInForce } from "@/views/run/SettingsInForce";
import { send, type Refusal } from "@/views/send";
import {
  armName,
  clocksPlan,
  comparePlan,
  heatPlan,
  holdSetting,
  kindWords,
  memoryPlan,
  otherSide,
  places,
  planMinutes,
  powerPlan,
  ratePlan,
  resolutionPlan,
  scaleSetting,
  screenPlan,
  usualScales,
  type Place,
} from "./plans";

type Draft = Omit<NewTrial, "jobId">;

/** Plans a trial or a sweep of a job: what is compared, how often, and what it takes. */
export function PlanScreen(view: PlanView & { asked: string | null }) {
  const { job, asked } = view;
  const router = useRouter();
  const [kind, setKind] = useState<TrialKind>(trialKinds.find((each) => each === asked) ?? "compare");
  const [refusal, setRefusal] = useState<Refusal | null>(null);
  const [busy, setBusy] = useState(false);
  const back = `/jobs/${job.id}`;
  const begin = async (draft: Draft) => {
    setBusy(true);
    const sent = await send<{ id: string }>("POST", "trials", { ...draft, jobId: job.id });
    setBusy(false);
    if (sent.ok) router.push(`${back}/trials/${sent.answer.id}`);
    else setRefusal(sent.refusal);
  };
  const common = { view, busy, refusal, onBegin: begin };
  return (
    <div className="mx-auto max-w-4xl p-5">
      <Keys
        actions={[{ keys: "escape", shown: "Esc", label: "back to the job", run: () => router.push(back) }]}
      />
      <header className="mb-3">
        <h1 className="text-xl font-semibold">New trial</h1>
        <p className="text-soft">
          <Link href={back} className="underline decoration-line underline-offset-4">
            {job.title}
          </Link>
          , {job.engine} {job.version} on {job.rig}; {job.houseRules}
        </p>
      </header>
      <Tabs.Root
        value={kind}
        onValueChange={(value) => {
          setKind(value as TrialKind);
          setRefusal(null);
        }}
      >
        <Tabs.List aria-label="What is tried" className="mb-4 flex flex-wrap gap-1 border-b border-line">
          {trialKinds.map((value) => (
            <Tabs.Trigger
              key={value}
              value={value}
              className="-mb-px border-b-2 border-transparent px-3 py-2 text-soft data-[state=active]:border-lit data-[state=active]:text-text"
            >
              {kindWords[value].name}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
        <p className="mb-3 text-soft">{kindWords[kind].question}</p>
        <Tabs.Content value="compare">
          <CompareForm {...common} />
        </Tabs.Content>
        <Tabs.Content value="screen">
          <ScreenForm {...common} />
        </Tabs.Content>
        <Tabs.Content value="resolution">
          <ResolutionForm {...common} />
        </Tabs.Content>
        <Tabs.Content value="power">
          <PowerForm {...common} />
        </Tabs.Content>
        <Tabs.Content value="heat">
          <HeatForm {...common} />
        </Tabs.Content>
        <Tabs.Content value="clocks">
          <ClocksForm {...common} />
        </Tabs.Content>
        <Tabs.Content value="memory">
          <MemoryForm {...common} />
        </Tabs.Content>
        <Tabs.Content value="rate">
          <RateForm {...common} />
        </Tabs.Content>
      </Tabs.Root>
    </div>
  );
}

interface FormProps {
  view: PlanView;
  busy: boolean;
  refusal: Refusal | null;
  onBegin: (draft: Draft) => Promise<void>;
}

/** The plan's foot: what it comes to, what forbids it, and the one button. */
function Foot({
  view,
  draft,
  busy,
  refusal,
  onBegin,
  missing,
}: FormProps & { draft: Draft | null; missing?: string }) {
  return (
    <div className="mt-4 grid gap-3">
      {draft && (
        <p className="text-[13px] text-soft">
          {draft.kind === "rate"
            ? "One uncapped run decides; the capped arms can be run to confirm."
            : `${say.count(draft.arms.length * draft.rounds, "run")} in turns: ${draft.arms
                .slice(0, 8)
                .map(({ name }) => name)
                .join(", ")}${draft.arms.length > 8 ? " …" : ""}.`}{" "}
          About <span className="figure text-text">{planMinutes(draft, view)} min</span>; leave it and take it
          up again as you like.
        </p>
      )}
      {missing && <p className="rounded-md border border-line p-3 text-soft">{missing}</p>}
      {refusal && (
        <p role="alert" className="rounded-md border border-caution p-3">
          <b>{refusal.title}</b> {refusal.fix}
        </p>
      )}
      <div className="flex gap-3">
        <Button type="submit" look="lit" disabled={busy || !draft} onClick={() => draft && void onBegin(draft)}>
          Begin
        </Button>
        <Link href={`/jobs/${view.job.id}`} className={buttonLook("quiet")}>
          Back
        </Link>
      </div>
    </div>
  );
}

function Ticks({
  label,
  options,
  chosen,
  onChange,
}: {
  label: string;
  options: { value: string; label: string; note?: string }[];
  chosen: ReadonlySet<string>;
  onChange: (chosen: ReadonlySet<string>) => void;
}) {
  return (
    <fieldset>
      <legend className="mb-1 text-[13px] text-soft">{label}</legend>
      <div className="flex flex-wrap gap-x-5 gap-y-2">
        {options.map(({ value, label: name, note }) => (
          <span key={value} className="inline-flex items-center gap-2 text-[13px]">
            <Checkbox.Root
              id={`tick-${label}-${value}`}
              checked={chosen.has(value)}
              onCheckedChange={(on) =>
                onChange(
                  new Set(on === true ? [...chosen, value] : [...chosen].filter((each) => each !== value)),
                )
              }
              className="grid h-4.5 w-4.5 place-items-center rounded border border-edge bg-ground data-[state=checked]:bg-lit data-[state=checked]:text-on-lit"
            >
              <Checkbox.Indicator>
                <Check size={13} aria-hidden />
              </Checkbox.Indicator>
            </Checkbox.Root>
            <label htmlFor={`tick-${label}-${value}`}>
              {name}
              {note && <span className="ml-1 text-soft">{note}</span>}
            </label>
          </span>
        ))}
      </div>
    </fieldset>
  );
}

function Whole({
  label,
  unit,
  value,
  min,
  max,
  onChange,
  help,
}: {
  label: string;
  unit?: string;
  value: number;
  min: number;
  max: number;
  onChange: (value: number) => void;
  help?: string;
}) {
  return (
    <Field label={label} unit={unit} help={help}>
      {(ids) => (
        <Input
          {...ids}
          type="number"
          className="max-w-28"
          min={min}
          max={max}
          value={String(value)}
          onChange={(event) => {
            const next = Number(event.target.value);
            if (next >= min && next <= max) onChange(next);
          }}
        />
      )}
    </Field>
  );
}

const Row = ({ children }: { children: ReactNode }) => (
  <div className="flex flex-wrap items-start gap-6">{children}</div>
);

function Cautions() {
  return (
    <ul className="list-disc space-y-1 rounded-md border border-caution p-3 pl-7 text-[12px]">
      {[
        ...heatCautions,
        "This tool plans and records. It never changes a clock, a voltage or a mode: you do, by your maker's own means.",
      ].map((note) => (
        <li key={note}>{note}</li>
      ))}
    </ul>
  );
}

function CompareForm(props: FormProps) {
  const { view } = props;
  const { catalogue, standing, spec, builds, job } = view;
  const from = { ...firstConditions(spec), ...standing.conditions };
  const [settings, setSettings] = useState(standing.settings);
  const [conditions, setConditions] = useState<ArmConditions>({});
  const [buildId, setBuildId] = useState<string>(job.buildId);
  const [name, setName] = useState("");
  const [rounds, setRounds] = useState(3);
  const [cold, setCold] = useState(false);
  const changes = changesBetween(standing.settings, settings);
  const labelled = changes.map(({ key, to }) => ({
    label: catalogue.find((setting) => setting.key === key)?.label ?? key,
    to,
  }));
  const build = builds.find(({ id }) => id === buildId);
  const usual = armName([
    ...labelled,
    ...Object.entries(conditions).map(([key, to]) => ({
      label: key === "powerMode" ? "mode" : key,
      to: to ?? null,
    })),
    ...(buildId !== job.buildId && build ? [{ label: build.engine, to: build.version }] : []),
  ]);
  const count = changes.length + Object.keys(conditions).length + (buildId !== job.buildId ? 1 : 0);
  const draft =
    count === 0
      ? null
      : comparePlan(
          view,
          {
            name: name.trim() || usual,
            settings,
            conditions,
            buildId: buildId === job.buildId ? null : buildId,
            rounds,
            cold,
          },
          from,
        );
  const other = (key: "powerMode" | "clocks", label: string, options: string[], allowed: boolean) =>
    options.length > 1 &&
    allowed && (
      <Field label={label}>
        {({ id }) => (
          <Choice
            id={id}
            label={label}
            value={conditions[key] ?? "as it is"}
            options={[
              { value: "as it is", label: "as it is" },
              ...options.map((value) => ({ value, label: value })),
            ]}
            onChange={(value) => {
              const { [key]: _old, ...rest } = conditions;
              setConditions(value === "as it is" ? rest : { ...rest, [key]: value });
            }}
          />
        )}
      </Field>
    );
  return (
    <>
      <div className="grid gap-4 lg:grid-cols-2">
        <Panel title="Arm B: what changes">
          <SettingsInForce catalogue={catalogue} settings={settings} onChange={setSettings} />
        </Panel>
        <Panel title="Beside the settings">
          <div className="grid gap-3">
            {other(
              "powerMode",
              "Power mode",
              spec.powerModes.map((mode) => mode.name),
              job.rules.mayChange.powerMode,
            )}
            {other("clocks", "Clock option", spec.clockOptions, job.rules.mayChange.clocks)}
            {spec.cooling.coolerToHand && (
              <Switch
                label="clip-on cooler on"
                checked={conditions.cooler === true}
                onChange={(on) => {
                  const { cooler: _old, ...rest } = conditions;
                  setConditions(on ? { ...rest, cooler: true } : rest);
                }}
              />
            )}
            <Field label="Engine and build">
              {({ id }) => (
                <Choice
                  id={id}
                  label="Engine and build"
                  value={buildId}
                  options={builds.map((each) => ({
                    value: each.id,
                    label: `${each.engine} ${each.version}`,
                    note: each.branch,
                  }))}
                  onChange={setBuildId}
                />
              )}
            </Field>
            <Field label="Name">
              {(ids) => (
                <Input
                  {...ids}
                  value={name}
                  maxLength={120}
                  placeholder={count > 0 ? usual : "named after the change"}
                  onChange={(event) => setName(event.target.value)}
                />
              )}
            </Field>
            <Row>
              <Whole label="Runs a side" value={rounds} min={1} max={20} onChange={setRounds} />
              <span className="pt-7">
                <Switch label="first passes, cache cleared" checked={cold} onChange={setCold} />
              </span>
            </Row>
          </div>
        </Panel>
      </div>
      {count > 1 && (
        <p className="mt-3 text-[13px] text-caution">
          {count} things change at once: if it helps, you won&apos;t know which.
        </p>
      )}
      {(conditions.powerMode || conditions.clocks) && (
        <div className="mt-3">
          <Cautions />
        </div>
      )}
      <Foot {...props} draft={draft} missing={count === 0 ? "Change one thing to begin." : undefined} />
    </>
  );
}

function ScreenForm(props: FormProps) {
  const { catalogue, standing } = props.view;
  const possible = catalogue.filter(
    (setting) => otherSide(setting, standing.settings[setting.key] ?? setting.default) !== null,
  );
  const [keys, setKeys] = useState<ReadonlySet<string>>(new Set(possible.slice(0, 7).map(({ key }) => key)));
  const chosen = possible.filter(({ key }) => keys.has(key));
  const draft =
    chosen.length >= 2
      ? screenPlan(
          props.view,
          chosen.map(({ key }) => key),
        )
      : null;
  const text = (value: unknown) => (value === true ? "on" : value === false ? "off" : String(value));
  return (
    <Panel>
      <Ticks
        label="Switches"
        options={possible.map((setting) => ({
          value: setting.key,
          label: setting.label,
          note: `${text(standing.settings[setting.key] ?? setting.default)} or ${text(otherSide(setting, standing.settings[setting.key] ?? setting.default))}`,
        }))}
        chosen={keys}
        onChange={setKeys}
      />
      {draft && (
        <p className="mt-3 text-[13px] text-soft">
          A Plackett–Burman design of {draft.arms.length} runs: each switch stands on each side in half of them,
          so its main effect can be read off. How switches act on one another isn&apos;t seen.
        </p>
      )}
      <Foot
        {...props}
        draft={draft}
        missing={
          possible.length < 2
            ? "This engine's catalogue has fewer than two settings with another side."
            : undefined
        }
      />
    </Panel>
  );
}

function ResolutionForm(props: FormProps) {
  const { catalogue, usefulScale } = props.view;
  const scale = scaleSetting(catalogue),
    hold = holdSetting(catalogue);
  const [levels, setLevels] = useState<ReadonlySet<string>>(
    new Set(scale ? usualScales(scale, usefulScale).map(String) : []),
  );
  const [rounds, setRounds] = useState(1);
  const [lifted, setLifted] = useState(true);
  if (!scale)
    return (
      <Foot
        {...props}
        draft={null}
        missing="The engine's catalogue has no scale setting: a number that relieves graphics and costs picture, from 1."
      />
    );
  const most = Math.min(scale.max ?? 10, 16),
    step = scale.step ?? 1,
    least = Math.max(scale.min ?? 1, step);
  const offered = Array.from({ length: Math.round((most - least) / step) + 1 }, (_, k) => least + k * step);
  const draft =
    levels.size >= 2
      ? resolutionPlan(props.view, [...levels].map(Number), rounds, lifted && hold !== null)
      : null;
  return (
    <Panel>
      <div className="grid gap-4">
        <Ticks
          label={`${scale.label}: levels`}
          options={offered.map((level) => ({
            value: String(level),
            label: `×${level}`,
            note: level === usefulScale ? "useful" : undefined,
          }))}
          chosen={levels}
          onChange={setLevels}
        />
        <Row>
          <Whole label="Runs of each" value={rounds} min={1} max={10} onChange={setRounds} />
          {hold && (
            <span className="pt-7">
              <Switch label={`${hold.label}: off for the sweep`} checked={lifted} onChange={setLifted} />
            </span>
          )}
        </Row>
        <p className="text-[13px] text-soft">
          Three levels tell the flat part from the slope; after three, the level that would settle it is
          proposed. An uncapped sweep gives the sharper law.
        </p>
      </div>
      <Foot {...props} draft={draft} missing={levels.size < 2 ? "Choose two levels at least." : undefined} />
    </Panel>
  );
}

function PowerForm(props: FormProps) {
  const { spec, job } = props.view;
  const [modes, setModes] = useState<ReadonlySet<string>>(new Set(spec.powerModes.map(({ name }) => name)));
  const [rounds, setRounds] = useState(2);
  const [elsewhere, setElsewhere] = useState("");
  const watts = elsewhere.trim() === "" ? null : Number(elsewhere.replace(",", "."));
  const wrong = watts !== null && !(watts >= 0 && watts <= 100) ? "0 to 100 W, or empty." : undefined;
  const [where, setWhere] = useState<ReadonlySet<string>>(new Set());
  const draft =
    modes.size * Math.max(1, where.size) >= 2 && !wrong
      ? powerPlan(
          props.view,
          [...modes],
          rounds,
          watts,
          (Object.keys(places) as Place[]).filter((place) => where.has(place)),
        )
      : null;
  return (
    <Panel>
      <div className="grid gap-4">
        <Ticks
          label="Power modes"
          options={spec.powerModes.map(({ name, watts: named }) => ({
            value: name,
            label: name,
            note: named === null ? undefined : `${named} W`,
          }))}
          chosen={modes}
          onChange={setModes}
        />
        {spec.batteryWh !== null && (
          <Ticks
            label="Where (none: as it lies now)"
            options={Object.keys(places).map((value) => ({ value, label: value }))}
            chosen={where}
            onChange={setWhere}
          />
        )}
        <Row>
          <Whole label="Runs of each" value={rounds} min={1} max={10} onChange={setRounds} />
          <Field
            label="Screen and the rest, not in the log"
            unit="W"
            error={wrong}
            help="Counts for hours on the battery."
          >
            {(ids) => (
              <Input
                {...ids}
                inputMode="decimal"
                className="max-w-28"
                value={elsewhere}
                onChange={(event) => setElsewhere(event.target.value)}
              />
            )}
          </Field>
        </Row>
        <Cautions />
      </div>
      <Foot
        {...props}
        draft={draft}
        missing={
          draft
            ? undefined
            : spec.powerModes.length < 2
              ? `${job.rig} has one power mode only.`
              : !job.rules.mayChange.powerMode
                ? "The house rules of this job don't allow the power mode to be changed."
                : undefined
        }
      />
    </Panel>
  );
}

function HeatForm(props: FormProps) {
  const { spec } = props.view;
  const [minutes, setMinutes] = useState(12);
  const [cooler, setCooler] = useState(spec.cooling.coolerToHand);
  return (
    <Panel>
      <div className="grid gap-4">
        <Row>
          <Whole
            label="Minutes of a run"
            unit="min"
            value={minutes}
            min={2}
            max={120}
            onChange={setMinutes}
            help="Long enough to settle: three of its time constants show 95 % of the way."
          />
          {spec.cooling.coolerToHand && (
            <span className="pt-7">
              <Switch label="with and without the cooler" checked={cooler} onChange={setCooler} />
            </span>
          )}
        </Row>
        {spec.temperatureLimitC === null && (
          <p className="text-[13px] text-caution">
            The rig has no temperature limit written down; add the maker&apos;s figure in Kit to be told of
            throttling.
          </p>
        )}
        <Cautions />
      </div>
      <Foot {...props} draft={heatPlan(props.view, minutes, cooler)} />
    </Panel>
  );
}

function ClocksForm(props: FormProps) {
  const { spec, job } = props.view;
  const [options, setOptions] = useState<ReadonlySet<string>>(new Set(spec.clockOptions));
  const [soak, setSoak] = useState(10);
  const draft =
    options.size >= 1 && job.rules.mayChange.clocks ? clocksPlan(props.view, [...options], soak) : null;
  const missing =
    spec.clockOptions.length === 0
      ? `${job.rig} has no clock options written down; add them in Kit, in their order, the quietest first.`
      : !job.rules.mayChange.clocks
        ? "The house rules of this job don't allow clocks to be changed. “As far as it goes” does."
        : undefined;
  return (
    <Panel>
      <div className="grid gap-4">
        <Ticks
          label="Steps, from the bottom"
          options={spec.clockOptions.map((value) => ({ value, label: value }))}
          chosen={options}
          onChange={setOptions}
        />
        <Whole
          label="Soak"
          unit="min"
          value={soak}
          min={1}
          max={240}
          onChange={setSoak}
          help={`Confirmed at twice the soak: clean for ${2 * soak} min rules out more than ${((2.996 * 60) / (2 * soak)).toFixed(1)} crashes an hour.`}
        />
        <Cautions />
      </div>
      <Foot {...props} draft={missing ? null : draft} missing={missing} />
    </Panel>
  );
}

function MemoryForm(props: FormProps) {
  const [minutes, setMinutes] = useState(15);
  return (
    <Panel>
      <Whole
        label="Minutes of the run"
        unit="min"
        value={minutes}
        min={2}
        max={240}
        onChange={setMinutes}
        help="Walk on as players do; let it crash if it will, and mark the run so."
      />
      <Foot {...props} draft={memoryPlan(props.view, minutes)} />
    </Panel>
  );
}

function RateForm(props: FormProps) {
  const { catalogue, job } = props.view;
  const limiter = limiterOf(catalogue);
  const drives = catalogue.filter(
    ({ type, key, label, relieves }) =>
      type === "number" && relieves.includes("processor") && /clock/i.test(`${key} ${label}`),
  );
  const [driven, setDriven] = useState(false);
  return (
    <Panel>
      <div className="grid gap-3 text-[13px]">
        {job.tied ? (
          <p>
            {job.title}&apos;s speed is tied to its rate: it is never capped below{" "}
            {say.number(job.nativeFps, 2)} fps, which would be slow motion.
          </p>
        ) : (
          <p>
            {job.title} is free of its rate: the highest rate that 99 % of windows hold, on an even cadence of
            the display, is recommended.
          </p>
        )}
        {limiter ? (
          <p className="text-soft">
            Kept by {limiter.label}
            {limiter.countsDouble ? ", which counts double: 120 gives 60" : ""}.
          </p>
        ) : (
          <p className="text-caution">
            The engine&apos;s catalogue has no rate limiter, so the rate can be recommended but not written into
            the profile.
          </p>
        )}
        {drives.length > 0 && (
          <Switch
            label={`also overdrive ${drives[0].label.toLowerCase()} to 130 %, to see which scenes it lifts and which it speeds up`}
            checked={driven}
            onChange={setDriven}
          />
        )}
      </div>
      <Foot {...props} draft={ratePlan(props.view, driven ? drives[0].key : null)} />
    </Panel>
  );
}
