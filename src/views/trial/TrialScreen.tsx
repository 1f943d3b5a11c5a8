"use client";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { toast } from "sonner";
import {
  adviseComparison,
  keepOrPutBack,
  pairEffects,
  recommendedArm,
  type Advice,
  type ArmEvidence,
} from "@/core/advise";
import { givesRounds } from "@/core/compare";
import { changesBetween, isSweep } from "@/core/kit";
import { grades, targetOf } from "@/core/verdict";
import type { ThreadRun, TrialView } from "@/core/records";
import { Button, EmptyPanel, Keys, Panel, say } from "@/ui";
import { EffectList, IntervalLine, Working, decisionNames, noiseWords, useComparison } from "@/views/compare";
import { TracePanel } from "@/views/job/TracePanel";
import { send } from "@/views/send";
import { VerdictLamp } from "@/views/verdict/VerdictLamp";
import { DecidePanel } from "./DecidePanel";
import { FitPanel, RatePanel } from "./FitPanel";
import { ScreeningPanel } from "./ScreeningPanel";
import { kindWords } from "./plans";

/** Runs that count towards a comparison. */
const usable = ({ trial, runs }: Pick<TrialView, "trial" | "runs">) =>
  runs.filter((run) => !run.crashed && (trial.kind !== "compare" || trial.cold || !run.cold));
const faulted = (run: ThreadRun, faults: TrialView["faults"]) =>
  run.crashed ||
  faults.some(({ runId, severity }) => runId === run.id && (severity === "severe" || severity === "blocking"));

/** One trial: its arms, what is still to run, what it comes to, and the decision. */
export function TrialScreen(view: TrialView) {
  const { job, trial, runs, faults, noise, noiseMeasured, drifted, fit, rate, effects, passes } = view;
  const router = useRouter();
  const [overlay, setOverlay] = useState(false);
  const back = `/jobs/${job.id}`;
  const counted = usable(view);
  const byArm = trial.arms.map((_, arm) => counted.filter((run) => run.arm === arm));
  const comparing = trial.kind === "compare" && byArm.every((own) => own.length > 0);
  const { state, stop, start, stopped } = useComparison(
    comparing ? byArm.map((own) => own.map(({ id }) => id)) : null,
    {
      yardstick: runs[0]?.yardstick ?? {
        nativeFps: job.nativeFps,
        tied: job.tied,
        targetFps: targetOf(job),
        refreshHz: 60,
      },
      rules: job.rules.measuring,
      marginPercent: job.rules.marginPercent,
      noise,
      rounds: givesRounds(
        counted.map(({ arm }) => arm!),
        trial.arms.length,
      ),
    },
  );
  const evidence: ArmEvidence[] = trial.arms.map(({ name }, arm) => ({
    name,
    runs: byArm[arm].length,
    grades: byArm[arm].map(({ verdict }) => verdict.grade),
    crashes: 0,
    hours: 0,
    faulted: runs.some((run) => run.arm === arm && faulted(run, faults)),
  }));
  const pairs = trial.outcome?.pairs.length
    ? trial.outcome.pairs
    : state.step === "made"
      ? pairEffects(state.outcome)
      : [];
  let advice: Advice | null = trial.outcome?.advice ?? null;
  if (!advice && state.step === "made")
    advice = adviseComparison({ pairs, best: state.outcome.best }, evidence);
  if (!advice && fit && runs.length > 0) advice = keepOrPutBack(fit.arm, fit.sentence);
  if (!advice && rate) advice = keepOrPutBack(recommendedArm(rate, trial.arms), rate.sentence);
  const next = trial.left[0] ?? null;
  const runPath = (arm: number) => `/jobs/${job.id}/runs/new?trial=${trial.id}&arm=${arm}`;
  const change = async (body: unknown) => {
    const sent = await send("PATCH", `trials/${trial.id}`, body);
    if (!sent.ok) toast.error(sent.refusal.title, { description: sent.refusal.fix });
    router.refresh();
    return sent.ok;
  };
  const leaveOut = async () => {
    if (!(await change({ deleted: true }))) return;
    router.push(back);
    toast(`“${trial.name}” left out of the job, with its runs.`, {
      action: {
        label: "Undo",
        onClick: () =>
          void send("PATCH", `trials/${trial.id}`, { deleted: false }).then(() =>
            router.push(`${back}/trials/${trial.id}`),
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
        settings: trial.plan.keys.reduce((made, key) => ({ ...made, [key]: level }), trial.arms[0].settings),
      },
    });
  const more = () => void change({ rounds: trial.rounds + 1 });
  const [first, other] = [byArm[0]?.at(-1), byArm[advice?.arm ?? 1]?.at(-1) ?? byArm[1]?.at(-1)];
  return (
    <div className="mx-auto grid max-w-7xl gap-4 p-4 lg:grid-cols-[minmax(0,1fr)_320px]">
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
      <div className="grid min-w-0 content-start gap-4">
        <header>
          <p className="text-[13px] text-soft">
            <Link href={back} className="underline decoration-line underline-offset-4">
              {job.title}
            </Link>
            , {job.engine} {job.version} on {job.rig}; trial {trial.number},{" "}
            {kindWords[trial.kind].name.toLowerCase()}
            {trial.cold && ", first passes"}
          </p>
          <h1 className="text-2xl font-semibold">{trial.name}</h1>
        </header>
        {advice && (
          <p className="text-[17px]" data-testid="advice">
            {advice.sentence}
          </p>
        )}
        {drifted.length > 0 && (
          <ul className="list-disc rounded-md border border-caution p-2 pl-6 text-[13px]">
            {drifted.map((words) => (
              <li key={words}>{words}</li>
            ))}
          </ul>
        )}

        {trial.kind === "compare" && !trial.outcome && state.step === "working" && (
          <Working share={state.share} onStop={stop} />
        )}
        {stopped && <Button onClick={start}>Compare</Button>}
        {state.step === "failed" && (
          <p role="alert" className="rounded-md border border-caution p-3">
            {state.problem}
          </p>
        )}
        {pairs.length > 0 && (
          <Panel
            title="Was it real?"
            aside={<span className="text-[12px] text-soft">{noiseWords(noise, noiseMeasured)}</span>}
          >
            <div className="grid gap-4">
              {pairs.map((pair) => (
                <section
                  key={`${pair.a} ${pair.b}`}
                  aria-label={`${trial.arms[pair.b].name} over ${trial.arms[pair.a].name}`}
                >
                  <p className="text-[14px]">
                    <b>{decisionNames[pair.decision]}</b>: {trial.arms[pair.b].name} over{" "}
                    {trial.arms[pair.a].name}
                    {pair.decision === "undecided" && pair.moreRunsPerSide > 0 && (
                      <span className="text-soft">
                        ;{" "}
                        {pair.moreRunsPerSide >= 40
                          ? "even 40 more runs a side would hardly settle it"
                          : `about ${say.count(pair.moreRunsPerSide, "more run")} a side should settle it`}
                      </span>
                    )}
                  </p>
                  <IntervalLine effect={pair} marginPercent={job.rules.marginPercent} />
                  {pairs.length === 1 && (
                    <div className="mt-1 text-[13px]">
                      <EffectList effect={pair} />
                    </div>
                  )}
                </section>
              ))}
            </div>
            <ul className="mt-2 list-disc pl-4 text-[12px] text-soft">
              {(
                trial.outcome?.notes ??
                (state.step === "made"
                  ? [...state.outcome.notes, ...state.outcome.pairs[0].comparison.notes]
                  : [])
              ).map((note) => (
                <li key={note}>{note}</li>
              ))}
            </ul>
          </Panel>
        )}
        {fit && <FitPanel fit={fit} view={view} onAdd={(level) => void addLevel(level)} />}
        {rate && <RatePanel rate={rate} view={view} />}
        {trial.kind === "screen" && (
          <ScreeningPanel effects={effects} trial={trial} marginPercent={job.rules.marginPercent} />
        )}

        <Arms view={view} runPath={runPath} />
        {trial.kind === "compare" && passes.length > 0 && <Passes view={view} />}
        {runs.length === 0 && (
          <EmptyPanel title="No run yet.">
            {isSweep(trial.kind)
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
          advice={advice}
          onLeaveOut={leaveOut}
          onMore={more}
          next={next === null ? null : { name: trial.arms[next].name, path: runPath(next) }}
        />
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
      </aside>
    </div>
  );
}

/** The arms with what they changed and what their runs measured. */
function Arms({ view: { trial, runs, job }, runPath }: { view: TrialView; runPath: (arm: number) => string }) {
  const mean = (list: (number | null | undefined)[]) => {
    const values = list.filter((value): value is number => value !== null && value !== undefined);
    return values.length > 0 ? values.reduce((a, b) => a + b) / values.length : null;
  };
  const bySpeed = runs.some(({ summary }) => summary.reportedSpeedPercent !== null);
  return (
    <Panel title="Arms">
      <div className="overflow-x-auto">
        <table aria-label="Arms" className="w-full text-left text-[13px]">
          <thead className="text-[12px] text-soft">
            <tr>
              {[
                "Arm",
                "Changes",
                "Runs",
                bySpeed ? "Speed" : "Average",
                "1 % low",
                "Full-speed time",
                "Hitches",
                "Power",
                "Lights",
              ].map((head) => (
                <th key={head} className="px-2 py-1 font-normal">
                  {head}
                </th>
              ))}
            </tr>
          </thead>
          <tbody className="divide-y divide-line">
            {trial.arms.map((arm, index) => {
              const own = runs.filter((run) => run.arm === index);
              const changes = [
                ...changesBetween(trial.before.settings, arm.settings).map(
                  ({ key, to }) => `${key} ${to === true ? "on" : to === false ? "off" : String(to)}`,
                ),
                ...Object.entries(arm.conditions).map(
                  ([key, to]) =>
                    `${key === "powerMode" ? "mode" : key} ${to === true ? "on" : to === false ? "off" : String(to)}`,
                ),
              ];
              return (
                <tr key={arm.name} className={trial.keptArm === index ? "bg-raised" : undefined}>
                  <td className="px-2 py-1.5">
                    {trial.decidedAt ? (
                      arm.name
                    ) : (
                      <Link href={runPath(index)} className="underline decoration-line underline-offset-4">
                        {arm.name}
                      </Link>
                    )}
                    {trial.keptArm === index && <b className="ml-2 text-lit">kept</b>}
                  </td>
                  <td className="max-w-56 truncate px-2 text-soft" title={changes.join("; ")}>
                    {changes.join("; ") ||
                      (arm.buildId && arm.buildId !== job.buildId ? "another engine or build" : "as it was")}
                  </td>
                  <td className="figure px-2">
                    {trial.runs[index]}
                    {!trial.decidedAt && ` of ${trial.rounds}`}
                  </td>
                  <td className="figure px-2">
                    {bySpeed
                      ? `${say.number(mean(own.map(({ summary }) => summary.reportedSpeedPercent)))} %`
                      : `${say.number(mean(own.map(({ summary }) => summary.averageFps)))} fps`}
                  </td>
                  <td className="figure px-2">
                    {say.number(mean(own.map(({ summary }) => summary.lows?.[job.rules.lowMethod].one)))}
                  </td>
                  <td className="figure px-2">
                    {say.number(mean(own.map(({ summary }) => summary.fullSpeedTimePercent)))} %
                  </td>
                  <td className="figure px-2">
                    {say.number(mean(own.map(({ summary }) => summary.hitches?.perMinute)))} /min
                  </td>
                  <td className="figure px-2">
                    {say.number(mean(own.map(({ summary }) => summary.channels.watts?.mean)))} W
                  </td>
                  <td className="px-2">
                    <span className="flex flex-wrap gap-x-3">
                      {grades.flatMap((grade) => {
                        const shown = own.filter((run) => run.verdict.grade === grade);
                        return shown.length === 0
                          ? []
                          : [
                              <Link
                                key={grade}
                                href={`/jobs/${job.id}?run=${shown[0].id}`}
                                className="inline-flex items-center gap-1 whitespace-nowrap"
                                title={`runs ${shown.map(({ number }) => number).join(", ")}`}
                              >
                                <VerdictLamp grade={grade} size={15} />
                                {shown.length > 1 && (
                                  <span className="figure text-[12px] text-soft">×{shown.length}</span>
                                )}
                              </Link>,
                            ];
                      })}
                    </span>
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
    </Panel>
  );
}

/** Cold and warm side by side: what first visits lost against later ones. */
function Passes({ view: { passes, trial, job } }: { view: TrialView }) {
  const most = Math.max(1, ...passes.map(({ firstLostMs, laterLostMs }) => Math.max(firstLostMs, laterLostMs)));
  const bar = (ms: number, colour: string) => (
    <span className="flex items-center gap-2">
      <span
        className="h-2 rounded-sm"
        style={{ width: `${Math.max(1, (130 * ms) / most)}px`, background: colour }}
      />
      <span className="figure text-[12px]">{ms.toFixed(0)} ms</span>
    </span>
  );
  return (
    <Panel
      title="First visits and later ones"
      aside={<span className="text-[12px] text-soft">lost to hitches, mean of a scene</span>}
    >
      <table aria-label="First and later visits" className="w-full text-left text-[13px]">
        <thead className="text-[12px] text-soft">
          <tr>
            {["Run", "Arm", "First visit", "Later visits"].map((head) => (
              <th key={head} className="px-2 py-1 font-normal">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody className="divide-y divide-line">
          {passes.map(({ runId, number, arm, firstLostMs, laterLostMs }) => (
            <tr key={runId}>
              <td className="px-2 py-1">
                <Link href={`/jobs/${job.id}?run=${runId}`} className="underline decoration-line">
                  {number}
                </Link>
              </td>
              <td className="px-2">{trial.arms[arm].name}</td>
              <td className="px-2">{bar(firstLostMs, "var(--series-b)")}</td>
              <td className="px-2">{bar(laterLostMs, "var(--series-a)")}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Panel>
  );
}
