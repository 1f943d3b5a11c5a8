import type { SceneLight, RuleName, Reason, Verdict } from "./shape";
import { leastOfReadings, type Summary } from "@/core/metrics";
import { said } from "./codes";
import type { Said } from "@/core/said";
import type { Severity } from "@/core/kit";
import { grades, type Grade } from "./grades";
import { lendingDesk } from "./rules";
import type { HouseRules } from "./rulesSchema";

/** Whether a place holds: full speed, or full speed on average. A few looks that weren't slow hold too. */
export const holds = ({ grade }: Pick<SceneLight, "grade">) =>
  grade === null || grade === "steady" || grade === "flickers";

/** What else weighs on a run beside its figures. */
export interface Trouble {
  crashed?: boolean;
  faults?: Severity[];
}

/**
 * The speed a verdict goes by: the engine's own where it reports one, the counter's otherwise, the share of the
 * target for titles free of their rate.
 */
export function judgedSpeed(summary: Summary): { rule: RuleName; value: number } {
  if (summary.reportedSpeedPercent !== null)
    return { rule: "reportedSpeedPercent", value: summary.reportedSpeedPercent };
  if (summary.tied) return { rule: "speedPercent", value: summary.speedPercent };
  return { rule: "percentOfTarget", value: (100 * summary.averageFps) / summary.targetFps };
}

/**
 * Below this share of frames on one cadence, alternation is seen; above it, it is the jitter of a steady
 * display.
 */
const oneCadence = 0.75;

/** Whether frames fall on several cadences at all, so that taking turns can be told from jitter. */
const alternates = ({ pacing }: Summary) =>
  pacing !== null && pacing.lag1 !== null && pacing.cadenceShare < oneCadence;

/**
 * A rule that can't be judged isn't met; what readings of a counter can't show at all is passed over, and said.
 */
const reason = (
  rule: RuleName,
  value: number | null,
  limit: number,
  met: (value: number) => boolean,
  seen = true,
): Reason => ({
  rule,
  value,
  limit,
  met: value === null ? !seen : met(value),
});
const atLeast = (rule: RuleName, value: number | null, limit: number) =>
  reason(rule, value, limit, (own) => own >= limit);
const atMost = (rule: RuleName, value: number | null, limit: number, seen: boolean) =>
  reason(rule, value, limit, (own) => own <= limit, seen);

/** Frames under this tell too little for a light, s; and looks under so many for one that calls it full speed. */
const leastSeconds = 10,
  leastLooks = 3;

/** Looks of a run's readings; kept figures of an older method have their readings alone. */
const looksIn = ({ looked, frames }: Summary) => looked?.looks ?? frames;

/** Whether a run is too short to earn its light. One look is enough to see that a title is slow. */
const isShort = (summary: Summary, grade: Grade) =>
  summary.form === "frames"
    ? summary.durationMs < 1000 * leastSeconds
    : looksIn(summary) < leastLooks && (grade === "steady" || grade === "flickers");

/** What readings leave open of the judged speed, %; null where it is known, or told by the engine. */
function openSpeed(summary: Summary): { low: number; high: number } | null {
  const { looked, reportedSpeedPercent, averageFps } = summary;
  if (!looked || reportedSpeedPercent !== null || averageFps <= 0) return null;
  const { low, high } = looked.interval;
  const { value } = judgedSpeed(summary);
  return { low: (value * low) / averageFps, high: (value * high) / averageFps };
}

/** Whether readings lie at the target, as far as their last digit tells, but for the share that may lie under it. */
const readsAtTarget = ({ fullSpeedTimePercent }: Summary, { steady }: HouseRules) =>
  fullSpeedTimePercent !== null && fullSpeedTimePercent >= steady.fullSpeedTimePercent;

/**
 * Rules by light, the brightest first, and the first light whose rules are all met; −1 for none.
 * @param speed null where it can't be told from full speed
 */
function ladderOf(
  summary: Summary,
  rules: HouseRules,
  speed: { rule: RuleName; value: number } | null,
): { ladder: [Grade, Reason[]][]; reached: number } {
  const fullTime = summary.fullSpeedTimePercent;
  const seen = summary.form === "frames";
  const fast = (limit: number) => (speed ? [atLeast(speed.rule, speed.value, limit)] : []);
  const ladder: [Grade, Reason[]][] = [
    [
      "steady",
      [
        ...fast(rules.steady.speedPercent),
        atLeast("fullSpeedTimePercent", fullTime, rules.steady.fullSpeedTimePercent),
        {
          ...atMost(
            "hitchesPerMinute",
            summary.hitches?.perMinute ?? null,
            rules.steady.hitchesPerMinute,
            seen,
          ),
          ...(summary.hitches && {
            counted: { count: summary.hitches.count, seconds: summary.durationMs / 1000 },
          }),
        },
        atMost("freezes", summary.freezes, rules.steady.freezes, seen),
        ...(summary.pacing && alternates(summary)
          ? [atLeast("alternation", summary.pacing.lag1, rules.steady.lag1)]
          : []),
      ],
    ],
    [
      "flickers",
      [
        ...fast(rules.flickers.speedPercent),
        atLeast("fullSpeedTimePercent", fullTime, rules.flickers.fullSpeedTimePercent),
      ],
    ],
    ["dims", fast(rules.dims.speedPercent)],
  ];
  return { ladder, reached: ladder.findIndex(([, reasons]) => reasons.every(({ met }) => met)) };
}

/**
 * The light a run earns under house rules, with the rules that decided it.
 *
 * @param summary the run's metrics
 * @param rules   thresholds; "Lending desk" unless given
 * @param trouble crash and faults; a fault can outweigh speed
 */
export function judge(summary: Summary, rules: HouseRules = lendingDesk, trouble: Trouble = {}): Verdict {
  const whole = judgeWhole(summary, rules, trouble);
  const scenes = (summary.scenes ?? []).map(({ label, figures }): SceneLight => {
    const { grade, between } = judgeWhole({ ...figures, segments: [] }, rules, {});
    return { label, grade, ...(between && { between }) };
  });
  return scenes.length > 0 ? { ...whole, scenes } : whole;
}

function judgeWhole(summary: Summary, rules: HouseRules, trouble: Trouble): Verdict {
  const speed = judgedSpeed(summary);
  const open = openSpeed(summary);
  // What can't be told from full speed isn't judged slower.
  const isAtTarget = open !== null && readsAtTarget(summary, rules) && speed.value < rules.steady.speedPercent;
  const { ladder, reached } = ladderOf(summary, rules, isAtTarget ? null : speed);
  let grade: Grade = ladder[reached]?.[0] ?? "gutters";
  // What kept it from the next better light; all of Steady's where there is none better.
  const [, wanting = []] = ladder[reached < 0 ? ladder.length - 1 : Math.max(0, reached - 1)] ?? [];
  let reasons = reached === 0 ? wanting : wanting.filter(({ met }) => !met);

  const faults = trouble.faults ?? [];
  const caps: [Grade, RuleName, number][] = [
    ["dark", "crash", trouble.crashed ? 1 : 0],
    ["dark", "blockingFaults", faults.filter((fault) => fault === "blocking").length],
    ["gutters", "severeFaults", faults.filter((fault) => fault === "severe").length],
    ["flickers", "visibleFaults", faults.filter((fault) => fault === "visible").length],
  ];
  for (const [cap, rule, count] of caps) {
    if (count === 0 || grades.indexOf(grade) > grades.indexOf(cap)) continue;
    const found: Reason = { rule, value: count, limit: 0, met: false };
    reasons = grade === cap ? [...reasons, found] : [found];
    grade = cap;
  }
  const partial = summary.form === "interval";
  const between = openTo(summary, rules, open, grade);
  const remarks = [
    ...(between && open ? [said("verdict.straddles", { ...between, ...open })] : []),
    ...(readsAtTarget(summary, rules) && grade === "steady" && summary.looked?.whole
      ? [said("verdict.asWholeNumbersTell")]
      : []),
    ...remarksOn(summary, rules, grade),
  ];
  const straddles = between ? { between: [between.worse, between.better] as [Grade, Grade] } : {};
  // A crash or a missing picture is dark however short the run.
  return grade !== "dark" && isShort(summary, grade)
    ? { grade: null, reasons: [], partial, remarks: [tooShort(summary), ...remarks] }
    : { grade, reasons, partial, remarks, ...straddles };
}

/**
 * The lights that readings leave open, where that is more than one; null where they agree, or something else than
 * speed decided.
 */
function openTo(
  summary: Summary,
  rules: HouseRules,
  open: { low: number; high: number } | null,
  grade: Grade,
): { worse: Grade; better: Grade } | null {
  if (open === null || readsAtTarget(summary, rules)) return null;
  const { rule } = judgedSpeed(summary);
  const lightAt = (value: number): Grade => {
    const { ladder, reached } = ladderOf(summary, rules, { rule, value });
    return ladder[reached]?.[0] ?? "gutters";
  };
  const [worse, better] = [lightAt(open.low), lightAt(open.high)];
  return worse === better || ![worse, better].includes(grade) ? null : { worse, better };
}

/** A tied title this far over its own rate runs visibly fast. */
const tooFastPercent = 103;

/** How far under a threshold still is "just under", points. */
const nearly = 0.5;

const tooShort = (summary: Summary): Said =>
  summary.form === "frames"
    ? said("verdict.tooShort", { seconds: summary.durationMs / 1000, wanted: leastSeconds })
    : said("verdict.tooFewReadings", { readings: looksIn(summary), wanted: leastLooks });

/** A run that misses its light by a hair: its slowest second, and its speed, lie just under what is wanted. */
function justUnder(summary: Summary, { steady, flickers, measuring }: HouseRules, grade: Grade): Said[] {
  const { dips, targetFps, looked } = summary;
  const wantedFps = leastOfReadings(looked?.whole ? 1 : 0, targetFps, measuring);
  // Whole numbers leave open how nearly: a unit further is just under too, where the average may be so near.
  const near = looked?.whole
    ? { speed: 100 * (looked.interval.high / targetFps) >= flickers.speedPercent, fps: 1 }
    : { speed: judgedSpeed(summary).value >= steady.speedPercent - nearly, fps: (nearly / 100) * targetFps };
  const isNear =
    (grade === "flickers" || grade === "dims") && near.speed && (dips?.deepestFps ?? 0) >= wantedFps - near.fps;
  return isNear && dips?.deepestFps != null
    ? [said("verdict.justUnder", { slowestFps: dips.deepestFps, wantedFps })]
    : [];
}

function remarksOn(summary: Summary, rules: HouseRules, grade: Grade): Said[] {
  const remarks: Said[] = justUnder(summary, rules, grade);
  const { averageFps, reportedSpeedPercent } = summary;
  if (summary.counterDisagrees && reportedSpeedPercent !== null)
    remarks.push(said("verdict.counterDisagrees", { fps: averageFps, speedPercent: reportedSpeedPercent }));
  const speed = judgedSpeed(summary);
  if (summary.tied && speed.value > tooFastPercent)
    remarks.push(said("verdict.tooFast", { speedPercent: speed.value }));
  if (summary.spikes) remarks.push(said("verdict.spikes", summary.spikes));
  if (summary.form === "interval") remarks.push(said("verdict.fromReadings"));
  return remarks;
}
