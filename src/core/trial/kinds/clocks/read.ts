import type { SoakRow, ClocksReading } from "./shape";
import { effectiveFps } from "@/core/compare";
import { outweighs } from "@/core/kit";
import { burstAndSustained, chooseSchool, ladder, ladderStep, throttling } from "@/core/sweep";
import { said } from "../../codes";
import { targetFpsOf, type TrialFacts, type Traces } from "../../facts";
import { meanOf } from "../../sweeping";

/** Soak at a step where the plan doesn't say, minutes. */
export const usualSoakMinutes = 10;

export function read(facts: TrialFacts, traces: Traces): ClocksReading | null {
  const { trial, runs, rig, nativeFps } = facts;
  if (runs.length === 0) return null;
  const limitC = rig.spec.temperatureLimitC;
  const rows: SoakRow[] = [];
  const soaks = runs.map((run) => {
    const trace = traces.get(run.id);
    const soak = {
      step: run.arm,
      minutes: run.summary.durationMs / 60_000,
      crashed: run.crashed,
      artefacts: run.faults.some(outweighs),
      hottestC: run.summary.channels.temperature?.max ?? null,
      throttled: trace ? throttling(trace.channels, limitC).length > 0 : false,
    };
    rows.push({
      arm: run.arm,
      minutes: soak.minutes,
      fps: (trace && burstAndSustained(trace)?.sustained) ?? effectiveFps(run.summary, nativeFps),
      hottestC: soak.hottestC,
      watts: run.summary.channels.watts?.mean ?? null,
      fault: ladderStep(soak, limitC),
    });
    return soak;
  });
  const soakMinutes = trial.plan.soakMinutes ?? usualSoakMinutes;
  const state = ladder({ steps: trial.arms.map(({ name }) => name), soakMinutes, limitC }, soaks);
  const schools = trial.arms.flatMap(({ name }, arm) => {
    const own = rows.filter((row) => row.arm === arm && row.fault === null);
    const sustainedFps = meanOf(own.map(({ fps }) => fps));
    if (sustainedFps === null) return [];
    const hottestC = meanOf(own.flatMap((row) => row.hottestC ?? []));
    return [{ name, sustainedFps, hottestC, watts: meanOf(own.flatMap((row) => row.watts ?? [])) }];
  });
  const school = schools.length > 1 ? chooseSchool(schools, targetFpsOf(facts), limitC) : null;
  const isUnlogged = runs.some(({ summary }) => summary.channels.temperature === undefined);
  return {
    kind: "clocks",
    state,
    rows,
    school,
    sentence: said("clocks.found", { next: state.next.sentence, school: school?.sentence ?? null }),
    missing: isUnlogged ? [said("clocks.noTemperature")] : [],
    arm: school
      ? trial.arms.findIndex(({ name }) => name === school.name)
      : state.next.kind === "done"
        ? state.lastClean
        : null,
  };
}
