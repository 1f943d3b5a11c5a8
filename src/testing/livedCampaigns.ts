import { compareArms, type NoiseFloor } from "@/core/compare";
import { seeded, type Random } from "@/core/stats";
import type { Trace } from "@/core/trace";
import { answerCampaign } from "@/core/campaign/answer";
import type { CampaignFacts, CampaignPair, CampaignRun } from "@/core/campaign/shape";

/** A campaign with a known truth, to hold the rule against. */
export interface CampaignTruth {
  titles: number;
  arms: number;
  rounds: number;
  extraRounds: number;
  /** SD of log fps from run to run. */
  spread: number;
  noise: NoiseFloor;
  /** True rate of the last arm over the others, and at how many of the titles; elsewhere all are alike. */
  ratio: number;
  differsIn: number;
  /** Whether settled titles are left, as the rule says, or every planned run is made. */
  sequential: boolean;
  seed: number;
}

export interface LivedCampaign {
  /** A winner, or an arm beaten, where all are alike. */
  falseWinner: boolean;
  /** Titles that differ, whose better arm was found the winner. */
  found: number;
  /** Titles called no different though they aren't. */
  missed: number;
  runs: number;
  planned: number;
}

const baseMs = 20,
  frames = 250,
  resamples = 12;

function runOf(random: Random, ratio: number, spread: number): Trace {
  const level = (baseMs / ratio) * Math.exp(spread * random.normal());
  return {
    form: "frames",
    frameTimes: Float64Array.from({ length: frames }, () => level * Math.exp(0.05 * random.normal())),
    channels: [],
    marks: [],
  };
}

function pairsOf(arms: Trace[][], noise: NoiseFloor): CampaignPair[] {
  const { pairs } = compareArms(arms, { nativeFps: 1000 / baseMs, targetFps: 1000 / baseMs, noise, resamples });
  return pairs.map(({ a, b, p, decision, comparison }) => ({
    ...{ a, b, p, decision },
    ...comparison.averageFps,
    moreRunsPerSide: comparison.moreRunsPerSide,
    chanceSettled: comparison.chanceSettled,
  }));
}

/**
 * Lives through one campaign by the rule: runs round by round where a title isn't settled, extra rounds of the
 * time given away.
 */
export function liveCampaign(truth: CampaignTruth): LivedCampaign {
  const {
    titles: count,
    arms: armCount,
    rounds,
    extraRounds,
    spread,
    noise,
    ratio,
    differsIn,
    sequential,
  } = truth;
  const random = seeded(truth.seed);
  const traces = Array.from({ length: count }, () => Array.from({ length: armCount }, (): Trace[] => []));
  const facts: CampaignFacts = {
    question: "which is best",
    arms: Array.from({ length: armCount }, (_, k) => ({ name: `arm ${k}`, rigId: "rig" })),
    rounds,
    extraRounds,
    titles: traces.map((_, at) => ({
      titleId: String(at),
      name: `title ${at}`,
      extra: 0,
      cells: Array.from({ length: armCount }, () => ({ runs: [], notes: [], lacks: [] })),
      pairs: [],
    })),
  };
  const run: Omit<CampaignRun, "id" | "averageFps"> = {
    jobId: "",
    number: 1,
    grade: "dims",
    crashed: false,
    faults: [],
    durationMs: 1,
    between: null,
    places: null,
  };
  let runs = 0,
    spared = 0;
  for (let round = 1; round <= rounds + extraRounds; round++) {
    const settled = answerCampaign(facts).titles;
    facts.titles.forEach((title, at) => {
      const isDone = sequential && settled[at]?.settled === true;
      if (isDone && round <= rounds) spared += armCount;
      if (isDone || (round > rounds && (!sequential || spared < armCount))) return;
      if (round > rounds) {
        spared -= armCount;
        title.extra++;
      }
      traces[at]?.forEach((own, arm) => {
        const true_ = arm === armCount - 1 && at < differsIn ? ratio : 1;
        own.push(runOf(random, true_, spread));
        title.cells[arm]?.runs.push({ ...run, id: String(runs++), averageFps: 50 * true_ });
      });
      title.pairs = pairsOf(traces[at] ?? [], noise);
    });
  }
  const { titles } = answerCampaign(facts);
  const called = titles.map(({ pairs }) =>
    pairs.some(({ decision }) => decision === "better" || decision === "worse"),
  );
  return {
    falseWinner: called.some((is, at) => is && at >= differsIn),
    found: titles.filter(
      ({ outcome, best }, at) => at < differsIn && outcome === "winner" && best[0] === armCount - 1,
    ).length,
    missed: titles.filter(({ outcome }, at) => at < differsIn && outcome === "tie").length,
    runs,
    planned: count * armCount * rounds,
  };
}
