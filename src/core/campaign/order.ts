import type { PlannedSlot } from "./shape";
import { timetable } from "@/core/timetable";
import type { CampaignAnswer } from "./shape";
import type { CampaignFacts } from "./shape";
import { timetablePlanOf, type ScheduleFacts } from "./schedule";
import { roundStates } from "./slots";
import type { Slot } from "./shape";

/**
 * An order of a campaign's planned runs that costs little to set up and is balanced inside every title.
 * @param longer how many times the usual search is done; 0 for the order made by rule alone
 */
export const orderOf = (facts: ScheduleFacts, longer = 1): Slot[] =>
  timetable(timetablePlanOf(facts), longer).order.map(({ title, arm, round }) => ({
    title: Number(title),
    arm: Number(arm),
    round,
  }));

/**
 * Whether an order holds every planned run once, and inside a title no arm runs a k+1st time before every arm
 * has run k times.
 */
export function isWholeOrder(
  order: Slot[],
  { titles, arms, rounds }: Record<"titles" | "arms" | "rounds", number>,
): boolean {
  if (order.length !== titles * arms * rounds) return false;
  const done = Array.from({ length: titles }, () => new Array<number>(arms).fill(0));
  return order.every(({ title, arm, round }) => {
    const own = done[title];
    if (!own || own[arm] === undefined || round !== own[arm] + 1 || own[arm] > Math.min(...own)) return false;
    own[arm]++;
    return own[arm] <= rounds;
  });
}

/** Every planned run in its order, extra rounds at the end, with what has become of each. */
export function slotsOf(facts: CampaignFacts, answer: CampaignAnswer, order: Slot[]): PlannedSlot[] {
  const states = facts.titles.map(({ cells, extra }) =>
    cells.map((cell) => roundStates(cell, facts.rounds + extra)),
  );
  const extra = facts.titles.flatMap((title, at) =>
    Array.from({ length: title.extra }, (_, k) =>
      facts.arms.map((_, arm): Slot => ({ title: at, arm, round: facts.rounds + 1 + k })),
    ).flat(),
  );
  return [...order, ...extra].map((slot) => {
    const state = states[slot.title]?.[slot.arm]?.[slot.round - 1] ?? "open";
    return { ...slot, state: state === "open" && answer.titles[slot.title]?.settled ? "spared" : state };
  });
}

/** Titles that are undecided with nothing left to run, for which time was given away elsewhere. */
export function mayTakeMore(facts: CampaignFacts, answer: CampaignAnswer, slots: PlannedSlot[]): number[] {
  const spared = slots.filter(({ state }) => state === "spared").length;
  return facts.titles.flatMap(({ extra }, title) => {
    const own = answer.titles[title];
    const isOpen = own?.outcome === "open" && !own.settled;
    const left = slots.some((slot) => slot.title === title && slot.state === "open");
    return isOpen && !left && extra < facts.extraRounds && spared >= facts.arms.length ? [title] : [];
  });
}
