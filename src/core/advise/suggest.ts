import type { Suggestion } from "./shape";
import type { Diagnosis } from "@/core/diagnose";
import type { NewJob, Setting } from "@/core/kit";
import { said } from "./codes";
import type { Said } from "@/core/said";
import { believe, type Tried } from "./history";
import type { Belief } from "./shape";
import type { Lever } from "./shape";
import { likelyAfter, priorOf, reliefOf } from "./priors";
import { whatBefore } from "./setAside";

export interface SuggestInput {
  levers: Lever[];
  diagnosis: Diagnosis | null;
  aim: NewJob["aim"];
  /** Speed now, %: of the target. */
  speedPercent: number;
  /** Whether the verdict is Steady: then picture or battery is what is left to win. */
  steady: boolean;
  /** Decided trials in their order; those of other jobs are marked. */
  history: Tried[];
  /** Minutes of one pass of the scene. */
  sceneMinutes: number;
  /** Frame time that goes with pixels, as a share; null where no sweep tells. */
  pixelShare?: number | null;
}

const restartMinutes = 2;
/** Runs that a change is tried with: two arms, two rounds. */
const runsNeeded = 4;
/** How much a point of cost weighs against log gain, by aim. */
const costWeights: Record<NewJob["aim"], Setting["costs"]> = {
  speed: { picture: 0.015, feel: 0.015, heat: 0.01, risk: 0.02 },
  picture: { picture: 0.05, feel: 0.02, heat: 0.01, risk: 0.02 },
  battery: { picture: 0.015, feel: 0.015, heat: 0.05, risk: 0.02 },
};
/** While a title is short of its rate, what a lever costs only breaks ties. */
const costWhileShort = 0.25;
/** Levers that help less often than this aren't worth a trial. */
const leastChance = 0.06;
/** From this speed on nothing that could only make it faster is offered, %. */
const fastEnough = 99.5;

/** Log ratio between the rate wanted and the rate there is. */
const shortfallOf = (speedPercent: number) => Math.max(0, Math.log(100 / Math.max(1, speedPercent)));

/**
 * Whether a lever can win what is wanted: the rate where it is short; else what makes it hitch; else picture or
 * battery.
 */
function isWanted(lever: Lever, { steady, aim, speedPercent, diagnosis }: SuggestInput): boolean {
  const { towards, relieves } = lever;
  if (steady) return aim === "picture" ? towards === "picture" : aim === "battery" && towards === "battery";
  const named = diagnosis?.causes ?? [];
  if (speedPercent >= fastEnough) {
    const slow = ["processor", "graphics", "power split", "governor", "heat"];
    const hitching = named.filter(({ cause }) => !slow.includes(cause));
    return (
      towards === "speed" &&
      !lever.lifts &&
      hitching.some(({ cause }) => reliefOf[cause].some((relief) => relieves.includes(relief)))
    );
  }
  return towards === "speed" || (towards === "battery" && named.some(({ cause }) => cause === "power split"));
}

/** Every lever that is wanted and not left alone, with what is believed of it. */
function rate(input: SuggestInput): Suggestion[] {
  const { levers, aim, steady, history, sceneMinutes, speedPercent, diagnosis } = input;
  const weights = costWeights[aim];
  const shortfall = shortfallOf(speedPercent);
  const likely = likelyAfter(diagnosis, history);
  return levers
    .filter((lever) => isWanted(lever, input))
    .map((lever) => ({ lever, ...whatBefore(lever, history, diagnosis) }))
    .filter(({ aside }) => !aside)
    .map(({ lever, since }) => {
      const { because, ...prior } = priorOf(lever, { likely, pixelShare: input.pixelShare, shortfall });
      const belief = believe(lever, prior, history);
      const cost = (Object.keys(weights) as (keyof typeof weights)[]).reduce(
        (sum, key) => sum + weights[key] * lever.costs[key],
        0,
      );
      const minutes = Math.ceil(runsNeeded * (sceneMinutes + (lever.restart ? restartMinutes : 0)));
      // Steady already: what is won is the picture or the watts, what is risked is the rate.
      const expected = steady
        ? -(lever.pixelRatio !== null && lever.pixelRatio > 1 ? 0.1 * Math.log(lever.pixelRatio) : 0.02)
        : belief.chance * belief.logGain;
      const worth = steady
        ? 0.1 + 0.02 * (aim === "picture" ? lever.costs.picture : 2) + expected
        : belief.chance * closes(belief.logGain, shortfall) - costWhileShort * cost;
      return {
        lever,
        belief,
        expected,
        minutes,
        // Restarts count, but half an hour for what closes the gap is better spent than ten minutes for what
        // can't.
        score: (60 * worth) / Math.max(8, minutes),
        sentence: sentenceFor(lever, belief, because, since, input),
        cautions: lever.heats ? heatCautions : [],
      };
    })
    .filter(({ belief }) => steady || belief.chance >= leastChance)
    .sort((a, b) => b.score - a.score || a.lever.key.localeCompare(b.lever.key));
}

/**
 * Share of the shortfall that a gain closes; closing most of it is worth more than its parts, for every further
 * lever takes its own trial.
 */
const closes = (logGain: number, shortfall: number) =>
  Math.min(1, Math.max(0, logGain) / Math.max(0.01, shortfall)) ** 1.25;

export const heatCautions = [said("caution.heat"), said("caution.limit")];

/**
 * The levers ranked: by the share of what is missing that each is expected to close, for the minutes it takes.
 *
 * A lever that this job tried without effect is left alone until something it depends on has changed. While the
 * title is short of its rate, costs only break ties. Once a job is Steady the same list turns round: for
 * picture the levers that give quality back lead, for battery the lower power modes, ranked by what they are
 * believed to cost in rate.
 *
 * @returns at most `most`, the best first; none where nothing that is left is likely to help
 */
export const suggest = (input: SuggestInput, most = 3): Suggestion[] => rate(input).slice(0, most);

/** What is left may turn out so much better than expected. */
const hopeful = 2;

/**
 * Whether what is left can reach the rate wanted, taking all of it at twice what is expected of it; and if not,
 * the honest ends.
 * @param tied whether the title's speed hangs on its rate
 * @returns null where the rate is there, or may be reached
 */
export function outOfReach(input: SuggestInput, tied: boolean): Said | null {
  const missing = shortfallOf(input.speedPercent);
  if (input.steady || missing < 0.01) return null;
  const best = new Map<string, number>();
  for (const { lever, belief } of rate(input)) {
    const reach = hopeful * belief.chance * belief.logGain * (lever.steps ?? 1);
    best.set(lever.key, Math.max(best.get(lever.key) ?? 0, reach));
  }
  const left = [...best.values()].reduce((sum, gain) => sum + gain, 0);
  return left >= missing ? null : said("next.outOfReach", { left, missing, levers: best.size, tied });
}

function sentenceFor(
  { label, from, to, pixelRatio, relieves }: Lever,
  { chance, logGain, tried, helped }: Belief,
  because: Said | null,
  since: string | null,
  { steady, aim, speedPercent, levers }: Pick<SuggestInput, "steady" | "aim" | "speedPercent" | "levers">,
): Said {
  const change = { label, from, to, pixelRatio, tried, helped };
  const kept = since === null ? null : (levers.find(({ key }) => key === since)?.label ?? since);
  return steady
    ? said("suggest.room", { ...change, aim, speedPercent })
    : said("suggest.speed", {
        ...change,
        ...{ chance, logGain, because, since: kept, relieves: relieves.length > 0 },
      });
}
