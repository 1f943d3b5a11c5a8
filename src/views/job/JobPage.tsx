"use client";
import dynamic from "next/dynamic";
import { useRouter } from "next/navigation";
import { useState, type ReactNode } from "react";
import { labelsIn } from "@/core/kit";
import type { JobView, ThreadRun, SentBody } from "@/contract";
import { Button, EmptyPanel, KeyHint, Keys, Sheet, buttonLook, onceOpen, say, toast, Link } from "@/ui";
import { call } from "@/contract/client";
import { words } from "@/core/words";
import { useLive } from "@/views/live";
import { useDrops } from "@/views/drop";
import { entriesOf } from "./entries";
import { Diagnosed, useDiagnosis } from "./Diagnosed";
import { JobHeading } from "./JobHeading";
import { mainActionOf, newRunPath, openTrialOf } from "./mainAction";
import { Profile } from "./Profile";
import { ReadingPanel } from "./Reading";
import { Thread } from "./Thread";
import { TracePanel } from "./TracePanel";
import { useAddress } from "./useAddress";
import type { FirstTrace } from "./useTraces";
import { useTrying } from "./useTrying";
import { VerdictLamp } from "@/views/verdict/VerdictLamp";

const FaultSheet = onceOpen(async () => (await import("./FaultSheet")).FaultSheet);
const JobSheet = onceOpen(async () => (await import("./JobSheet")).JobSheet);
const RereadSheet = onceOpen(async () => (await import("@/views/run/RereadSheet")).RereadSheet);
const MoveRunsSheet = onceOpen(async () => (await import("./MoveRunsSheet")).MoveRunsSheet);
const RunSheet = onceOpen(async () => (await import("./RunSheet")).RunSheet);
/** A closed job has nothing to try. */
const TryNext = dynamic(async () => (await import("./TryNext")).TryNext);
const LeftOutList = dynamic(async () => (await import("./LeftOut")).LeftOutList);
const Notices = dynamic(async () => (await import("./Notices")).Notices);
const ComparePanel = dynamic(async () => (await import("@/views/compare/ComparePanel")).ComparePanel);

/** The heart: the thread at the left, the trace in the middle, the reading at the right. */
export function JobPage({ loaded, firstTrace }: { loaded: JobView; firstTrace: FirstTrace | null }) {
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
  const [editing, setEditing] = useState(false);
  const [rereading, setRereading] = useState(false);
  /** Runs that are said to be of something else; empty for the whole job, null while nobody says so. */
  const [moving, setMoving] = useState<string[] | null>(null);
  const [aboutJob, setAboutJob] = useState(false);
  const [closing, setClosing] = useState(false);
  const [faulting, setFaulting] = useState(false);
  const at = Math.max(
    0,
    runs.findIndex(({ id }) => id === params.get("run")),
  );
  const latest = made.at(-1);
  const run: ThreadRun | undefined = params.get("run") ? runs[at] : latest;
  const diagnosis = useDiagnosis(job.id, run?.id ?? null, view.diagnosis);
  const over = runs.find(({ id }) => id === params.get("over") && id !== run?.id) ?? null;
  const openTrial = openTrialOf(trials);
  const newRun = newRunPath(view);
  const trying = useTrying(view);
  const main = mainActionOf(view);
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
  const change = async (id: string, body: SentBody<"changeRun">, saw: number) => {
    const sent = await call("changeRun", { id, body, saw });
    if (!sent.ok) toast.error(sent.refusal.title, { description: sent.refusal.fix });
    refresh();
    return sent.ok;
  };
  const reopen = async () => {
    const sent = await call("reopenJob", { id: job.id, saw: job.version });
    if (!sent.ok) toast.error(sent.refusal.title, { description: sent.refusal.fix });
    refresh();
  };
  // What a closed job doesn't take is said at once, with the way to take it.
  const whileOpen = (run: () => void) => () =>
    job.closedAt
      ? toast("This job is closed.", { action: { label: "Open it again", onClick: () => void reopen() } })
      : run();
  const takeMain = () => {
    const [best] = suggestions;
    if (main.does === "try" && best) trying.tryOne(best);
    else if (main.does === "begin") trying.open();
    else if (main.does === "close") setClosing(true);
    else if (main.does === "reopen") void reopen();
    else if (main.path) router.push(main.path);
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
        { keys: "n", shown: "N", label: "bring in a run", run: whileOpen(() => router.push(newRun)) },
        { keys: "up", shown: "↑", label: "run before", run: () => step(-1) },
        { keys: "down", shown: "↓", label: "run after", run: () => step(1) },
        {
          keys: "o",
          shown: "O",
          label: "lay the run before over this one, or take it away",
          run: () => run && layOver(over ? null : (runs[runs.indexOf(run) - 1]?.id ?? null)),
        },
        {
          keys: "e",
          shown: "E",
          label: "edit what is said about this run",
          run: () => run && setEditing(true),
        },
        { keys: "j", shown: "J", label: "the job itself: copy, save, leave out", run: () => setAboutJob(true) },
        { keys: "x", shown: "X", label: "leave this run out", run: () => void leaveOut() },
        { keys: "g", shown: "G", label: "note a fault of this run", run: () => run && setFaulting(true) },
        {
          keys: "w",
          shown: "W",
          label: "plan a trial or sweep",
          run: whileOpen(() => router.push(`/jobs/${job.id}/trials/new`)),
        },
        ...(job.closedAt
          ? [
              {
                keys: "d",
                shown: "D",
                label: "close the job, once it is open again",
                run: whileOpen(() => {}),
              },
              {
                keys: "y",
                shown: "Y",
                label: "try what is offered, once it is open again",
                run: whileOpen(() => {}),
              },
            ]
          : []),
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
  const leftOut = view.leftOut.runs.length + view.leftOut.trials.length > 0 && (
    <LeftOutList leftOut={view.leftOut} onChanged={refresh} />
  );
  const heading = (short?: ReactNode) => (
    <JobHeading view={view} main={main} newRun={newRun} onMain={takeMain} onAbout={() => setAboutJob(true)}>
      {short}
    </JobHeading>
  );
  const sheet = (
    <JobSheet
      job={job}
      begun={trials.length > 0 || runs.some(({ trialId }) => trialId === null)}
      open={aboutJob}
      onOpenChange={setAboutJob}
      onChanged={refresh}
      onMove={() => {
        setAboutJob(false);
        setMoving([]);
      }}
    />
  );
  if (!run)
    return (
      <div className="p-6">
        {keys}
        {sheet}
        <h1 className="text-xl font-semibold">{job.title}</h1>
        <p className="mb-4 flex flex-wrap items-center gap-3 text-soft">
          {view.inForce.engine} {view.inForce.build} on {job.rig}, {job.system}
          <Button look="quiet" hint="J" onClick={() => setAboutJob(true)}>
            This job
          </Button>
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
        {leftOut}
      </div>
    );
  const isNoticed = !job.closedAt && (view.otherYardstick > 0 || view.otherOnBench !== null);
  const notices = isNoticed && <Notices view={view} onChanged={refresh} />;
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
    <ReadingPanel job={job} run={run} runs={made} faults={own} next={next} latest={run === latest}>
      {diagnosis && <Diagnosed diagnosis={diagnosis} />}
      {run === latest && !job.closedAt && view.spec && (
        <TryNext
          isSteady={latest?.verdict.grade === "steady"}
          settings={view.catalogue.length}
          decided={trials.filter(({ decidedAt }) => decidedAt).length}
          onChanged={refresh}
          job={job}
          suggestions={suggestions}
          opening={opening}
          trying={trying}
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
          closing={closing}
          onClosing={setClosing}
        />
      )}
    </ReadingPanel>
  );
  return (
    <div className="grid h-full grid-cols-[260px_minmax(0,1fr)_300px] min-[1700px]:grid-cols-[310px_minmax(0,1fr)_380px] max-xl:grid-cols-[minmax(0,1fr)_300px] max-lg:grid-cols-1 print:block print:h-auto">
      {keys}
      <aside
        tabIndex={0}
        aria-label="The job's thread"
        className="min-h-0 overflow-auto border-r border-line max-xl:hidden print:block print:overflow-visible print:border-0"
      >
        {heading()}
        {thread}
        {leftOut}
      </aside>
      <div
        tabIndex={0}
        role="region"
        aria-label="The run's trace"
        className="min-h-0 overflow-auto print:overflow-visible"
      >
        <div className="border-b border-line xl:hidden print:hidden">
          {heading(
            <div className="mt-2 flex items-center gap-4">
              <VerdictLamp grade={run.verdict.grade} between={run.verdict.between} size={34} large ran />
              <span className="figure whitespace-nowrap text-2xl">
                {say.number(run.summary.averageFps)}
                <span className="ml-1 text-[13px] text-soft">fps</span>
              </span>
            </div>,
          )}
          <div className="flex gap-2 px-3 pb-2">
            <Button className="min-h-11 flex-1" onClick={() => setDrawer("thread")}>
              Thread, {say.count(runs.length, "run")}
            </Button>
            <Button className="min-h-11 flex-1 lg:hidden" onClick={() => setDrawer("reading")}>
              Reading
            </Button>
          </div>
        </div>
        {notices}
        <TracePanel run={run} over={over} rules={job.rules.measuring} firstTrace={firstTrace} />
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
        <footer className="flex flex-wrap gap-1 border-t border-line px-3 py-2 print:hidden">
          <Button
            look="quiet"
            hint="O"
            onClick={() => layOver(over ? over.id : (runs[runs.indexOf(run) - 1]?.id ?? null))}
          >
            {over ? "Take B away" : "Lay the run before over it"}
          </Button>
          <Button look="quiet" hint="E" onClick={() => setEditing(true)}>
            Edit
          </Button>
          <Button look="quiet" hint="G" onClick={() => setFaulting(true)}>
            Note a fault
          </Button>
          <Button look="quiet" hint="X" onClick={() => void leaveOut()}>
            Leave out
          </Button>
          <a
            href={`/api/v1/runs/${run.id}/csv`}
            download
            className="inline-flex min-h-8 items-center rounded-md px-3 text-[13px] text-soft hover:bg-raised hover:text-text"
          >
            Save as CSV
          </a>
          <span className="ml-auto self-center text-[12px] text-soft pointer-coarse:hidden">
            Shift-click a run in the thread to lay it over.
          </span>
        </footer>
      </div>
      <aside
        tabIndex={0}
        aria-label="The run's reading"
        className="min-h-0 overflow-auto border-l border-line max-lg:hidden print:block print:overflow-visible print:border-0"
      >
        {reading}
      </aside>
      <Sheet
        open={drawer === "thread"}
        onOpenChange={(open) => setDrawer(open ? "thread" : null)}
        title="Thread"
        side="left"
      >
        {thread}
        {leftOut}
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
      <RunSheet
        key={`${run.id} ${run.version}`}
        run={run}
        job={job}
        trials={trials}
        spec={view.spec}
        scenes={view.scenes}
        open={editing}
        onOpenChange={setEditing}
        onChanged={refresh}
        onMove={() => {
          setEditing(false);
          setMoving([run.id]);
        }}
        onReread={() => {
          setEditing(false);
          setRereading(true);
        }}
      />
      <RereadSheet
        key={`again ${run.id}`}
        run={run}
        rules={job.rules}
        open={rereading}
        onOpenChange={setRereading}
        onRead={(id) => {
          select(id);
          refresh();
        }}
      />
      <MoveRunsSheet
        key={moving?.join(" ") ?? "shut"}
        job={job}
        runs={runs}
        scenes={view.scenes}
        ticked={moving ?? []}
        open={moving !== null}
        onOpenChange={(now) => setMoving(now ? [] : null)}
        onChanged={refresh}
      />
      {sheet}
    </div>
  );
}
