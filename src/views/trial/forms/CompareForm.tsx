"use client";
import { useState } from "react";
import { changesBetween } from "@/core/kit";
import { armName, comparePlan, type ArmConditions } from "@/core/trial";
import { Button, ChoiceField, Field, Input, Panel, Switch } from "@/ui";
import { SettingsInForce } from "@/views/run/SettingsInForce";
import { VaryForm } from "./VaryForm";
import { Cautions, Foot, Row, Whole, type FormProps } from "./parts";

/** Plans a trial of one thing in any number of values, or of several changes at once. */
export function CompareForm(props: FormProps) {
  const [several, setSeveral] = useState(false);
  return (
    <>
      <div role="group" aria-label="How much changes" className="mb-3 flex flex-wrap gap-2">
        <Button aria-pressed={!several} onClick={() => setSeveral(false)}>
          One thing, any number of values
        </Button>
        <Button aria-pressed={several} onClick={() => setSeveral(true)}>
          Several at once
        </Button>
      </div>
      {several ? <SeveralForm {...props} /> : <VaryForm {...props} />}
    </>
  );
}

function SeveralForm(props: FormProps) {
  const { view } = props;
  const { catalogue, standing, holds, spec, builds, job } = view;
  const [settings, setSettings] = useState(standing.settings);
  const [conditions, setConditions] = useState<ArmConditions>({});
  const [buildId, setBuildId] = useState<string>(job.buildId);
  const [name, setName] = useState("");
  // One look a side settles what is large; more are a key away.
  const [rounds, setRounds] = useState(view.byEye ? 1 : 3);
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
          holds.conditions,
        );
  const other = (key: "powerMode" | "clocks", label: string, options: string[], allowed: boolean) =>
    options.length > 1 &&
    allowed && (
      <Field label={label}>
        {({ id }) => (
          <ChoiceField
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
          <SettingsInForce
            engineId={job.engineId}
            rigId={job.rigId}
            catalogue={catalogue}
            settings={settings}
            onChange={setSettings}
          />
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
                <ChoiceField
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
          {count} things change at once. Which of them did it can&apos;t be told apart then:{" "}
          {[...labelled.map(({ label }) => label), ...Object.keys(conditions)].join(", ")}
          {buildId !== job.buildId && ", the build"}.
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
