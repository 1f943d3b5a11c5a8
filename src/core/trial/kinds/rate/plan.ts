import { limiterValueFor } from "@/core/advise";
import { settingFor } from "@/core/kit";
import { makeArm, type Draft, type PlanBase } from "../../drafting";
import { emptyPlan } from "../../shapes";
import type { Arm } from "../../shapesSchema";

/** Nothing below this is offered, fps; and no more arms than these. */
const leastCap = 15,
  mostRates = 6;
/** What an emulated clock is overdriven to, as a share of its default (common practice). */
const overdrive = 1.3;

/** The uncapped run that decides, and a capped arm for every rate that could be locked. */
export function ratePlan(
  { standing, catalogue, job }: Pick<PlanBase, "standing" | "catalogue" | "job">,
  overdriven: boolean,
): Draft {
  const limiter = settingFor(catalogue, "limiter"),
    hold = settingFor(catalogue, "hold rate"),
    clock = settingFor(catalogue, "emulated clock");
  const lift = {
    ...standing.settings,
    ...(limiter ? { [limiter.key]: limiter.min ?? 0 } : {}),
    ...(hold ? { [hold.key]: false } : {}),
  };
  const arms: Arm[] = [makeArm("free", "free", lift)];
  for (let k = 1; limiter && job.nativeFps / k >= leastCap && arms.length < mostRates; k++) {
    const level = job.nativeFps / k;
    if (job.tied && k > 1) break;
    const value = limiterValueFor(Math.round(level), limiter.countsDouble);
    if (limiter.max !== null && value > limiter.max) continue;
    const name = `${Number.isInteger(level) ? level : level.toFixed(2)} fps`;
    arms.push(makeArm(name, "capped", { ...standing.settings, [limiter.key]: value }, { level }));
  }
  if (overdriven && clock) {
    const to = Math.min(clock.max ?? Infinity, Math.round(Number(clock.default) * overdrive));
    arms.push(makeArm("overdriven", "overdriven", { ...lift, [clock.key]: to }));
  }
  return {
    kind: "rate",
    name: "Which rate to lock",
    rounds: 1,
    cold: false,
    plan: { ...emptyPlan, keys: limiter ? [limiter.key] : [] },
    arms,
  };
}
