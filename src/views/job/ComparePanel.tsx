"use client";
import { useEffect, useState } from "react";
import type { Comparison } from "@/core/compare";
import { changesBetween } from "@/core/kit";
import type { JobRow, ThreadRun } from "@/core/records";
import { Button, say } from "@/ui";
import { callback, startComparer, type ComparedRuns } from "@/workers";

/** Warm, whole runs with the settings of one: the arm it stands for. */
export const armOf = (runs: ThreadRun[], like: ThreadRun) => runs.filter((run) => changesBetween(run.settings, like.settings).length === 0 && run.cacheState === like.cacheState && !run.crashed);

const signed = (value: number, digits = 1) => `${value < 0 ? "−" : "+"}${Math.abs(value).toFixed(digits)}`;
const percent = (ratio: number) => `${signed(100 * (ratio - 1))} %`;
const verdictOf: Record<Comparison["decision"], string> = { better: "Better", worse: "Worse", "no difference": "No difference", undecided: "Undecided" };

/** Was it real: all runs with the settings of A against all with those of B, with intervals, worked out in a worker. */
export function ComparePanel({ job, runs, run, over }: { job: JobRow; runs: ThreadRun[]; run: ThreadRun; over: ThreadRun }) {
  const [state, setState] = useState<{ share: number } | { made: ComparedRuns } | { problem: string } | null>(null);
  const [on, setOn] = useState(true);
  const armNew = armOf(runs, run), armOld = armOf(runs, over);
  const same = changesBetween(over.settings, run.settings).length === 0;
  const key = [armOld, armNew].map((arm) => arm.map(({ id }) => id).join(" ")).join("|");
  useEffect(() => {
    if (same || !on) {
      setState(null);
      return;
    }
    const worker = startComparer();
    let current = true;
    setState({ share: 0 });
    const groups = runs.filter((each) => !each.crashed && each.cacheState !== "cold").reduce((held, each) => {
      const group = held.find(([first]) => changesBetween(first.settings, each.settings).length === 0);
      if (group) group.push(each);
      else held.push([each]);
      return held;
    }, [] as ThreadRun[][]);
    const rate = ({ summary }: ThreadRun) => summary.reportedSpeedPercent ?? summary.averageFps;
    worker.call.compare(armOld.map(({ id }) => id), armNew.map(({ id }) => id), run.yardstick, job.rules.measuring, job.rules.marginPercent, groups.map((group) => group.map(rate)), callback((share: number) => current && setState({ share }))).then(
      (made) => current && setState({ made }),
      (error: Error) => current && setState({ problem: error.message }),
    );
    return () => {
      current = false;
      worker.end();
    };
    // The arms are what is compared; a new array of the same runs asks nothing new.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key, same, on]);

  const changes = changesBetween(over.settings, run.settings).map(({ key: name, from, to }) => `${name} ${String(from)} → ${String(to)}`).join(", ");
  if (same) return null;
  return (
    <section aria-label="Comparison" className="mx-3 mb-3 rounded-md bg-panel p-3">
      <header className="flex items-baseline gap-3 text-[13px]">
        <h2 className="font-semibold">Was it real?</h2>
        <span className="truncate text-soft">{changes}; {say.count(armNew.length, "run")} against {say.count(armOld.length, "run")}</span>
      </header>
      {state && "share" in state && (
        <div role="status" className="mt-2 flex items-center gap-3"><progress value={state.share} max={1} aria-label="Comparing" className="h-2 flex-1 accent-(--lit)" /><Button look="quiet" onClick={() => setOn(false)}>Stop</Button></div>
      )}
      {!on && <Button className="mt-2" onClick={() => setOn(true)}>Compare</Button>}
      {state && "problem" in state && <p role="alert" className="mt-2">{state.problem}</p>}
      {state && "made" in state && <Outcome {...state.made} marginPercent={job.rules.marginPercent} />}
    </section>
  );
}

function Outcome({ comparison, by, floor, marginPercent }: ComparedRuns & { marginPercent: number }) {
  const { averageFps, worstTimeLow, fullSpeedTime, hitchesPerMinute, decision, moreRunsPerSide, notes } = comparison;
  const row = (name: string, text: string) => <div className="contents"><dt className="text-soft">{name}</dt><dd className="figure">{text}</dd></div>;
  return (
    <div className="mt-2 text-[13px]">
      <p className="text-[16px] font-semibold">{verdictOf[decision]}{decision === "undecided" && <span className="ml-2 text-[13px] font-normal">about {say.count(moreRunsPerSide, "more run")} a side should settle it</span>}</p>
      <IntervalLine effect={averageFps} marginPercent={marginPercent} />
      <dl className="mt-2 grid grid-cols-[auto_1fr] gap-x-4 gap-y-1">
        {row(by === "frames" ? "Average fps" : "Speed by the engine's report", `${percent(averageFps.ratio)}, 95 % ${percent(averageFps.low)} to ${percent(averageFps.high)}`)}
        {worstTimeLow && row("1 % low, worst time", `${percent(worstTimeLow.ratio)}, 95 % ${percent(worstTimeLow.low)} to ${percent(worstTimeLow.high)}`)}
        {fullSpeedTime && row("Full-speed time", `${signed(fullSpeedTime.difference)} points, 95 % ${signed(fullSpeedTime.low)} to ${signed(fullSpeedTime.high)}`)}
        {hitchesPerMinute && row("Hitches", `${signed(hitchesPerMinute.difference)} /min, 95 % ${signed(hitchesPerMinute.low)} to ${signed(hitchesPerMinute.high)}`)}
      </dl>
      <ul className="mt-2 list-disc pl-4 text-[12px] text-soft">
        <li>{floor ? `Noise floor from this job's repeats: ${(100 * floor.sd).toFixed(1)} % over ${say.count(floor.freedom, "degree")} of freedom.` : "Too few repeats for a noise floor of its own: 2 % is assumed."}</li>
        {notes.map((note) => <li key={note}>{note}</li>)}
      </ul>
    </div>
  );
}

/** The interval against the practical margin: inside the dotted marks a difference isn't worth having. */
function IntervalLine({ effect, marginPercent }: { effect: Comparison["averageFps"]; marginPercent: number }) {
  const most = Math.max(2.5 * marginPercent, ...[effect.low, effect.high].map((ratio) => 115 * Math.abs(ratio - 1)));
  const x = (value: number) => 150 + (150 * value) / most;
  const [low, at, high] = [effect.low, effect.ratio, effect.high].map((ratio) => x(100 * (ratio - 1)));
  return (
    <svg viewBox="0 0 300 34" className="mt-1 w-full max-w-lg" role="img" aria-label={`${percent(effect.low)} to ${percent(effect.high)}, margin ${marginPercent} %`}>
      <line x1="0" x2="300" y1="14" y2="14" stroke="var(--line)" />
      <line x1="150" x2="150" y1="5" y2="23" stroke="var(--edge)" />
      {[-1, 1].map((side) => <line key={side} x1={x(side * marginPercent)} x2={x(side * marginPercent)} y1="5" y2="23" stroke="var(--edge)" strokeDasharray="2 2" />)}
      <line x1={low} x2={high} y1="14" y2="14" stroke="var(--series-a)" strokeWidth="4" strokeLinecap="round" />
      <circle cx={at} cy="14" r="4.5" fill="var(--text)" />
      <text x="150" y="32" textAnchor="middle" fontSize="8" fill="var(--soft)">0</text>
      <text x={x(marginPercent)} y="32" textAnchor="middle" fontSize="8" fill="var(--soft)">+{marginPercent} %</text>
      <text x={x(-marginPercent)} y="32" textAnchor="middle" fontSize="8" fill="var(--soft)">−{marginPercent} %</text>
    </svg>
  );
}
