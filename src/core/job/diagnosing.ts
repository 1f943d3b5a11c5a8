import { effectiveFps } from "@/core/compare";
import {
  diagnose,
  type ConditionResponse,
  type Diagnosis,
  type Limits,
  type ScaleResponse,
} from "@/core/diagnose";
import {
  changesBetween,
  memoryLeft,
  settingFor,
  type Conditions,
  type RigSpec,
  type Setting,
} from "@/core/kit";
import { medianOf } from "@/core/stats";
import { usualFrameMs } from "@/core/sweep";
import type { RigRow, SystemRow, TitleDetail } from "@/core/records";
import type { Story, StoryRun } from "./story";

/** A title as far as it asks for memory. */
type NeedsMemory = Pick<TitleDetail, "memoryNeededGb">;

export function limitsOf(
  spec: RigSpec,
  conditions: Conditions,
  refreshHz: number,
  seen: StoryRun[],
  title: NeedsMemory | null = null,
): Limits {
  const mode = spec.powerModes.find(({ name }) => name === conditions.powerMode);
  const highest = (role: "cpuClock" | "gpuClock") =>
    seen.reduce((most, { summary }) => Math.max(most, summary.channels[role]?.max ?? 0), 0);
  const boost = Math.max(0, ...spec.processor.clusters.map(({ boostGhz }) => boostGhz)) * 1000;
  return {
    temperatureC: spec.temperatureLimitC,
    memoryMb: memoryLeft(spec),
    ...(title?.memoryNeededGb != null && { neededMb: 1024 * title.memoryNeededGb }),
    modeWatts: mode?.watts ?? null,
    processorMhz: Math.max(boost, highest("cpuClock")) || null,
    graphicsMhz: Math.max((spec.graphics.clockGhz ?? 0) * 1000, highest("gpuClock")) || null,
    refreshHz,
  };
}

const conditionKeys = ["powerMode", "setUp", "clocks", "pluggedIn", "docked", "cooler"] as const;
const sameConditions = (a: Conditions, b: Conditions, but?: (typeof conditionKeys)[number]) =>
  conditionKeys.every((key) => key === but || (a[key] ?? null) === (b[key] ?? null));

/** Median over runs, so that one odd run says little. */
const middle = (values: number[]) => medianOf(Float64Array.from(values));

function scaleResponse(
  run: StoryRun,
  others: StoryRun[],
  scale: Setting | null,
  system: SystemRow | undefined,
): ScaleResponse | null {
  const own = usualFrameMs(run.summary);
  if (!scale || !system || own === null) return null;
  const native = system.screens.reduce((sum, { width, height }) => sum + width * height, 0);
  const at = Number(run.settings[scale.key]);
  const keys = new Set([scale.key, ...scale.linked]);
  const byScale = new Map<number, number[]>();
  for (const other of others) {
    const usual = usualFrameMs(other.summary);
    if (usual === null || !sameConditions(other.conditions, run.conditions)) continue;
    const changes = changesBetween(other.settings, run.settings);
    if (changes.length === 0 || !changes.every(({ key }) => keys.has(key))) continue;
    const level = Number(other.settings[scale.key]);
    byScale.set(level, [...(byScale.get(level) ?? []), usual]);
  }
  if (byScale.size === 0 || !Number.isFinite(at)) return null;
  return {
    pixels: native * at ** 2,
    medianMs: own,
    isNative: at <= 1,
    targetFps: run.yardstick.targetFps,
    others: [...byScale].map(([level, medians]) => ({
      pixels: native * level ** 2,
      medianMs: middle(medians),
      isNative: level <= 1,
    })),
  };
}

function conditionResponses(
  run: StoryRun,
  others: StoryRun[],
  spec: RigSpec,
  limiter: Setting | null,
): ConditionResponse[] {
  const rate = (each: StoryRun) => effectiveFps(each.summary, each.yardstick.nativeFps);
  const watts = (name: string | null) => spec.powerModes.find((mode) => mode.name === name)?.watts ?? null;
  const made = new Map<string, { what: ConditionResponse["what"]; rates: number[] }>();
  const note = (what: ConditionResponse["what"], name: string, other: StoryRun) => {
    const held = made.get(name) ?? { what, rates: [] };
    held.rates.push(rate(other));
    made.set(name, held);
  };
  for (const other of others) {
    const changes = changesBetween(run.settings, other.settings);
    if (changes.length === 0) {
      const [was, is] = [run.conditions, other.conditions];
      if (was.powerMode !== is.powerMode && sameConditions(was, is, "powerMode")) {
        const [a, b] = [watts(was.powerMode), watts(is.powerMode)];
        if (a !== null && b !== null && a !== b)
          note(b > a ? "more watts" : "less watts", is.powerMode ?? "", other);
      } else if (was.clocks !== is.clocks && sameConditions(was, is, "clocks"))
        note("forced clocks", is.clocks ?? "", other);
      else if (!was.cooler && is.cooler && sameConditions(was, is, "cooler")) note("cooler", "cooler", other);
    } else if (
      limiter &&
      changes.length === 1 &&
      changes[0]?.key === limiter.key &&
      sameConditions(run.conditions, other.conditions)
    )
      note("cap lifted", "no cap", other);
  }
  return [...made].map(([name, { what, rates }]) => ({ what, name, ratio: middle(rates) / rate(run) }));
}

/** What holds a run back, from itself and from the job's other runs. */
export function diagnoseRun(
  run: StoryRun,
  { runs, catalogue }: Pick<Story, "runs" | "catalogue">,
  rig: RigRow,
  system: SystemRow | undefined,
  title: NeedsMemory | null = null,
): Diagnosis {
  const others = runs.filter(
    (other) => other.id !== run.id && !other.crashed && !other.cold && other.buildId === run.buildId,
  );
  return diagnose({
    summary: run.summary,
    cacheState: run.cacheState,
    crashed: run.crashed,
    limits: limitsOf(rig.spec, run.conditions, run.yardstick.refreshHz, runs, title),
    scale: scaleResponse(run, others, settingFor(catalogue, "scale"), system),
    conditions: conditionResponses(run, others, rig.spec, settingFor(catalogue, "limiter")),
  });
}
