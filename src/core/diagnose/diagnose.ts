import type { Summary } from "@/core/metrics";
import { said, type Said } from "@/core/words";
import { causes, type Cause, type Evidence } from "./causes";
import {
  graphicsLoad,
  hitchEvidence,
  isHitchy,
  isSlow,
  processorLoad,
  runEvidence,
  slowEvidence,
  type Limits,
} from "./evidence";
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

export interface FoundCause {
  cause: Cause;
  /** How much the evidence comes to; over 1.5 it is named. */
  weight: number;
  evidence: Evidence[];
}

export interface Diagnosis {
  /** Named causes, the strongest first; empty when nothing holds it back or evidence lacks. */
  causes: FoundCause[];
  /** Stretches with their own cause, where they have one. */
  segments: {
    label: string;
    startMs: number;
    endMs: number;
    cause: Cause | null;
    state: "full speed" | "slow" | "hitches";
  }[];
  /** What it comes to, with figures. */
  sentence: Said;
  /** What would settle it; null when it is settled. */
  settle: Said | null;
  /** Share of the frame that goes with pixels, where scales were tried. */
  pixelShare: number | null;
}

/** Evidence below this names no cause. */
const named = 1.5;
/** A second cause is named when it comes to this share of the first. */
const second = 0.55;

/**
 * What holds a run back: signs of every stretch and of the run, weighed by cause.
 *
 * More than one cause may hold in different parts of a run, so stretches are diagnosed by themselves; the run's causes
 * are the stretches' evidence, each weighed by its time, with what the whole run and its neighbours show.
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
  const slow = segments.filter((segment) => isSlow(segment, summary, targetFps));
  const hitchy = segments.filter((segment) => !slow.includes(segment) && isHitchy(segment));
  const slowMs = slow.reduce((sum, { startMs, endMs }) => sum + endMs - startMs, 0);
  const whole = runEvidence(summary, crashed, limits);
  const hitches = hitchEvidence(segments, cacheState);

  const gathered: Evidence[] = [];
  for (const segment of slow) {
    const share = (segment.endMs - segment.startMs) / slowMs;
    for (const sign of slowEvidence(segment, limits)) gathered.push({ ...sign, weight: sign.weight * share });
  }
  const isShort =
    slow.length > 0 ||
    (segments.length === 0 && (summary.reportedSpeedPercent ?? (100 * summary.averageFps) / targetFps) < 97);
  if (isShort) gathered.push(...responses);
  const lostShare = segments.reduce((sum, { lostMs }) => sum + lostMs, 0) / summary.durationMs;
  if (hitchy.length > 0 || lostShare > 0.004) gathered.push(...hitches);
  gathered.push(...whole.filter(({ cause }) => isShort || cause === "memory"));

  const found = causes
    .map((cause) => {
      const evidence = merged(gathered.filter((sign) => sign.cause === cause));
      return { cause, weight: evidence.reduce((sum, { weight }) => sum + weight, 0), evidence };
    })
    .filter(({ weight }) => weight >= named)
    .sort((a, b) => b.weight - a.weight);
  const strongestWeight = found[0]?.weight ?? 0;
  const kept = found.filter(({ weight }) => weight >= second * strongestWeight);

  const own = segments.map((segment) => {
    const isOwnSlow = slow.includes(segment),
      isOwnHitchy = hitchy.includes(segment);
    const signs = isOwnSlow ? [...slowEvidence(segment, limits), ...responses] : isOwnHitchy ? hitches : [];
    const best = causes
      .map((cause) => ({
        cause,
        weight: signs.filter((sign) => sign.cause === cause).reduce((sum, { weight }) => sum + weight, 0),
      }))
      .reduce((a, b) => (b.weight > a.weight ? b : a));
    return {
      label: segment.label,
      startMs: segment.startMs,
      endMs: segment.endMs,
      cause: best.weight >= named ? best.cause : null,
      state: isOwnSlow ? ("slow" as const) : isOwnHitchy ? ("hitches" as const) : ("full speed" as const),
    };
  });
  const troubled = isShort || hitchy.length > 0 || crashed || kept.length > 0;
  return {
    causes: kept,
    segments: own,
    pixelShare: scale && pixelShareOf(scale),
    ...conclusion(kept, troubled, summary, cacheState, scale !== null, hitchy.length > 0 && !isShort),
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
  troubled: boolean,
  summary: Summary,
  cacheState: DiagnoseInput["cacheState"],
  scaled: boolean,
  onlyHitches: boolean,
): Pick<Diagnosis, "sentence" | "settle"> {
  const [first, other] = found;
  const strongest = first?.evidence.find(({ weight }) => weight > 0) ?? first?.evidence[0];
  const settle = () => settling(summary, cacheState, scaled, onlyHitches);
  if (first && strongest) {
    return {
      sentence: said("diagnosis.found", {
        first: first.cause,
        because: strongest.sign,
        second: other?.cause ?? null,
        secondBecause: other?.evidence[0]?.sign ?? null,
      }),
      settle: other && other.weight > 0.8 * first.weight ? settle() : null,
    };
  }
  return troubled
    ? { sentence: said("diagnosis.notEnough"), settle: settle() }
    : { sentence: said("diagnosis.nothing"), settle: null };
}

/** What to do next when evidence lacks. */
function settling(
  summary: Summary,
  cacheState: DiagnoseInput["cacheState"],
  scaled: boolean,
  onlyHitches: boolean,
): Said {
  if (summary.form === "interval") return said("settle.logFrames");
  if (onlyHitches)
    return cacheState === "unknown" || !summary.segments.some(({ visit }) => visit > 1)
      ? said("settle.walkTwice")
      : said("settle.logLoadRepeat");
  const measured =
    summary.segments.some((segment) => processorLoad(segment) !== null) &&
    summary.segments.some((segment) => graphicsLoad(segment) !== null);
  if (!measured) return scaled ? said("settle.logLoad") : said("settle.halfScaleOrLoad");
  return scaled ? said("settle.liftCap") : said("settle.halfScale");
}
