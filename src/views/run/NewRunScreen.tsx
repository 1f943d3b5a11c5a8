"use client";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { Tabs } from "radix-ui";
import { useState } from "react";
import { cacheStates, changesBetween, preflightFor, type NewRun } from "@/core/kit";
import type { NewRunView } from "@/core/records";
import { yardstickOf } from "@/core/verdict";
import { Button, Choice, Field, Input, Keys, Panel, Switch, buttonLook } from "@/ui";
import { call } from "@/contract";
import { LogImport } from "./LogImport";
import { Preflight } from "./Preflight";
import { SettingsInForce } from "./SettingsInForce";
import { TallyPad } from "./TallyPad";

const cacheNames = { warm: "warm: seen before", cold: "cold: first visit", unknown: "not known" } as const;

/** Brings a run into a job: settings and conditions as they were, then a log or a tally, then the verdict at once. */
export function NewRunScreen({
  job,
  catalogue,
  settings: first,
  bench,
  preflight,
  patches,
  scenes,
  trial,
}: NewRunView) {
  const router = useRouter();
  const [settings, setSettings] = useState(first);
  const [label, setLabel] = useState(trial ? `${trial.name}: ${trial.armName}`.slice(0, 120) : "");
  const [cacheState, setCacheState] = useState<NewRun["cacheState"]>(trial?.cold ? "cold" : "warm");
  const [crashed, setCrashed] = useState(false);
  const [way, setWay] = useState("log");
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const { rig } = bench;
  const conditions = bench.conditions && { ...bench.conditions, ...trial?.conditions };
  const back = trial ? `/jobs/${job.id}/trials/${trial.id}` : `/jobs/${job.id}`;
  const held = bench.conditions;
  const set =
    trial && held
      ? (Object.keys(trial.conditions) as (keyof typeof trial.conditions)[]).filter(
          (key) => trial.conditions[key] !== undefined && trial.conditions[key] !== held[key],
        )
      : [];
  if (!rig || !conditions || rig.id !== job.rigId) {
    return (
      <div className="mx-auto max-w-xl p-6">
        <Panel title={`${job.rig} isn't on the bench`}>
          <p className="mb-4 text-soft">
            This job is for {job.rig}
            {rig ? `; ${rig.name} lies there now` : ""}. Conditions are taken from the bench, so put it there
            first.
          </p>
          <Button
            look="lit"
            onClick={() =>
              void call("changeBench", { body: { rigId: job.rigId, jobId: job.id }, saw: bench.version }).then(
                () => router.refresh(),
              )
            }
          >
            Put {job.rig} on the bench
          </Button>
        </Panel>
      </div>
    );
  }
  const yardstick = yardstickOf(job, rig.spec, conditions.display);
  const changes = changesBetween(first, settings).length;
  const items = preflightFor(preflight, {
    spec: rig.spec,
    conditions,
    title: { hardness: job.hardness, patches },
    cacheState,
    rules: job.rules,
  });
  const preflightTicks = items.map(({ id, label: checked }) => ({ label: checked, ticked: ticked.has(id) }));
  const particulars = (source: NewRun["source"], fileName: string | null, skippedRows: number): NewRun => ({
    jobId: job.id,
    source,
    label,
    fileName,
    conditions,
    settings,
    cacheState,
    crashed,
    skippedRows,
    preflight: preflightTicks,
    notes: "",
    trialId: trial?.id ?? null,
    arm: trial?.arm ?? null,
  });
  const onKept = ({ id }: { id: string }) => {
    router.push(trial ? back : `${back}?run=${id}`);
    router.refresh();
  };
  return (
    <div className="mx-auto grid max-w-6xl gap-4 p-5 lg:grid-cols-[1fr_340px]">
      <Keys
        actions={[
          {
            keys: "escape",
            shown: "Esc",
            label: trial ? "back to the trial" : "back to the job",
            run: () => router.push(back),
          },
        ]}
      />
      <div className="min-w-0">
        <header className="mb-3 flex items-baseline gap-3">
          <h1 className="text-xl font-semibold">New run</h1>
          <p className="text-soft">
            <Link href={back} className="underline decoration-line underline-offset-4">
              {job.title}
            </Link>
            , {job.engine} {job.build} on {job.rig}
          </p>
        </header>
        {trial && (
          <Panel className="mb-4">
            <p>
              For{" "}
              <Link href={back} className="underline decoration-line underline-offset-4">
                {trial.name}
              </Link>
              : <b>{trial.armName}</b>. Settings and conditions are the arm&apos;s; set them on the device
              before you measure.
            </p>
            {trial.arms.length > 1 && (
              <p className="mt-1 flex flex-wrap items-center gap-2 text-[13px] text-soft">
                Another arm:{" "}
                {trial.arms.map(
                  ({ name }, arm) =>
                    arm !== trial.arm && (
                      <Link
                        key={name}
                        href={`/jobs/${job.id}/runs/new?trial=${trial.id}&arm=${arm}`}
                        className="underline"
                      >
                        {name}
                      </Link>
                    ),
                )}
              </p>
            )}
            {set.length > 0 && (
              <p className="mt-1 text-[13px] text-caution">
                Other than the bench strip says:{" "}
                {set
                  .map((key) => `${key === "powerMode" ? "power mode" : key} ${String(trial.conditions[key])}`)
                  .join(", ")}
                . It is stamped so on the run.
              </p>
            )}
          </Panel>
        )}
        <Tabs.Root value={way} onValueChange={setWay}>
          <Tabs.List aria-label="How the run is brought in" className="mb-4 flex gap-1 border-b border-line">
            {[
              ["log", "From a log"],
              ["tally", "Tally by eye"],
            ].map(([value = "", name]) => (
              <Tabs.Trigger
                key={value}
                value={value}
                className="-mb-px border-b-2 border-transparent px-3 py-2 text-soft data-[state=active]:border-lit data-[state=active]:text-text"
              >
                {name}
              </Tabs.Trigger>
            ))}
          </Tabs.List>
          <Tabs.Content value="log">
            <LogImport
              yardstick={yardstick}
              rules={job.rules}
              particulars={(fileName, skipped) => particulars("log", fileName, skipped)}
              onKept={onKept}
            />
          </Tabs.Content>
          <Tabs.Content value="tally">
            <TallyPad
              key={trial?.arm}
              scenes={scenes}
              targetFps={yardstick.targetFps}
              onKept={onKept}
              arms={trial && trial.arms.length > 1 ? trial.arms.map(({ name }) => name) : null}
              firstArm={trial?.arm ?? 0}
              particulars={(arm) => {
                const place = arm === null ? null : trial?.arms[arm];
                return {
                  ...particulars("tally", null, 0),
                  ...(trial && place
                    ? {
                        arm,
                        label: `${trial.name}: ${place.name}`.slice(0, 120),
                        settings: arm === trial.arm ? settings : place.settings,
                        conditions: { ...conditions, ...place.conditions },
                      }
                    : {}),
                };
              }}
            />
          </Tabs.Content>
        </Tabs.Root>
      </div>
      <aside className="grid content-start gap-4">
        <Panel title="This run">
          <div className="grid gap-3">
            <Field label="Name">
              {(ids) => (
                <Input
                  {...ids}
                  value={label}
                  maxLength={120}
                  placeholder="e.g. baseline, the lock gates"
                  onChange={(event) => setLabel(event.target.value)}
                />
              )}
            </Field>
            <Field label="Shader cache">
              {({ id }) => (
                <Choice
                  id={id}
                  label="Shader cache"
                  value={cacheState}
                  options={cacheStates.map((state) => ({ value: state, label: cacheNames[state] }))}
                  onChange={(value) => setCacheState(value as NewRun["cacheState"])}
                />
              )}
            </Field>
            <Switch label="it ended in a crash" checked={crashed} onChange={setCrashed} />
          </div>
        </Panel>
        <Preflight items={items} ticked={ticked} onTick={setTicked} />
        <Panel
          title="Settings in force"
          aside={
            <span className="text-[12px] text-soft">
              {changes === 0 ? "as last time" : `${changes} changed`}
            </span>
          }
        >
          <SettingsInForce catalogue={catalogue} settings={settings} onChange={setSettings} />
          {changes > 1 && !trial && (
            <p className="mt-3 text-[12px] text-caution">
              More than one change since the last run: an effect can&apos;t be told apart.
            </p>
          )}
        </Panel>
        <p className="text-[12px] text-soft">
          Conditions come from the bench strip above and are stamped on the run.
        </p>
        <Link href={back} className={buttonLook("quiet")}>
          {trial ? "Back to the trial" : "Back to the job"}
        </Link>
      </aside>
    </div>
  );
}
