import type { RigMinutes } from "./shape";
import type { TimetablePlan } from "@/core/timetable";
import type { CampaignArm } from "./plan";
import type { CampaignPlan } from "./shape";
import type { Slot } from "./shape";

export interface ScheduleFacts {
  plan: CampaignPlan;
  arms: (CampaignArm & { engineId: string; pluggedIn: boolean })[];
  titles: { titleId: string; passMin: number }[];
  rigs: Record<string, RigMinutes>;
}

const settingsText = ({ settings, from, conditions }: CampaignArm) =>
  JSON.stringify([from, Object.entries(settings).sort(), conditions.clocks ?? null]);

/** What a timetable is made from: titles and arms by their places, as text. */
export const timetablePlanOf = ({ plan, arms, titles, rigs }: ScheduleFacts): TimetablePlan => ({
  titles: titles.map(({ passMin }, at) => ({ name: String(at), loadingMin: plan.loadingMin, passMin })),
  arms: arms.map((arm, at) => ({
    name: String(at),
    rig: arm.rigId,
    setUp: `${arm.rigId} ${arm.conditions.setUp ?? ""}`,
    engine: `${arm.rigId} ${arm.engineId}`,
    build: `${arm.rigId} ${arm.buildId}`,
    powerMode: `${arm.rigId} ${arm.conditions.powerMode ?? ""}`,
    settings: `${arm.rigId} ${arm.buildId} ${settingsText(arm)}`,
  })),
  rounds: plan.rounds,
  costs: plan.costs,
  pauses: Object.fromEntries(
    Object.entries(rigs).flatMap(([rig, { coolDownMin }]) =>
      coolDownMin === null ? [] : [[rig, coolDownMin]],
    ),
  ),
});

/** One run in its evening. */
export interface ScheduledRun extends Slot {
  /** From 0. */
  evening: number;
  /** Minutes after the evening's beginning at which it is begun, changes and pauses done. */
  startMin: number;
  /** Loading and pass. */
  minutes: number;
  /** What stands before it: a change of set-up, a cool-down, a charge. */
  changeMin: number;
  coolMin: number;
  chargeMin: number;
}

export interface Evening {
  /** As a day; null where the campaign has none. */
  date: string | null;
  /** As 19:30. */
  startsAt: string;
  minutes: number;
  runs: number;
}

export interface Schedule {
  runs: ScheduledRun[];
  evenings: Evening[];
  /** Minutes in all, pauses too. */
  minutes: number;
}

/** A battery isn't run lower than this share of what it holds; ours. */
const usedAtMost = 0.8;
/** An evening with less left than this isn't begun. */
const leastMin = 10;

const minuteOfDay = (clock: string) => Number(clock.slice(0, 2)) * 60 + Number(clock.slice(3));
const clockOf = (minute: number) =>
  `${String(Math.floor(minute / 60) % 24).padStart(2, "0")}:${String(Math.floor(minute % 60)).padStart(2, "0")}`;

/** The time so many minutes after an evening's beginning. @example clockAfter({ startsAt: "23:50" }, 15) // → "00:05" */
export const clockAfter = ({ startsAt }: Pick<CampaignPlan, "startsAt">, minutes: number): string =>
  clockOf(minuteOfDay(startsAt) + minutes);

/** A day later or earlier. @example dayAfter("2026-02-28", 1) // → "2026-03-01" */
export function dayAfter(date: string, days: number): string {
  const [year = 0, month = 1, day = 1] = date.split("-").map(Number);
  return new Date(Date.UTC(year, month - 1, day + days)).toISOString().slice(0, 10);
}

/** When the next evening begins: one that has slipped is made up from today on. */
function firstEvening(
  { firstEvening: planned, startsAt, eveningMin }: CampaignPlan,
  now: { date: string; clock: string },
): { date: string | null; lateMin: number } {
  if (planned === null) return { date: null, lateMin: 0 };
  if (planned > now.date) return { date: planned, lateMin: 0 };
  const late = minuteOfDay(now.clock) - minuteOfDay(startsAt);
  if (late <= 0) return { date: now.date, lateMin: 0 };
  return eveningMin !== null && late > eveningMin - leastMin
    ? { date: dayAfter(now.date, 1), lateMin: 0 }
    : { date: now.date, lateMin: late };
}

/** Minutes of change from one arm to another. */
function changeMinutes({ plan, arms }: ScheduleFacts, from: Slot | null, to: Slot): number {
  if (from === null) return 0;
  const { costs } = plan;
  const [a, b] = [arms[from.arm], arms[to.arm]];
  if (!a || !b) return 0;
  const title = from.title === to.title ? 0 : costs.title;
  if (from.arm === to.arm) return title;
  const differs = (of: (arm: ScheduleFacts["arms"][number]) => unknown) =>
    a.rigId !== b.rigId || of(a) !== of(b);
  return (
    title +
    (a.rigId === b.rigId ? 0 : costs.rig) +
    (differs((arm) => arm.conditions.setUp ?? "") ? costs.setUp : 0) +
    (differs((arm) => arm.engineId) ? costs.engine : 0) +
    (differs((arm) => arm.buildId) ? costs.build : 0) +
    (differs((arm) => arm.conditions.powerMode ?? "") ? costs.powerMode : 0) +
    (differs((arm) => `${arm.buildId} ${settingsText(arm)}`) ? costs.settings : 0)
  );
}

/**
 * Runs still to be made, spread over evenings.
 *
 * A run is begun where it, with what stands before it, still ends inside the evening; one longer than an
 * evening has an evening of its own. Batteries begin an evening full; before a run that would take more than 80
 * % of one stands a charge.
 *
 * @param slots in their order
 * @param now   the day and time at which it is planned, by the tuner's own clock
 */
export function scheduleOf(
  facts: ScheduleFacts,
  slots: Slot[],
  now: { date: string; clock: string },
): Schedule {
  const { plan, arms, titles, rigs } = facts;
  const begins = firstEvening(plan, now);
  const runs: ScheduledRun[] = [];
  const evenings: Evening[] = [];
  let evening = 0,
    clock = begins.lateMin,
    last: Slot | null = null;
  const used = new Map<string, number>();
  const ranLast = new Map<string, number>();
  const close = () => {
    const own = runs.filter((run) => run.evening === evening);
    const late = evening === 0 ? begins.lateMin : 0;
    evenings.push({
      date: begins.date === null ? null : dayAfter(begins.date, evening),
      startsAt: clockAfter(plan, late),
      minutes: clock - late,
      runs: own.length,
    });
  };
  for (const slot of slots) {
    const arm = arms[slot.arm],
      title = titles[slot.title];
    if (!arm || !title) continue;
    const rig = rigs[arm.rigId];
    const minutes = plan.loadingMin + title.passMin;
    const watts = arm.pluggedIn ? undefined : rig?.watts[arm.conditions.powerMode ?? ""];
    const needWh = watts === undefined ? 0 : (watts * minutes) / 60;
    const place = () => {
      const changeMin = changeMinutes(facts, last, slot);
      const usedWh = used.get(arm.rigId) ?? 0;
      const full = rig?.batteryWh ?? Infinity;
      const chargeMin =
        plan.chargeWatts !== null && usedWh > 0 && usedWh + needWh > usedAtMost * full
          ? (usedWh / plan.chargeWatts) * 60
          : 0;
      const rested = clock + changeMin + chargeMin - (ranLast.get(arm.rigId) ?? -Infinity);
      const coolMin = Math.max(0, (rig?.coolDownMin ?? 0) - rested);
      return { changeMin, chargeMin, coolMin, before: changeMin + chargeMin + coolMin };
    };
    let placed = place();
    const begun = runs.at(-1)?.evening === evening;
    if (plan.eveningMin !== null && begun && clock + placed.before + minutes > plan.eveningMin + 1e-9) {
      close();
      evening++;
      clock = 0;
      used.clear();
      ranLast.clear();
      last = null;
      placed = place();
    }
    const { changeMin, coolMin, chargeMin, before } = placed;
    const startMin = clock + before;
    runs.push({ ...slot, evening, startMin, minutes, changeMin, coolMin, chargeMin });
    clock = startMin + minutes;
    used.set(arm.rigId, (chargeMin > 0 ? 0 : (used.get(arm.rigId) ?? 0)) + needWh);
    ranLast.set(arm.rigId, clock);
    last = slot;
  }
  if (runs.length > 0) close();
  return { runs, evenings, minutes: evenings.reduce((sum, each) => sum + each.minutes, 0) };
}
