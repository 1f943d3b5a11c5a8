"use client";
import dynamic from "next/dynamic";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { call } from "@/contract/client";
import type { SentBody, TrialView } from "@/contract";
import { armAt } from "@/core/trial";
import { words } from "@/core/words";
import { Button, EmptyPanel, Keys, Panel, say, toast, Link } from "@/ui";
import { TracePanel } from "@/views/job/TracePanel";
import { useDrops } from "@/views/drop";
import { useLive } from "@/views/live";
import { Arms } from "./Arms";
import { DecidePanel } from "./DecidePanel";
import { Deciding } from "./Deciding";
import { TrialEvidence } from "./evidence";
import { FirstVisits } from "./FirstVisits";
import { useReckoning } from "./useReckoning";

/** Loaded where runs name places. */
const RunsPanel = dynamic(async () => (await import("./RunsPanel")).RunsPanel);
const ByItself = dynamic(async () => (await import("./ByItself")).ByItself, { ssr: false });
const PlacesTable = dynamic(async () => (await import("./PlacesTable")).PlacesTable);

/** Whether the runs that are in decide every pair: then the rest of the plan can be left. */
const isClear = ({ outcome }: Pick<TrialView, "outcome">) =>
  outcome !== null &&
  outcome.pairs.length > 0 &&
  outcome.pairs.every(({ decision }) => decision !== "undecided");

/** One trial: its arms, what is still to run, what it comes to, and the decision. */
export function TrialPage(loaded: TrialView) {
  const { view, refresh } = useLive("viewTrial", loaded.trial.id, loaded);
  const { job, trial, runs, faults, drifted, visits, advice, missing, pending } = view;
  const router = useRouter();
  const [overlay, setOverlay] = useState(false);
  const reckoning = useReckoning(trial.id, pending, refresh);
  const back = `/jobs/${job.id}`;
  const next = trial.left[0] ?? null;
  const runPath = (arm: number) => `/jobs/${job.id}/runs/new?trial=${trial.id}&arm=${arm}`;
  useDrops(trial.decidedAt ? `${back}/runs/new` : runPath(next ?? 0));
  const change = async (body: SentBody<"changeTrial">) => {
    const sent = await call("changeTrial", { id: trial.id, body, saw: trial.version });
    if (!sent.ok) toast.error(sent.refusal.title, { description: sent.refusal.fix });
    refresh();
    return sent.ok;
  };
  const leaveOut = async () => {
    if (!(await change({ deleted: true }))) return;
    router.push(back);
    toast(`“${trial.name}” left out of the job, with its runs.`, {
      action: {
        label: "Undo",
        onClick: () =>
          void call("changeTrial", { id: trial.id, body: { deleted: false }, saw: trial.version + 1 }).then(
            () => router.push(`${back}/trials/${trial.id}`),
          ),
      },
      duration: 15_000,
    });
  };
  // Another level differs from the sweep's first in what is swept, and in nothing else.
  const addLevel = (level: number) =>
    change({
      arm: {
        ...trial.arms[0],
        name: `×${level}`,
        level,
        settings: trial.plan.keys.reduce((made, key) => ({ ...made, [key]: level }), armAt(trial, 0).settings),
      },
    });
  const more = () => void change({ rounds: trial.rounds + 1 });
  const newest = (arm: number) => runs.filter((run) => run.arm === arm && !run.crashed).at(-1) ?? null;
  const [first, other] = [newest(0), newest(advice?.arm ?? 1) ?? newest(1)];
  return (
    <div className="mx-auto grid max-w-7xl grid-cols-1 gap-4 p-4 lg:grid-cols-[minmax(0,1fr)_320px]">
      <Keys
        actions={[
          { keys: "escape", shown: "Esc", label: "back to the job", run: () => router.push(back) },
          ...(next !== null
            ? [{ keys: "n", shown: "N", label: "bring in the next run", run: () => router.push(runPath(next)) }]
            : []),
          ...(!trial.decidedAt ? [{ keys: "m", shown: "M", label: "plan one more round", run: more }] : []),
          ...(first && other && first !== other
            ? [
                {
                  keys: "o",
                  shown: "O",
                  label: "lay the arms' traces over one another",
                  run: () => setOverlay(!overlay),
                },
              ]
            : []),
        ]}
      />
      <div className="grid min-w-0 grid-cols-1 content-start gap-4">
        <header>
          <p className="text-[13px] text-soft">
            <Link href={back} className="underline decoration-line underline-offset-4">
              {job.title}
            </Link>
            , {job.engine} {job.build} on {job.rig}; trial {trial.number}, {view.kind.name.toLowerCase()}
            {trial.cold && ", first passes"}
          </p>
          <h1 className="text-2xl font-semibold">{trial.name}</h1>
        </header>
        {advice &&
          (trial.decidedAt || trial.left.length === 0 ? (
            <p className="text-[17px]" data-testid="advice">
              {words(advice.sentence)}
            </p>
          ) : view.kind.sweep ? (
            <p className="text-[17px]" data-testid="advice">
              So far, with {say.count(trial.left.length, "planned run")} to go: {words(advice.sentence)}
            </p>
          ) : isClear(view) ? (
            <p className="text-[17px]" data-testid="advice">
              You may stop early, though {say.count(trial.left.length, "planned run")}{" "}
              {trial.left.length === 1 ? "is" : "are"} left: every pair is decided already.{" "}
              {words(advice.sentence)}
            </p>
          ) : (
            <p className="text-soft" data-testid="advice-waits">
              {say.count(trial.left.length, "planned run")} to go; what to do is said when they are in, or as
              soon as every pair is clear.
            </p>
          ))}
        {view.decidedOnOther && trial.outcome && (
          <div role="alert" className="rounded-md border border-caution p-3 text-[13px]">
            <p className="font-semibold">Made on what has since been changed: look again.</p>
            <p className="mt-1">When it was decided: {words(trial.outcome.headline)}</p>
            <p>
              By its runs now:{" "}
              {view.decidedOnOther.now ? words(view.decidedOnOther.now) : "there is nothing to decide on."}
            </p>
          </div>
        )}
        {view.firstRun !== null && (
          <p className="text-[13px] text-soft">
            Run {view.firstRun}, made before it as things were, counts as the first of what is in force.
          </p>
        )}
        {drifted.length > 0 && (
          <ul className="list-disc rounded-md border border-caution p-2 pl-6 text-[13px]">
            {drifted.map((each) => (
              <li key={words(each)}>{words(each)}</li>
            ))}
          </ul>
        )}

        {pending !== null && (
          <div role="status" className="flex items-center gap-4 rounded-md border border-line p-3 text-soft">
            {reckoning.problem ?? "Comparing the arms’ runs …"}
            {reckoning.problem ? (
              <Button onClick={reckoning.again}>Compare again</Button>
            ) : (
              <div
                role="progressbar"
                aria-label="Comparing"
                className="h-1 flex-1 animate-pulse rounded bg-lit"
              />
            )}
          </div>
        )}
        {!advice && pending === null && runs.length > 0 && missing.length > 0 && (
          <ul
            aria-label="What is missing"
            className="list-disc rounded-md border border-line p-2 pl-6 text-soft"
          >
            {missing.map((each) => (
              <li key={words(each)}>{words(each)}</li>
            ))}
          </ul>
        )}
        <TrialEvidence view={view} onAdd={(level) => void addLevel(level)} />
        {view.places.length > 0 && <PlacesTable view={view} />}

        <Arms view={view} runPath={runPath} />
        {runs.length > 1 && <RunsPanel view={view} onChanged={refresh} />}
        {view.kind.warmOnly && visits.length > 0 && <FirstVisits view={view} />}
        {runs.length === 0 && (
          <EmptyPanel title="No run yet.">
            {view.kind.sweep
              ? "Run the levels in any order, over as many days as it takes; the fit follows."
              : "The arms are run in turns, so that warming up favours neither."}
          </EmptyPanel>
        )}
        {first && other && first !== other && (
          <section aria-label="Traces">
            <Button look="quiet" hint="O" onClick={() => setOverlay(!overlay)} aria-expanded={overlay}>
              {overlay ? "Put the traces away" : "Lay the traces over one another"}
            </Button>
            {overlay && (
              <div className="mt-2 rounded-md border border-line">
                <TracePanel run={first} over={other} rules={job.rules.measuring} />
              </div>
            )}
          </section>
        )}
      </div>
      <aside className="grid content-start gap-4">
        <DecidePanel
          view={view}
          onChanged={refresh}
          onLeaveOut={leaveOut}
          onMore={more}
          next={next === null ? null : { name: armAt(trial, next).name, path: runPath(next) }}
        />
        <Deciding view={view} />
        {faults.length > 0 && (
          <Panel title="Faults in these runs">
            <ul className="space-y-1.5 text-[13px]">
              {faults.map((fault) => (
                <li key={fault.id}>
                  <b>{fault.severity}</b>, {fault.kind}
                  {fault.scene && ` at ${fault.scene}`}: {fault.note || "no words"}{" "}
                  <span className="text-soft">
                    (run {runs.find(({ id }) => id === fault.runId)?.number},{" "}
                    {trial.arms[runs.find(({ id }) => id === fault.runId)?.arm ?? 0]?.name})
                  </span>
                </li>
              ))}
            </ul>
          </Panel>
        )}
        {!trial.decidedAt && <ByItself trialId={trial.id} />}
      </aside>
    </div>
  );
}
