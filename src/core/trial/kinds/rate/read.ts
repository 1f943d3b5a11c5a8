import type { RateReading } from "./shape";
import { decideRate, overdriveByScene, recommendedArm } from "@/core/advise";
import { settingFor } from "@/core/kit";
import { said } from "../../codes";
import type { TrialFacts, TrialRun, Traces } from "../../facts";
import type { Planned } from "../../shape";
import type { ArmRole } from "../../armRoles";

/** From this share of frames on one cadence a run looks capped, whatever its arm says. */
const looksCapped = 0.97;

/** The newest run of an arm with some role. */
export const newestOf = (trial: Pick<Planned, "arms">, runs: TrialRun[], role: ArmRole) =>
  runs.filter(({ arm }) => trial.arms[arm]?.role === role).at(-1) ?? null;

/** The newest run behind each cap: they tell how the engine works. */
export const cappedRuns = (trial: Pick<Planned, "arms">, runs: TrialRun[]): TrialRun[] =>
  trial.arms.flatMap(({ role }, at) =>
    role === "capped" ? (runs.filter(({ arm }) => arm === at).at(-1) ?? []) : [],
  );

/** Which rate to lock, from the newest uncapped run; null until there is one. */
export function read(facts: TrialFacts, traces: Traces): RateReading | null {
  const { trial, runs, nativeFps, tied, patches, catalogue } = facts;
  const free = newestOf(trial, runs, "free");
  const trace = free && traces.get(free.id);
  if (!free || !trace) return null;
  const decision = decideRate(trace, {
    nativeFps,
    tied,
    refreshHz: free.yardstick.refreshHz,
    patches,
    limiterCountsDouble: settingFor(catalogue, "limiter")?.countsDouble ?? false,
    rules: free.rules.measuring,
    runSpread: facts.noise.sd,
    capped: cappedRuns(trial, runs).flatMap(({ id, arm }) => {
      const seen = traces.get(id);
      const capFps = trial.arms[arm]?.level;
      return seen?.form === "frames" && capFps ? [{ capFps, frameTimes: seen.frameTimes }] : [];
    }),
  });
  const driven = newestOf(trial, runs, "overdriven");
  const { pacing } = free.summary;
  const isCapped = pacing !== null && pacing.cadenceShare > looksCapped && pacing.cadence > 0;
  return {
    kind: "rate",
    decision,
    sentence: decision.sentence,
    arm: recommendedArm(decision, trial.arms),
    missing: isCapped ? [said("rate.capped")] : [],
    overdriven: driven ? overdriveByScene(free.summary.segments, driven.summary.segments, nativeFps) : [],
  };
}
