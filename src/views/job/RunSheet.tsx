"use client";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { call } from "@/contract/client";
import type { SentBody, ThreadRun } from "@/contract";
import { cacheStates, type Conditions, type RigSpec } from "@/core/kit";
import type { JobRow, TrialNode } from "@/core/records";
import { grades, type Grade } from "@/core/verdict";
import { gradeWords, valueWords } from "@/core/words";
import { useIntoProfile } from "./useIntoProfile";
import { Button, ChoiceField, Field, Input, Sheet, Suggest, Switch, TextArea, say, When, toast } from "@/ui";

const fieldNames: Record<string, string> = {
  label: "Name",
  notes: "Notes",
  tags: "Tags",
  scene: "Scene",
  fileName: "File",
  cacheState: "Shader cache",
  conditions: "Conditions",
  settings: "Settings",
  trialId: "Trial",
  arm: "Arm",
  state: "State",
  buildId: "Build",
  job: "Job",
  columns: "Columns",
};
const none = "none";

/** What was changed: a list as it reads, an object by what differs in it, ids not at all. */
function changeText(field: string, from: unknown, to: unknown): string {
  const name = fieldNames[field] ?? field;
  if (field === "trialId" || field === "buildId") return `${name} changed`;
  if (Array.isArray(from) && Array.isArray(to))
    return `${name}: ${from.join(", ") || none} → ${to.join(", ") || none}`;
  if (typeof from === "object" && typeof to === "object" && from && to) {
    const [before, after] = [from, to] as [Record<string, unknown>, Record<string, unknown>];
    return `${name}: ${Object.keys(after)
      .filter((key) => before[key] !== after[key])
      .map((key) => `${key} ${valueWords(before[key])} → ${valueWords(after[key])}`)
      .join(", ")}`;
  }
  return `${name}: ${from === "" ? none : valueWords(from)} → ${to === "" ? none : valueWords(to)}`;
}

/**
 * Everything that is said about a run, to be corrected; what it measured stays. What was there before stands
 * under it.
 */
export function RunSheet({
  run,
  job,
  trials,
  spec,
  scenes,
  open,
  onOpenChange,
  onChanged,
  onMove,
  onReread,
}: {
  run: ThreadRun;
  job: JobRow;
  trials: TrialNode[];
  spec: RigSpec;
  scenes: string[];
  open: boolean;
  onOpenChange: (open: boolean) => void;
  onChanged: () => void;
  onMove: () => void;
  /** Opens what reads its log again. */
  onReread: () => void;
}) {
  const [label, setLabel] = useState(run.label);
  const [notes, setNotes] = useState(run.notes);
  const [tags, setTags] = useState((run.tags ?? []).join(", "));
  const [scene, setScene] = useState(run.scene ?? "");
  const [fileName, setFileName] = useState(run.fileName ?? "");
  const [cacheState, setCacheState] = useState(run.cacheState);
  const [crashed, setCrashed] = useState(run.crashed);
  const [conditions, setConditions] = useState<Conditions>(run.conditions);
  const [light, setLight] = useState<string>(run.overruled?.grade ?? none);
  const [why, setWhy] = useState(run.overruled?.reason ?? "");
  const [fromMemory, setFromMemory] = useState(run.fromMemory ?? false);
  const made = run.trialId === null ? none : `${run.trialId} ${run.arm}`;
  const [place, setPlace] = useState(made);
  const [jobId, setJobId] = useState(job.id);
  const [problem, setProblem] = useState<string | null>(null);
  const intoProfile = useIntoProfile(job, run);
  const edits = useQuery({
    queryKey: ["edits", run.id, run.version],
    enabled: open,
    queryFn: async () => {
      const sent = await call("viewRunEdits", { id: run.id });
      return sent.ok ? sent.answer.rows : [];
    },
  });
  const jobs = useQuery({
    queryKey: ["jobs of rig", job.rigId],
    enabled: open,
    queryFn: async () => {
      const sent = await call("listJobs", { query: { search: job.rig, filter: "open", limit: 100 } });
      return sent.ok ? sent.answer.rows.filter(({ rigId, id }) => rigId === job.rigId && id !== job.id) : [];
    },
  });
  const save = async () => {
    const [trialId, arm] = place.split(" ");
    const moved = place !== made || jobId !== job.id;
    const inTrial = place !== none && jobId === job.id;
    const body: SentBody<"changeRun"> = {
      label,
      notes,
      tags: tags
        .split(",")
        .map((tag) => tag.trim())
        .filter(Boolean),
      scene,
      fileName: fileName.trim() === "" ? null : fileName.trim(),
      cacheState,
      conditions,
      ...(crashed === run.crashed ? {} : { crashed }),
      ...(fromMemory === (run.fromMemory ?? false) ? {} : { fromMemory }),
      ...(light === (run.overruled?.grade ?? none) && why === (run.overruled?.reason ?? "")
        ? {}
        : { overruled: light === none ? null : { grade: light as Grade, reason: why } }),
      ...(moved
        ? {
            place: {
              ...(jobId === job.id ? {} : { jobId }),
              trialId: inTrial ? (trialId ?? null) : null,
              arm: inTrial ? Number(arm) : null,
            },
          }
        : {}),
    };
    const sent = await call("changeRun", { id: run.id, body, saw: run.version });
    if (sent.ok) {
      toast("Kept.");
      onOpenChange(false);
    } else setProblem(`${sent.refusal.title} ${sent.refusal.fix}`);
    onChanged();
  };
  const set = (changed: Partial<Conditions>) => setConditions({ ...conditions, ...changed });
  const pick = (name: string, value: string | null, options: string[], onChange: (value: string) => void) =>
    options.length > 0 && (
      <Field label={name}>
        {({ id }) => (
          <ChoiceField
            id={id}
            label={name}
            value={value}
            options={options.map((each) => ({ value: each, label: each }))}
            onChange={onChange}
          />
        )}
      </Field>
    );
  const places = [
    { value: none, label: "no trial" },
    ...trials
      .filter(({ id, decidedAt }) => !decidedAt || id === run.trialId)
      .flatMap((trial) =>
        trial.arms.map((arm, at) => ({
          value: `${trial.id} ${at}`,
          label: arm.name,
          note: `trial ${trial.number}, ${trial.name}`,
        })),
      ),
  ];
  return (
    <Sheet open={open} onOpenChange={onOpenChange} title={`Run ${run.number}: what is said about it`}>
      <form
        className="grid gap-3 sm:grid-cols-2"
        onSubmit={(event) => {
          event.preventDefault();
          void save();
        }}
      >
        <Field label="Name">
          {(ids) => (
            <Input
              {...ids}
              value={label}
              maxLength={120}
              autoFocus
              onChange={(event) => setLabel(event.target.value)}
            />
          )}
        </Field>
        <Field label="Tags" help="Separated by commas.">
          {(ids) => (
            <Input {...ids} value={tags} maxLength={400} onChange={(event) => setTags(event.target.value)} />
          )}
        </Field>
        <Field label="Notes" className="sm:col-span-2">
          {(ids) => (
            <TextArea
              {...ids}
              value={notes}
              maxLength={2000}
              onChange={(event) => setNotes(event.target.value)}
            />
          )}
        </Field>
        <Field label="Scene">
          {(ids) => (
            <Suggest
              {...ids}
              value={scene}
              maxLength={120}
              options={scenes}
              onChange={(event) => setScene(event.target.value)}
            />
          )}
        </Field>
        <Field label="File">
          {(ids) => (
            <Input
              {...ids}
              value={fileName}
              maxLength={255}
              onChange={(event) => setFileName(event.target.value)}
            />
          )}
        </Field>
        {pick("Shader cache", cacheState, [...cacheStates], (value) =>
          setCacheState(value as typeof cacheState),
        )}
        {pick(
          "Power mode",
          conditions.powerMode,
          spec.powerModes.map(({ name }) => name),
          (powerMode) => set({ powerMode }),
        )}
        {pick("Clocks", conditions.clocks, spec.clockOptions, (clocks) => set({ clocks }))}
        {pick(
          "Display",
          conditions.display,
          spec.displays.map(({ name }) => name),
          (display) => set({ display }),
        )}
        <Field label="Room" unit="°C">
          {(ids) => (
            <Input
              {...ids}
              inputMode="decimal"
              defaultValue={conditions.roomC ?? ""}
              onChange={({ target: { value } }) => {
                const read = Number(value.replace(",", "."));
                if (value.trim() === "") set({ roomC: null });
                else if (Number.isFinite(read)) set({ roomC: read });
              }}
            />
          )}
        </Field>
        <Field label="Made for">
          {({ id }) => (
            <ChoiceField id={id} label="Made for" value={place} options={places} onChange={setPlace} />
          )}
        </Field>
        {(jobs.data?.length ?? 0) > 0 && (
          <Field label="Job">
            {({ id }) => (
              <ChoiceField
                id={id}
                label="Job"
                value={jobId}
                options={[
                  { value: job.id, label: `${job.title}, this job` },
                  ...(jobs.data ?? []).map((other) => ({
                    value: other.id,
                    label: other.title,
                    note: `${other.engine} ${other.build}, opened ${say.dateTime(other.createdAt)}`,
                  })),
                ]}
                onChange={setJobId}
              />
            )}
          </Field>
        )}
        <Field label="Its light, to you" help="Shown beside the computed one, never instead of it.">
          {({ id }) => (
            <ChoiceField
              id={id}
              label="Its light, to you"
              value={light}
              options={[
                { value: none, label: "as computed" },
                ...grades.map((value) => ({ value, label: gradeWords[value].name })),
              ]}
              onChange={setLight}
            />
          )}
        </Field>
        <Field label="Why">
          {(ids) => (
            <Input
              {...ids}
              value={why}
              maxLength={400}
              disabled={light === none}
              placeholder="playable to me, the counter lies, sound is fine"
              onChange={(event) => setWhy(event.target.value)}
            />
          )}
        </Field>
        <div className="flex flex-wrap gap-x-5 gap-y-2 sm:col-span-2">
          <Switch label="told from memory" checked={fromMemory} onChange={setFromMemory} />
          <Switch
            label="plugged in"
            checked={conditions.pluggedIn === true}
            onChange={(pluggedIn) => set({ pluggedIn })}
          />
          <Switch label="docked" checked={conditions.docked} onChange={(docked) => set({ docked })} />
          <Switch label="cooler on" checked={conditions.cooler} onChange={(cooler) => set({ cooler })} />
          <Switch label="it ended in a crash" checked={crashed} onChange={setCrashed} />
        </div>
        {problem && (
          <p role="alert" className="text-[13px] text-caution sm:col-span-2">
            {problem}
          </p>
        )}
        <Button type="submit" look="lit" className="justify-self-start">
          Keep
        </Button>
      </form>
      <section className="mt-5 flex flex-wrap items-center gap-3 border-t border-line pt-3 text-[13px]">
        {run.source === "log" && <Button onClick={onReread}>Its columns or units are others</Button>}
        <Button onClick={onMove}>It is of another title, rig or build</Button>
        <Button onClick={() => void intoProfile()}>Put its values into the profile</Button>
        <span className="min-w-0 flex-1 text-soft">
          In the title&apos;s layer, as this run was made: a trial still has to prove them.
        </span>
      </section>
      {(edits.data?.length ?? 0) > 0 && (
        <section className="mt-5 border-t border-line pt-3">
          <h3 className="text-[13px] font-semibold text-soft">Changed since it was made</h3>
          <ol className="mt-1 space-y-1.5 text-[13px]">
            {edits.data?.map(({ at, actor, changes }) => (
              <li key={String(at)}>
                <span className="text-soft">
                  <When at={at} />, {actor}:
                </span>{" "}
                {changes.map(({ field, from, to }) => changeText(field, from, to)).join("; ")}
              </li>
            ))}
          </ol>
        </section>
      )}
    </Sheet>
  );
}
