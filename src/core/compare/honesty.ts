import { seeded, type Random } from "@/core/stats";
import type { FrameTrace } from "@/core/trace";
import { compare, type CompareOptions } from "./compare";
import { runOrder } from "./order";

/** A known truth to hold the comparison against. */
export interface Truth {
  repeats: number;
  /** True ratio of average fps, B over A. */
  ratio: number;
  runsPerSide: number;
  /** SD of log fps from run to run. */
  spread: number;
  /** Share by which the rig has slowed down by the end of the afternoon. */
  drift: number;
  rounds: boolean;
  framesPerRun: number;
  resamples: number;
  seed: number;
}

export interface Honesty {
  /** Share of intervals that hold the truth. */
  covered: number;
  better: number;
  worse: number;
  noDifference: number;
  undecided: number;
}

/** One run of autocorrelated frames: log frame time is an AR(1) series of SD 0.08 and coefficient 0.6 about its mean. */
function syntheticRun(random: Random, meanMs: number, frames: number): FrameTrace {
  const sd = 0.08,
    memory = 0.6;
  let state = random.normal();
  const frameTimes = new Float64Array(frames);
  for (let i = 0; i < frames; i++) {
    state = memory * state + Math.sqrt(1 - memory ** 2) * random.normal();
    // The mean of a lognormal is exp(σ²/2) above its middle.
    frameTimes[i] = meanMs * Math.exp(sd * state - (sd * sd) / 2);
  }
  return { form: "frames", frameTimes, channels: [], marks: [] };
}

/** How often the comparison is right, over seeded synthetic afternoons with a known truth. */
export function honesty({
  repeats,
  ratio,
  runsPerSide,
  spread,
  drift,
  rounds,
  framesPerRun,
  resamples,
  seed,
}: Truth): Honesty {
  const counted = { covered: 0, better: 0, worse: 0, "no difference": 0, undecided: 0 };
  const order = runOrder(runsPerSide);
  for (let repeat = 0; repeat < repeats; repeat++) {
    const random = seeded(seed + repeat);
    const arms: Record<"A" | "B", FrameTrace[]> = { A: [], B: [] };
    order.forEach((arm, k) => {
      const slowed = 1 + drift * (k / (order.length - 1));
      const meanMs = ((20 * slowed) / (arm === "B" ? ratio : 1)) * Math.exp(spread * random.normal());
      arms[arm].push(syntheticRun(random, meanMs, framesPerRun));
    });
    const options: CompareOptions = { targetFps: 60, rounds, seed: seed + repeat, resamples };
    const { averageFps, decision } = compare(arms.A, arms.B, options);
    if (averageFps.low <= ratio && averageFps.high >= ratio) counted.covered++;
    counted[decision]++;
  }
  const share = (n: number) => n / repeats;
  return {
    covered: share(counted.covered),
    better: share(counted.better),
    worse: share(counted.worse),
    noDifference: share(counted["no difference"]),
    undecided: share(counted.undecided),
  };
}
