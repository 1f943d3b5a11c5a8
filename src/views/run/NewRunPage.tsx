"use client";
import dynamic from "next/dynamic";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { differing, underArm } from "@/core/job";
import {
  cacheStates,
  changesBetween,
  preflightFor,
  type NewFault,
  type NewRun,
  type SeenOutcome,
  type Settings,
} from "@/core/kit";
import type { NewRunView } from "@/contract";
import { yardstickOf } from "@/core/verdict";
import {
  Button,
  ChoiceField,
  Field,
  Input,
  Keys,
  Panel,
  Switch,
  buttonLook,
  Link,
  hasFieldsOf,
  say,
  toast,
  useDraft,
} from "@/ui";
import { call } from "@/contract/client";
import { armRunName } from "@/core/trial";
import { LogQueue, type LogParticulars } from "./LogQueue";
import { Preflight } from "./Preflight";
import { benchAsHeld, Otherwise } from "./Otherwise";
import { NoTrace } from "./NoTrace";
import { SoundByEar } from "./SoundByEar";
import { SettingsInForce } from "./SettingsInForce";
import { RunSources } from "./Ways";

/** Each way to bring a run in is loaded when it is taken. */
const CaptureDesk = dynamic(async () => (await import("@/views/capture/CaptureDesk")).CaptureDesk);
const TallyPad = dynamic(async () => (await import("./TallyPad")).TallyPad);

/** What sets arms apart, as a log may say it before its rows: settings that aren't the same in all of them. */
const signsOf = (arms: { settings: Settings }[]): string[][] => {
  const keys = [...new Set(arms.flatMap(({ settings }) => Object.keys(settings)))].filter(
    (key) => new Set(arms.map(({ settings }) => settings[key])).size > 1,
  );
  return arms.map(({ settings }) => keys.map((key) => `${key} ${String(settings[key])}`));
};

/** What is typed of a run beside its figures; the browser keeps it until the run is kept. */
interface Typed {
  settings: Settings;
  label: string;
  cacheState: NewRun["cacheState"];
  crashed: boolean;
  atFirst: string | null;
  heard: { dropouts: number; minutes: number } | null;
  /** The settings that stood when it was begun. */
  of: string;
}

/** A fault as it is noted beside a run. */
const plainFault = { severity: "visible" as const, scene: "", atMs: null, workaround: "" };

const cacheNames = { warm: "warm: seen before", cold: "cold: first visit", unknown: "not known" } as const;

/**
 * Brings a run into a job: settings and conditions as they were, then a log or a tally, then the verdict at
 * once.
 */
export function NewRunPage({
  job,
  catalogue,
  settings: first,
  holds,
  bench,
  preflight,
  ticked: carriedTicks,
  patches,
  byEye,
  scenes,
  trial,
  campaign,
}: NewRunView) {
  const router = useRouter();
  /** Where what is typed, chosen or filmed for this run comes back after the page was left. */
  const inHandFor = trial ? `${trial.id}: ${trial.arm}` : job.id;
  const begun: Typed = {
    settings: first,
    label: trial ? armRunName(trial.name, trial.armName) : "",
    cacheState: trial?.cold ? "cold" : "warm",
    crashed: false,
    atFirst: null,
    heard: null,
    of: JSON.stringify(first),
  };
  const [typed, put, forgetTyped] = useDraft(
    `run ${inHandFor}`,
    begun,
    // Settings typed over others than those in force now are no draft of this run.
    (kept): kept is Typed => hasFieldsOf(begun)(kept) && kept.of === begun.of,
  );
  const { settings, label, cacheState, crashed, atFirst, heard } = typed;
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const [unticked, setUnticked] = useState<ReadonlySet<string>>(new Set());
  const { rig } = bench;
  const conditions = bench.conditions && { ...bench.conditions, ...trial?.conditions };
  const back = campaign
    ? `/campaigns/${campaign.id}`
    : trial
      ? `/jobs/${job.id}/trials/${trial.id}`
      : `/jobs/${job.id}`;
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
        <h1 className="mb-4 text-xl font-semibold">New run</h1>
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
  // A trial's run is held against its arm: what is tried there is meant.
  const wanted = trial ? underArm(holds, { settings: first, conditions: trial.conditions }) : holds;
  const otherwise = differing(wanted, { settings, conditions }, catalogue);
  const setBench = () =>
    void call("changeBench", {
      body: { rigId: rig.id, conditions: benchAsHeld(conditions, wanted) },
      saw: bench.version,
    }).then(() => router.refresh());
  const items = preflightFor(preflight, {
    spec: rig.spec,
    conditions,
    title: { hardness: job.hardness, patches },
    cacheState,
    rules: job.rules,
  });
  // What was checked before the run before holds on within a sitting; what only now belongs on the list is
  // asked.
  const before = new Set(carriedTicks?.labels ?? []);
  const checked = new Set(
    items
      .filter(({ id, label: item }) => ticked.has(id) || (before.has(item) && !unticked.has(id)))
      .map(({ id }) => id),
  );
  /** What is said of a run, of the arm it was made for where that is a trial's. */
  const particulars = (
    source: NewRun["source"],
    arm: number | null,
    log: Partial<LogParticulars> = {},
  ): NewRun => {
    const place = arm === null ? null : trial?.arms[arm];
    const own = place && arm !== trial?.arm;
    return {
      jobId: job.id,
      source,
      label: trial && own ? armRunName(trial.name, place.name) : label,
      fileName: log.fileName ?? null,
      fileHash: log.fileHash ?? null,
      again: log.again ?? false,
      conditions: own ? { ...conditions, ...place.conditions } : conditions,
      settings: own ? place.settings : settings,
      cacheState,
      crashed,
      skippedRows: log.skippedRows ?? 0,
      preflight: items.map(({ id, label: item }) => ({ label: item, ticked: checked.has(id) })),
      notes: "",
      ...(campaign && campaign.scene !== "" && { scene: campaign.scene }),
      trialId: trial?.id ?? null,
      arm: trial ? (arm ?? trial.arm) : null,
    };
  };
  /** What was seen and heard beside the figures, as faults of the run that was just kept. */
  const noteBeside = async (runId: string) => {
    const faults: Omit<NewFault, "runId">[] = [
      ...(atFirst === null ? [] : [{ ...plainFault, kind: "crash" as const, note: `at first: ${atFirst}` }]),
      ...(heard === null
        ? []
        : [
            {
              ...plainFault,
              kind: "sound" as const,
              severity: "slight" as const,
              note: `${say.count(heard.dropouts, "dropout")} in ${say.number(heard.minutes)} min by ear, ${say.number(heard.dropouts / heard.minutes)} a minute`,
            },
          ]),
    ];
    for (const fault of faults) {
      const sent = await call("addFault", { body: { ...fault, runId } });
      if (!sent.ok) toast.error(sent.refusal.title, { description: sent.refusal.fix });
    }
  };
  const keepOutcome = async (outcome: SeenOutcome, what: string): Promise<boolean> => {
    const run = {
      ...particulars("tally", trial?.arm ?? null),
      label: outcome,
      notes: what,
      tags: [outcome],
      crashed: true,
    };
    const sent = await call("tallyRun", { body: { run, readings: [{ fps: 0, second: 0 }] } });
    if (!sent.ok) toast.error(sent.refusal.title, { description: sent.refusal.fix });
    else onKept([sent.answer]);
    return sent.ok;
  };
  const onKept = (runs: { id: string }[]) => {
    forgetTyped();
    const last = runs.at(-1);
    if (last && (atFirst !== null || heard !== null)) void noteBeside(last.id).then(() => router.refresh());
    router.push(campaign || trial || !last ? back : `${back}?run=${last.id}`);
    router.refresh();
  };
  return (
    <div className="mx-auto grid max-w-6xl gap-4 p-5 lg:grid-cols-[1fr_340px]">
      <Keys
        actions={[
          {
            keys: "escape",
            shown: "Esc",
            label: campaign ? "back to the campaign" : trial ? "back to the trial" : "back to the job",
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
            , {campaign ? campaign.engine : `${job.engine} ${job.build}`} on {job.rig}
          </p>
        </header>
        {trial && (
          <Panel className="mb-4">
            <p>
              For{" "}
              <Link href={back} className="underline decoration-line underline-offset-4">
                {trial.name}
              </Link>
              : <b>{trial.armName}</b>
              {campaign && `, run with ${campaign.engine}`}
              {campaign && campaign.scene !== "" && `, in ${campaign.scene}`}. Settings and conditions are the
              arm&apos;s; set them on the device before you measure.
            </p>
            {trial.arms.length > 1 && (
              <p className="mt-1 flex flex-wrap items-center gap-2 text-[13px] text-soft">
                Another arm:{" "}
                {trial.arms.map(
                  ({ name }, arm) =>
                    arm !== trial.arm && (
                      <Link
                        key={name}
                        href={`/jobs/${job.id}/runs/new?trial=${trial.id}&arm=${arm}${campaign ? `&campaign=${campaign.id}` : ""}`}
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
        <Otherwise
          differing={otherwise}
          onSet={otherwise.some(({ what }) => what !== "setting") ? setBench : null}
        />
        <RunSources
          first={byEye ? "tally" : "log"}
          video={{
            place: inHandFor,
            desk: (
              <CaptureDesk
                place={inHandFor}
                yardstick={yardstick}
                begin={() => particulars("capture", trial?.arm ?? null)}
                onKept={(run) => onKept([run])}
              />
            ),
          }}
          log={(onVideo) => (
            <LogQueue
              place={`job ${job.id} ${trial?.id ?? ""}`}
              onVideo={onVideo}
              yardstick={yardstick}
              rules={job.rules}
              arms={
                trial && {
                  names: trial.arms.map(({ name }) => name),
                  signs: signsOf(trial.arms),
                  left: [trial.arm, ...trial.left],
                }
              }
              begin={async () => (log, arm) => particulars("log", arm, log)}
              onKept={onKept}
            />
          )}
          tally={
            <TallyPad
              scenes={scenes}
              yardstick={yardstick}
              rules={job.rules}
              onKept={(run) => onKept([run])}
              arms={trial && trial.arms.length > 1 ? trial.arms.map(({ name }) => name) : null}
              firstArm={trial?.arm ?? 0}
              key={trial?.arm}
              draft={trial ? trial.id : job.id}
              begin={async () => (arm) => particulars("tally", arm)}
            />
          }
        />
        <NoTrace
          onOutcome={keepOutcome}
          atFirst={atFirst}
          onAtFirst={(what) => put({ ...typed, atFirst: what })}
        />
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
                  onChange={(event) => put({ ...typed, label: event.target.value })}
                />
              )}
            </Field>
            <Field label="Shader cache">
              {({ id }) => (
                <ChoiceField
                  id={id}
                  label="Shader cache"
                  value={cacheState}
                  options={cacheStates.map((state) => ({ value: state, label: cacheNames[state] }))}
                  onChange={(value) => put({ ...typed, cacheState: value as NewRun["cacheState"] })}
                />
              )}
            </Field>
            <Switch
              label="it ended in a crash"
              checked={crashed}
              onChange={(on) => put({ ...typed, crashed: on })}
            />
            <SoundByEar heard={heard} onHeard={(now) => put({ ...typed, heard: now })} />
          </div>
        </Panel>
        <Preflight
          items={items}
          ticked={checked}
          carriedFrom={carriedTicks?.run ?? null}
          onTick={(now) => {
            setTicked(now);
            setUnticked(new Set(items.filter(({ id }) => !now.has(id)).map(({ id }) => id)));
          }}
        />
        <Panel
          title="Settings in force"
          aside={
            <span className="text-[12px] text-soft">
              {changes === 0 ? "as last time" : `${changes} changed`}
            </span>
          }
        >
          <SettingsInForce
            engineId={job.engineId}
            rigId={job.rigId}
            catalogue={catalogue}
            settings={settings}
            onChange={(now) => put({ ...typed, settings: now })}
          />
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
