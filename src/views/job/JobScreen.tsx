"use client";
import { nextArmName } from "@/core/trial";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { toast } from "sonner";
import { labelsIn } from "@/core/kit";
import type { JobView, ThreadRun } from "@/core/records";
import { Button, EmptyPanel, Field, Input, KeyHint, Keys, Sheet, buttonLook } from "@/ui";
import { call, type DoorBody } from "@/contract";
import { words } from "@/core/words";
import { useLive } from "@/views/live";
import { useDrops } from "@/views/drop";
import { ComparePanel } from "@/views/compare";
import { entriesOf } from "./entries";
import { Diagnosed, useDiagnosis } from "./Diagnosed";
import { FaultSheet } from "./FaultSheet";
import { Notices } from "./Notices";
import { Profile } from "./Profile";
import { Reading } from "./Reading";
import { Thread } from "./Thread";
import { TryNext } from "./TryNext";
import { TracePanel } from "./TracePanel";
import { useAddress } from "./useAddress";

/** The heart: the thread at the left, the trace in the middle, the reading at the right. */
export function JobScreen(loaded: JobView) {
  const { view, refresh } = useLive("viewJob", loaded.job.id, loaded);
  const {
    job,
    runs: made,
    trials,
    faults,
    next,
    overrides,
    standing,
    suggestions,
    opening,
    noise,
    noiseMeasured,
  } = view;
  // Keys walk the thread as it is shown: a trial's runs stand with their trial.
  const runs = entriesOf(made, trials).flatMap((entry) => ("run" in entry ? [entry.run] : entry.runs));
  const labelOf = labelsIn(view.catalogue);
  const router = useRouter();
  const { params, put } = useAddress();
  const [drawer, setDrawer] = useState<"thread" | "reading" | null>(null);
  const [naming, setNaming] = useState(false);
  const [faulting, setFaulting] = useState(false);
  const at = Math.max(
    0,
    runs.findIndex(({ id }) => id === params.get("run")),
  );
  const latest = made.at(-1);
  const run: ThreadRun | undefined = params.get("run") ? runs[at] : latest;
  const diagnosis = useDiagnosis(job.id, run?.id ?? null, view.diagnosis);
  const over = runs.find(({ id }) => id === params.get("over") && id !== run?.id) ?? null;
  const openTrial = [...trials].reverse().find(({ decidedAt }) => !decidedAt) ?? null;
  const newRun = `/jobs/${job.id}/runs/new${openTrial && openTrial.left.length > 0 ? `?trial=${openTrial.id}&arm=${openTrial.left[0]}` : ""}`;
  useDrops(job.closedAt ? "/look" : newRun);
  const select = (id: string) => {
    put({ run: id, part: null, view: null }, true);
    setDrawer(null);
  };
  const step = (by: number) => {
    const to = run && runs[runs.indexOf(run) + by];
    if (to) select(to.id);
  };
  const layOver = (id: string | null) => put({ over: id === over?.id ? null : id }, true);
  const change = async (id: string, body: DoorBody<"changeRun">, saw: number) => {
    const sent = await call("changeRun", { id, body, saw });
    if (!sent.ok) toast.error(sent.refusal.title, { description: sent.refusal.fix });
    refresh();
    return sent.ok;
  };
  const leaveOut = async () => {
    if (!run) return;
    put({ run: null, over: null, part: null, view: null });
    if (await change(run.id, { deleted: true }, run.version)) {
      toast(`Run ${run.number} left out of the job.`, {
        action: { label: "Undo", onClick: () => void change(run.id, { deleted: false }, run.version + 1) },
        duration: 15_000,
      });
    }
  };

  const keys = (
    <Keys
      actions={[
        { keys: "n", shown: "N", label: "bring in a run", run: () => router.push(newRun) },
        { keys: "up, k", shown: "↑", label: "run before", run: () => step(-1) },
        { keys: "down, j", shown: "↓", label: "run after", run: () => step(1) },
        {
          keys: "o",
          shown: "O",
          label: "lay the run before over this one, or take it away",
          run: () => run && layOver(over ? null : (runs[runs.indexOf(run) - 1]?.id ?? null)),
        },
        { keys: "e", shown: "E", label: "name this run", run: () => run && setNaming(true) },
        { keys: "x", shown: "X", label: "leave this run out", run: () => void leaveOut() },
        { keys: "g", shown: "G", label: "note a fault of this run", run: () => run && setFaulting(true) },
        {
          keys: "w",
          shown: "W",
          label: "plan a trial or sweep",
          run: () => router.push(`/jobs/${job.id}/trials/new`),
        },
        ...(openTrial
          ? [
              {
                keys: "v",
                shown: "V",
                label: "open the trial under way",
                run: () => router.push(`/jobs/${job.id}/trials/${openTrial.id}`),
              },
            ]
          : []),
      ]}
    />
  );
  const heading = (
    <div className="border-b border-line p-3">
      <h1 className="text-[16px] font-semibold leading-5">{job.title}</h1>
      <p className="text-[12px] text-soft">
        {view.inForce.engine} {view.inForce.build} on {job.rig}; aim: {job.aim}; {job.houseRules}
      </p>
      {!job.closedAt && (
        <Link href={newRun} className={`${buttonLook("lit")} mt-2 w-full`}>
          Bring in {(openTrial && nextArmName(openTrial)) ?? "a run"} <KeyHint>N</KeyHint>
        </Link>
      )}
      {!job.closedAt && (
        <Link href={`/jobs/${job.id}/trials/new`} className={`${buttonLook()} mt-1 w-full`}>
          Plan a trial <KeyHint>W</KeyHint>
        </Link>
      )}
    </div>
  );
  if (!run) {
    return (
      <div className="p-6">
        {keys}
        <h1 className="text-xl font-semibold">{job.title}</h1>
        <p className="mb-4 text-soft">
          {view.inForce.engine} {view.inForce.build} on {job.rig}, {job.system}
        </p>
        <EmptyPanel
          title="No run yet."
          action={
            <Link href={newRun} className={buttonLook("lit")}>
              Bring in the baseline <KeyHint>N</KeyHint>
            </Link>
          }
        >
          {words(next.sentence)}
        </EmptyPanel>
      </div>
    );
  }
  const notices = <Notices view={view} onChanged={refresh} />;
  const own = faults.filter(({ runId }) => runId === run.id);
  const thread = (
    <Thread
      job={job}
      runs={made}
      trials={trials}
      faults={faults}
      selected={run.id}
      over={over?.id ?? null}
      labelOf={labelOf}
      onSelect={select}
      onOver={layOver}
    />
  );
  const reading = (
    <Reading job={job} run={run} runs={made} faults={own} next={next} latest={run === latest}>
      {diagnosis && <Diagnosed diagnosis={diagnosis} />}
      {run === latest && !job.closedAt && view.spec && (
        <TryNext
          isSteady={latest?.verdict.grade === "steady"}
          onChanged={refresh}
          job={job}
          standing={standing}
          suggestions={suggestions}
          opening={opening}
          catalogue={view.catalogue}
          spec={view.spec}
        />
      )}
      {(run === latest || job.closedAt) && (
        <Profile
          onChanged={refresh}
          job={job}
          trials={trials}
          overrides={overrides}
          standing={standing}
          next={next}
          inForce={view.inForce}
          labelOf={labelOf}
        />
      )}
    </Reading>
  );
  return (
    <div className="grid h-full grid-cols-[260px_minmax(0,1fr)_300px] max-lg:grid-cols-1">
      {keys}
      <aside
        tabIndex={0}
        aria-label="The job's thread"
        className="min-h-0 overflow-auto border-r border-line max-lg:hidden"
      >
        {heading}
        {thread}
      </aside>
      <div tabIndex={0} role="region" aria-label="The run's trace" className="min-h-0 overflow-auto">
        <div className="flex gap-2 border-b border-line p-2 lg:hidden">
          <Button onClick={() => setDrawer("thread")}>Thread</Button>
          <Button onClick={() => setDrawer("reading")}>Reading</Button>
        </div>
        {notices}
        <TracePanel run={run} over={over} rules={job.rules.measuring} />
        {over && (
          <ComparePanel
            job={job}
            runs={made}
            run={run}
            over={over}
            noise={noise}
            measured={noiseMeasured}
            catalogue={view.catalogue}
          />
        )}
        <footer className="flex flex-wrap gap-1 border-t border-line px-3 py-2">
          <Button
            look="quiet"
            hint="O"
            onClick={() => layOver(over ? over.id : (runs[runs.indexOf(run) - 1]?.id ?? null))}
          >
            {over ? "Take B away" : "Lay the run before over it"}
          </Button>
          <Button look="quiet" hint="E" onClick={() => setNaming(true)}>
            Name
          </Button>
          <Button look="quiet" hint="G" onClick={() => setFaulting(true)}>
            Note a fault
          </Button>
          <Button look="quiet" hint="X" onClick={() => void leaveOut()}>
            Leave out
          </Button>
          <span className="ml-auto self-center text-[12px] text-soft">
            Shift-click a run in the thread to lay it over.
          </span>
        </footer>
      </div>
      <aside
        tabIndex={0}
        aria-label="The run's reading"
        className="min-h-0 overflow-auto border-l border-line max-lg:hidden"
      >
        {reading}
      </aside>
      <Sheet
        open={drawer === "thread"}
        onOpenChange={(open) => setDrawer(open ? "thread" : null)}
        title="Thread"
        side="left"
      >
        {heading}
        {thread}
      </Sheet>
      <Sheet
        open={drawer === "reading"}
        onOpenChange={(open) => setDrawer(open ? "reading" : null)}
        title="Reading"
        side="right"
      >
        {reading}
      </Sheet>
      <FaultSheet
        key={run.id}
        run={run}
        faults={own}
        scenes={view.scenes}
        open={faulting}
        onOpenChange={setFaulting}
        onChanged={refresh}
      />
      <Sheet open={naming} onOpenChange={setNaming} title={`Name run ${run.number}`}>
        <form
          className="flex items-end gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            void change(run.id, { label: String(new FormData(event.currentTarget).get("label")) }, run.version);
            setNaming(false);
          }}
        >
          <Field label="Name" className="flex-1">
            {(ids) => <Input {...ids} name="label" defaultValue={run.label} maxLength={120} autoFocus />}
          </Field>
          <Button type="submit" look="lit">
            Keep
          </Button>
        </form>
      </Sheet>
    </div>
  );
}
