import type { Cause, Diagnosis } from "@/core/diagnose";
import type { NewJob, Setting } from "@/core/kit";
import { believe, type Belief, type Tried } from "./history";
import type { Lever } from "./levers";
import { said, type Said } from "@/core/words";

export interface Suggestion {
  lever: Lever;
  belief: Belief;
  /** Expected gain times its chance, as a log ratio of rates; below 0 where something is given up. */
  expected: number;
  minutes: number;
  score: number;
  /** Why, with figures. */
  sentence: Said;
  cautions: Said[];
}

export interface SuggestInput {
  levers: Lever[];
  diagnosis: Diagnosis | null;
  aim: NewJob["aim"];
  /** Speed now, %: of the target. */
  speedPercent: number;
  /** Whether the verdict is Steady: then picture or battery is what is left to win. */
  steady: boolean;
  history: Tried[];
  /** Minutes of one pass of the scene. */
  sceneMinutes: number;
  /** Frame time that goes with pixels, as a share; null where no sweep tells. */
  pixelShare?: number | null;
}

/** What relieves which cause. */
const reliefOf: Record<Cause, Setting["relieves"]> = {
  processor: ["processor"],
  graphics: ["graphics"],
  "power split": ["processor", "graphics"],
  governor: ["processor", "graphics"],
  heat: ["processor", "graphics"],
  memory: ["memory"],
  shaders: ["shaders"],
  storage: [],
  "cap or sync": ["sync", "sound"],
  "engine or driver": ["processor", "graphics", "sync"],
};

const restartMinutes = 2;
/** Runs that a change is tried with: two arms, two rounds. */
const runsNeeded = 4;
/** How much a point of cost weighs against log gain, by aim. */
const costWeights: Record<NewJob["aim"], Setting["costs"]> = {
  speed: { picture: 0.015, feel: 0.015, heat: 0.01, risk: 0.02 },
  picture: { picture: 0.05, feel: 0.02, heat: 0.01, risk: 0.02 },
  battery: { picture: 0.015, feel: 0.015, heat: 0.05, risk: 0.02 },
};

/** What the tags alone suggest: chance and log gain. */
function priorOf(
  lever: Lever,
  { diagnosis, pixelShare }: Pick<SuggestInput, "diagnosis" | "pixelShare">,
): { chance: number; logGain: number; because: Said | null } {
  const found = diagnosis?.causes ?? [];
  if (lever.kind === "power mode") {
    const split = found.find(({ cause }) => cause === "power split");
    if (split) return { chance: 0.55, logGain: 0.12, because: split.evidence[0].sign };
    return lever.heats
      ? { chance: 0.5, logGain: 0.12, because: null }
      : { chance: 0.1, logGain: 0.03, because: null };
  }
  if (lever.kind === "clocks") {
    const governor = found.find(({ cause }) => cause === "governor");
    return governor
      ? { chance: 0.8, logGain: 0.5, because: governor.evidence[0].sign }
      : { chance: 0.3, logGain: 0.1, because: null };
  }
  if (lever.kind === "cooler") {
    const heat = found.find(({ cause }) => cause === "heat");
    return heat
      ? { chance: 0.75, logGain: 0.15, because: heat.evidence[0].sign }
      : { chance: 0.05, logGain: 0.02, because: null };
  }
  const cause = found.find((each) => reliefOf[each.cause].some((relief) => lever.relieves.includes(relief)));
  const first = cause !== undefined && cause === found[0];
  if (cause && lever.pixelRatio !== null && lever.pixelRatio < 1) {
    // Fewer pixels: the share of the frame that goes with them shrinks in proportion.
    const share = pixelShare ?? (cause.cause === "graphics" ? 0.7 : 0.3);
    return {
      chance: first ? 0.75 : 0.35,
      logGain: -Math.log(1 - share * (1 - lever.pixelRatio)),
      because: cause.evidence[0].sign,
    };
  }
  if (cause) return { chance: first ? 0.45 : 0.25, logGain: 0.1, because: cause.evidence[0].sign };
  // No evidence yet: any lever is a guess; against the evidence it hardly ever helps.
  return found.length === 0
    ? { chance: 0.2, logGain: 0.08, because: null }
    : { chance: 0.06, logGain: 0.03, because: null };
}

export const heatCautions = [said("caution.heat"), said("caution.limit")];

/**
 * The levers ranked: expected gain times chance, less the cost weighed by the aim, for the minutes it takes.
 *
 * Once a job is Steady the same list turns round: for picture the levers that give quality back lead, for battery the
 * lower power modes, ranked by what they are believed to cost in rate.
 *
 * @returns at most `most`, the best first
 */
export function suggest(input: SuggestInput, most = 3): Suggestion[] {
  const { levers, aim, steady, history, sceneMinutes, speedPercent } = input;
  const weights = costWeights[aim];
  const wanted = levers.filter(({ towards }) =>
    steady
      ? aim === "picture"
        ? towards === "picture"
        : aim === "battery" && towards === "battery"
      : towards === "speed" ||
        (towards === "battery" && input.diagnosis?.causes.some(({ cause }) => cause === "power split")),
  );
  const rated = wanted.map((lever): Suggestion => {
    const { because, ...prior } = priorOf(lever, input);
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
      : expected - cost;
    return {
      lever,
      belief,
      expected,
      minutes,
      score: (60 * worth) / Math.max(4, minutes),
      sentence: sentenceFor(lever, belief, because, { steady, aim, speedPercent }),
      cautions: lever.heats ? heatCautions : [],
    };
  });
  return rated.sort((a, b) => b.score - a.score || a.lever.key.localeCompare(b.lever.key)).slice(0, most);
}

function sentenceFor(
  { label, from, to, pixelRatio }: Lever,
  { chance, logGain, tried, helped }: Belief,
  because: Said | null,
  { steady, aim, speedPercent }: Pick<SuggestInput, "steady" | "aim" | "speedPercent">,
): Said {
  const change = { label, from, to, pixelRatio, tried, helped };
  return steady
    ? said("suggest.room", { ...change, aim, speedPercent })
    : said("suggest.speed", { ...change, chance, logGain, because });
}
