import type { FoundCause, Diagnosis } from "./shape";
import type { Summary } from "@/core/metrics";
import { said } from "./codes";
import type { Said } from "@/core/said";
import type { Evidence } from "./shape";
import { causes, type Cause } from "./causes";
import type { Limits } from "./clocks";
import { graphicsLoad, isSlow, processorLoad, runEvidence, slowEvidence, soFar } from "./evidence";
import { hitchEvidence, isHitchy } from "./hitches";
import {
  conditionEvidence,
  pixelShareOf,
  scaleEvidence,
  type ConditionResponse,
  type ScaleResponse,
} from "./responses";

export interface DiagnoseInput {
  summary: Summary;
  cacheState: "warm" | "cold" | "unknown";
  crashed: boolean;
  limits: Limits;
  /** From other runs of the job, where there are any. */
  scale?: ScaleResponse | null;
  conditions?: ConditionResponse[];
}

/** Chance from which a cause is named first, and from which a second is named beside it. */
const namedFrom = 0.5,
  secondFrom = 0.2;

/**
 * Weights as chances: a cause's odds go with e^(steepness · weight), against all the others and against what no
 * sign names. Steepness and the weight of the unnamed were set by hand on made-up devices of other seeds than
 * those scored (docs/method.md, "What holds it back").
 */
const steepness = 1.5,
  unnamed = 1;

/**
 * Chance of every cause, given what its evidence comes to; what is missing from 1 is something that no sign
 * names.
 */
export function chancesOf(weighed: number[]): number[] {
  const odds = weighed.map((weight) => (weight > 0 ? Math.exp(steepness * weight) : 0));
  const all = odds.reduce((sum, each) => sum + each, Math.exp(steepness * unnamed));
  return odds.map((each) => each / all);
}

/**
 * What holds a run back: signs of every stretch and of the run, weighed by cause.
 *
 * More than one cause may hold in different parts of a run, so stretches are diagnosed by themselves; the run's
 * causes are the stretches' evidence, each weighed by its time, with what the whole run and its neighbours
 * show.
 */
export function diagnose({
  summary,
  cacheState,
  crashed,
  limits,
  scale = null,
  conditions = [],
}: DiagnoseInput): Diagnosis {
  const { segments, targetFps } = summary;
  const responses = [...(scale ? scaleEvidence(scale) : []), ...conditions.flatMap(conditionEvidence)];
  const run = soFar(summary);
  const slow = segments.filter((segment) => isSlow(segment, summary, targetFps));
  const hitchy = segments.filter((segment) => !slow.includes(segment) && isHitchy(segment));
  const slowMs = slow.reduce((sum, { startMs, endMs }) => sum + endMs - startMs, 0);
  const whole = runEvidence(summary, crashed, limits);
  const hitches = hitchEvidence(segments, cacheState);

  const gathered: Evidence[] = [];
  for (const segment of slow) {
    const share = (segment.endMs - segment.startMs) / slowMs;
    for (const sign of slowEvidence(segment, limits, run, targetFps))
      gathered.push({ ...sign, weight: sign.weight * share });
  }
  const isShort = slow.length > 0 || (segments.length === 0 && speedOf(summary) < shortUnder);
  if (isShort) gathered.push(...responses);
  const lostShare = segments.reduce((sum, { lostMs }) => sum + lostMs, 0) / summary.durationMs;
  if (hitchy.length > 0 || lostShare > 0.004) gathered.push(...hitches);
  gathered.push(...whole.filter(({ cause }) => isShort || cause === "memory"));

  const weighed = causes.map((cause) => {
    const evidence = merged(gathered.filter((sign) => sign.cause === cause));
    return { cause, weight: evidence.reduce((sum, { weight }) => sum + weight, 0), evidence };
  });
  const chances = chancesOf(weighed.map(({ weight }) => weight));
  const likely = weighed
    .map((each, at): FoundCause => ({ ...each, chance: chances[at] ?? 0 }))
    .filter(({ weight }) => weight > 0)
    .sort((a, b) => b.chance - a.chance);
  const [strongest] = likely;
  const kept =
    strongest && strongest.chance >= namedFrom ? likely.filter(({ chance }) => chance >= secondFrom) : [];

  const own = segments.map((segment) => {
    const isOwnSlow = slow.includes(segment),
      isOwnHitchy = hitchy.includes(segment);
    const signs = isOwnSlow
      ? [...slowEvidence(segment, limits, run, targetFps), ...responses]
      : isOwnHitchy
        ? hitches
        : [];
    const ownWeights = causes.map((cause) =>
      signs.filter((sign) => sign.cause === cause).reduce((sum, { weight }) => sum + weight, 0),
    );
    const best = chancesOf(ownWeights)
      .map((chance, at) => ({ cause: causes[at] ?? null, chance }))
      .reduce((a, b) => (b.chance > a.chance ? b : a));
    return {
      label: segment.label,
      startMs: segment.startMs,
      endMs: segment.endMs,
      cause: best.chance >= namedFrom ? best.cause : null,
      state: isOwnSlow ? ("slow" as const) : isOwnHitchy ? ("hitches" as const) : ("full speed" as const),
    };
  });
  const troubled = isShort || hitchy.length > 0 || crashed || kept.length > 0;
  return {
    causes: kept,
    segments: own,
    pixelShare: scale && pixelShareOf(scale),
    likely,
    ...conclusion(kept, likely, troubled, summary, cacheState, scale !== null, hitchy.length > 0 && !isShort),
  };
}

/** The same sign from several stretches is one; its figures are those of the strongest. */
function merged(signs: Evidence[]): Evidence[] {
  const byCode = new Map<string, Evidence>();
  for (const each of signs) {
    const held = byCode.get(each.sign.code);
    const strongest = held && held.weight >= each.weight ? held : each;
    byCode.set(each.sign.code, { ...strongest, weight: (held?.weight ?? 0) + each.weight });
  }
  return [...byCode.values()].sort((a, b) => b.weight - a.weight);
}

function conclusion(
  found: FoundCause[],
  likely: FoundCause[],
  troubled: boolean,
  summary: Summary,
  cacheState: DiagnoseInput["cacheState"],
  scaled: boolean,
  onlyHitches: boolean,
): Pick<Diagnosis, "sentence" | "settle"> {
  const [first, other] = found;
  const strongest = first?.evidence.find(({ weight }) => weight > 0) ?? first?.evidence[0];
  const settle = () => settling(likely, summary, cacheState, scaled, onlyHitches);
  if (first && strongest) {
    return {
      sentence: said("diagnosis.found", {
        first: first.cause,
        chance: first.chance,
        because: strongest.sign,
        second: other?.cause ?? null,
        secondBecause: other?.evidence[0]?.sign ?? null,
      }),
      settle: first.chance < surely ? settle() : null,
    };
  }
  if (troubled) return { sentence: said("diagnosis.notEnough"), settle: settle() };
  const speedPercent = speedOf(summary);
  const atSpeed = summary.reportedSpeedPercent === null ? summary.fullSpeedTimePercent : null;
  return speedPercent < fullSpeedFrom || (atSpeed !== null && atSpeed < fullSpeedFrom)
    ? { sentence: said("diagnosis.hardly", { speedPercent, fullSpeedTimePercent: atSpeed }), settle: null }
    : { sentence: said("diagnosis.nothing"), settle: null };
}

/** Speed of a run, % of its target: by the engine's own report where there is one. */
const speedOf = ({ reportedSpeedPercent, averageFps, targetFps }: Summary) =>
  reportedSpeedPercent ?? (100 * averageFps) / targetFps;

/** Speed, and share of the time at it, from which a run may be said to be at full speed throughout, %. */
const fullSpeedFrom = 99;
/** Speed under which a run of no stretches is short of it, %. */
const shortUnder = 97;

/** Chance under which it is said what would settle it. */
const surely = 0.8;

/** What would tell the likeliest causes apart. */
function telling(likely: FoundCause[], { channels }: Summary): Said | null {
  const isAmong = (...wanted: Cause[]) =>
    likely.slice(0, 2).some(({ cause, chance }) => chance > 0.1 && wanted.includes(cause));
  if (isAmong("cap or sync")) return said("settle.liftCap");
  if (isAmong("processor") && isAmong("engine or driver")) return said("settle.busiestThread");
  const lacking = clockColumns.filter((role) => !channels[role]);
  if (isAmong("heat", "governor", "power split") && lacking.length > 0)
    return said("settle.logColumns", { columns: lacking });
  if (isAmong("heat") && isAmong("governor")) return said("settle.runCool");
  return null;
}

/** What tells heat, budget and governor apart. */
const clockColumns = ["cpuClock", "gpuClock", "watts", "temperature"] as const;

/** What to do next when evidence lacks. */
function settling(
  likely: FoundCause[],
  summary: Summary,
  cacheState: DiagnoseInput["cacheState"],
  scaled: boolean,
  onlyHitches: boolean,
): Said {
  const apart = telling(likely, summary);
  if (apart && !onlyHitches) return apart;
  if (onlyHitches)
    return cacheState === "unknown" || !summary.segments.some(({ visit }) => visit > 1)
      ? said("settle.walkTwice")
      : said("settle.logLoadRepeat");
  const measured =
    summary.segments.some((segment) => processorLoad(segment) !== null) &&
    summary.segments.some((segment) => graphicsLoad(segment) !== null);
  if (!measured && summary.form === "interval") return said("settle.readLoads");
  if (!measured) return scaled ? said("settle.logLoad") : said("settle.halfScaleOrLoad");
  return scaled ? said("settle.liftCap") : said("settle.halfScale");
}
