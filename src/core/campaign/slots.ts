import type { SlotState } from "./shape";
import { answersForAll } from "./plan";
import type { CellFacts } from "./shape";

/** An answer that speaks for every round of a cell; null where there is none. */
export const forAll = ({ notes }: CellFacts) =>
  notes.find(({ answer }) => answersForAll.includes(answer)) ?? null;

/**
 * What has become of every round of a cell: notes stand at their round, runs fill the others in their order.
 * @returns one state a round, `rounds` of them
 */
export function roundStates(cell: CellFacts, rounds: number): SlotState[] {
  const all = forAll(cell);
  let ran = 0;
  return Array.from({ length: rounds }, (_, at): SlotState => {
    const note = cell.notes.find(({ round, answer }) => round === at + 1 && !answersForAll.includes(answer));
    if (note) return note.answer;
    if (ran < cell.runs.length) {
      ran++;
      return "ran";
    }
    return all ? all.answer : cell.lacks.length > 0 ? "lacking" : "open";
  });
}

/** Rounds that every one of some arms has whole runs of. */
export const roundsDone = (cells: CellFacts[], arms: number[]): number =>
  Math.min(...arms.map((arm) => cells[arm]?.runs.filter(({ crashed }) => !crashed).length ?? 0));
