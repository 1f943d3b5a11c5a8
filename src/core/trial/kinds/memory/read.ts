import type { MemoryRow, MemoryReading } from "./shape";
import { memoryLeft } from "@/core/kit";
import { thinned } from "@/core/stats";
import { crashRate, memoryGrowth, minutesWith, type MemoryGrowth } from "@/core/sweep";
import { said } from "../../codes";
import type { Said } from "@/core/said";
import type { TrialFacts, TrialRun, Traces } from "../../facts";
import { channelIn, drawnPoints } from "../../sweeping";

/** Sizes that devices are sold with, GB (common practice). */
const usualSizes = [8, 12, 16, 24];

function rowOf(run: TrialRun, traces: Traces, limitMb: number | null): MemoryRow | null {
  const held = channelIn(traces.get(run.id), "memory");
  if (!held) return null;
  const points = thinned(held.times, held.values, drawnPoints);
  // Where the run died, what it died at is the wall; the rig's figure leaves out what the system keeps.
  return {
    run: run.number,
    arm: run.arm,
    points: { minutes: [...points.times.map((ms) => ms / 60_000)], megabytes: [...points.values] },
    growth: memoryGrowth(held.times, held.values, limitMb),
    diedAfterMinutes: run.crashed ? run.summary.durationMs / 60_000 : null,
  };
}

export function read({ runs, rig }: TrialFacts, traces: Traces): MemoryReading | null {
  if (runs.length === 0) return null;
  const { memoryGb } = rig.spec;
  const limitMb = memoryLeft(rig.spec);
  const missing: Said[] = [];
  const rows = runs.flatMap((run) => {
    const row = rowOf(run, traces, limitMb);
    if (!row) missing.push(said("memory.noReadings", { run: run.number }));
    return row ?? [];
  });
  const lasting = ({ points }: MemoryRow) => points.minutes.at(-1) ?? 0;
  const longest = [...rows].sort((a, b) => lasting(b) - lasting(a))[0];
  const growth = longest?.growth ?? null;
  // What the system keeps for itself stays the same on a rig with more.
  const kept = memoryGb === null || limitMb === null ? null : memoryGb * 1024 - limitMb;
  const others = usualSizes
    .filter((gigabytes) => kept !== null && memoryGb !== null && gigabytes > memoryGb)
    .slice(0, 2)
    .map((gigabytes) => ({
      gigabytes,
      minutes: growth && minutesWith(growth, gigabytes * 1024 - (kept ?? 0)),
    }));
  const hours = runs.reduce((sum, { summary }) => sum + summary.durationMs, 0) / 3_600_000;
  return {
    kind: "memory",
    rows,
    limitMb,
    others,
    crashes: hours > 0 ? crashRate(runs.filter(({ crashed }) => crashed).length, hours) : null,
    sentence: growth
      ? sentenceOf(growth, longest?.diedAfterMinutes ?? null, others[0] ?? null)
      : said("memory.runFirst"),
    missing,
    arm: null,
  };
}

function sentenceOf(
  growth: MemoryGrowth,
  diedAfterMinutes: number | null,
  other: MemoryReading["others"][number] | null,
): Said {
  const { mbPerMinute, low, high, minutesToLimit, minutesLow, minutesHigh } = growth;
  if (growth.early)
    return said("memory.early", { ...growth.early, longer: Math.max(15, 2 * growth.early.minutes) });
  if (!growth.grows && growth.levelled)
    return said("memory.levelled", { ...growth.levelled, mbPerMinute, low, high });
  if (!growth.grows) return said("memory.steady", { mbPerMinute, low, high, step: growth.step });
  const wall =
    minutesToLimit === null || minutesLow === null || minutesHigh === null
      ? null
      : { minutes: minutesToLimit, low: minutesLow, high: minutesHigh };
  const more = other && other.minutes !== null ? { gigabytes: other.gigabytes, minutes: other.minutes } : null;
  return said("memory.grows", { mbPerMinute, wall, diedAfterMinutes, more });
}
