import type { Suggestion } from "./shape";
import type { Diagnosis } from "@/core/diagnose";
import type { NewJob, Setting, SettingValue } from "@/core/kit";
import { said } from "./codes";
import type { Said } from "@/core/said";
import { believe, type Tried } from "./history";
import type { Belief } from "./shape";
import type { Lever } from "./shape";
import { likelyAfter, priorOf, reliefOf } from "./priors";
import { whatBefore } from "./setAside";
import { severalAtOnce } from "./together";

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

/** Failures in a row after which several changes are tried at once. */
const failuresForLot = 3;
/** Chance under which a single lever is no better than a lot. */
const poorChance = 0.25;
/** Chance under which a lever is known to be useless, and needs no trial before a job is given up. */
const useless = 0.01;

type Rated = Suggestion & { isTried: boolean };

/** Every lever that is wanted and not left alone, with what is believed of it; the best first. */
function rate(input: SuggestInput): Rated[] {
  const { levers, aim, steady, history, sceneMinutes, speedPercent, diagnosis } = input;
  const weights = costWeights[aim];
  const shortfall = shortfallOf(speedPercent);
  const likely = likelyAfter(diagnosis, history);
  const singles = levers.filter((lever) => isWanted(lever, input));
  const own = history.filter(({ elsewhere }) => !elsewhere);
  const rateOne = (lever: Lever, prior: { chance: number; logGain: number; because: Said | null }): Rated[] => {
    const { aside, since } = whatBefore(lever, history, diagnosis);
    if (aside) return [];
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
    return [
      {
        lever,
        belief,
        expected,
        minutes,
        // Restarts count, but half an hour for what closes the gap is better spent than ten minutes for what
        // can't.
        score: (60 * worth) / Math.max(8, minutes),
        sentence: sentenceFor(lever, belief, prior.because, since, input),
        cautions: lever.heats ? heatCautions : [],
        isTried: own.some(({ key, to }) => key === lever.key && to === lever.to),
      },
    ];
  };
  const best = (a: Rated, b: Rated) => b.score - a.score || a.lever.key.localeCompare(b.lever.key);
  const rated = singles
    .flatMap((lever) => rateOne(lever, priorOf(lever, { likely, pixelShare: input.pixelShare, shortfall })))
    .sort(best);
  if (steady || speedPercent >= fastEnough) return rated;
  const lots = severalAtOnce(singles, history)
    .flatMap((lot) => {
      const inside = rated.filter(({ lever }) => lot.parts?.some(({ key, to }) => isPart(lever, key, to)));
      const gain = inside.reduce(
        (sum, { belief, lever }) => sum + belief.chance * belief.logGain * (lever.steps ?? 1),
        0,
      );
      const none = inside.reduce((product, { belief }) => product * (1 - belief.chance), 1);
      return rateOne(lot, {
        chance: Math.max(leastChance, 1 - none),
        logGain: Math.max(0.05, gain),
        because: null,
      });
    })
    .sort(best);
  const lastHelp = own.findLastIndex(({ helped }) => helped);
  const isStuck = own.length - 1 - lastHelp >= failuresForLot;
  const isGood = ({ belief, isTried }: Rated) => !isTried && belief.chance >= poorChance;
  const good = isStuck ? [] : rated.filter(isGood);
  const rest = rated.filter((each) => !good.includes(each));
  // The first change is a single one: what it does is learnt of it alone.
  return own.length === 0 ? [...rated, ...lots] : [...good, ...lots, ...rest];
}

/** Whether a lever is a part of a lot: the same setting, on the way to the same value. */
const isPart = (lever: Lever, key: string, to: SettingValue) =>
  lever.key === key && (lever.to === to || lever.end === to);

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
 * title is short of its rate, costs only break ties. After three failures in a row, or where no single lever is
 * likely, everything at its fastest is tried at once; then what is left, however unlikely. Once a job is Steady
 * the same list turns round: for picture the levers that give quality back lead, for battery the lower power
 * modes, ranked by what they are believed to cost in rate.
 *
 * @returns at most `most`, the best first; none where nothing is left that isn't known to be useless
 */
export function suggest(input: SuggestInput, most = 3): Suggestion[] {
  return offered(rate(input), input)
    .slice(0, most)
    .map(({ isTried: _isTried, ...each }) => each);
}

/** What of all levers is worth a trial; where nothing is, what isn't known to be useless. */
function offered(rated: Rated[], { steady }: SuggestInput): Rated[] {
  const likely = steady ? rated : rated.filter(({ belief }) => belief.chance >= leastChance);
  return likely.length > 0 ? likely : rated.filter(({ belief }) => belief.chance >= useless);
}

/** Chance of reaching full speed under which a job is called unlikely to. */
const unlikelyFrom = 0.3;

/**
 * Whether the rate wanted can still be reached. It is said to be out of reach only where every change that isn't
 * known to be useless was tried in this job: each setting, everything at once, the other choices; until then it
 * may be unlikely, with the chance and what would tell.
 *
 * @param tied whether the title's speed is tied to its rate
 * @returns null where the rate is there, or may well be reached
 */
export function outlook(input: SuggestInput, tied: boolean): { isOut: boolean; sentence: Said } | null {
  const missing = shortfallOf(input.speedPercent);
  if (input.steady || missing < 0.01) return null;
  const rated = rate(input);
  const left = rated.filter(({ belief }) => belief.chance >= useless);
  const own = input.history.filter(({ elsewhere }) => !elsewhere);
  if (left.length === 0)
    return { isOut: true, sentence: said("next.outOfReach", { missing, trials: own.length, tied }) };
  const none = left.reduce(
    (product, { belief, lever }) =>
      product * (1 - belief.chance * Math.min(1, (belief.logGain * (lever.steps ?? 1)) / missing)),
    1,
  );
  if (1 - none >= unlikelyFrom) return null;
  const [first] = offered(rated, input);
  return {
    isOut: false,
    sentence: said("next.unlikely", {
      missing,
      chance: 1 - none,
      levers: left.length,
      suggestion: first?.sentence ?? null,
    }),
  };
}

/** The sentence that a job can't be brought to full speed; null until that is known. */
export function outOfReach(input: SuggestInput, tied: boolean): Said | null {
  const found = outlook(input, tied);
  return found?.isOut ? found.sentence : null;
}

function sentenceFor(
  { label, from, to, pixelRatio, relieves, parts }: Lever,
  { chance, logGain, tried, helped }: Belief,
  because: Said | null,
  since: string | null,
  { steady, aim, speedPercent, levers }: Pick<SuggestInput, "steady" | "aim" | "speedPercent" | "levers">,
): Said {
  const change = { label, from, to, pixelRatio, tried, helped };
  if (parts) return said("suggest.several", { parts: parts.map((part) => part.label), chance, tried, helped });
  const kept = since === null ? null : (levers.find(({ key }) => key === since)?.label ?? since);
  return steady
    ? said("suggest.room", { ...change, aim, speedPercent })
    : said("suggest.speed", {
        ...change,
        ...{ chance, logGain, because, since: kept, relieves: relieves.length > 0 },
      });
}
