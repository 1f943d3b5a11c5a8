import type { TrialNode } from "@/core/records";
import type { ThreadRun } from "@/contract";
import { entriesOf } from "./entries";

const at = (minute: number) => new Date(Date.UTC(2026, 10, 24, 9, minute)).toISOString();
const run = (number: number, minute: number, trialId: string | null = null) =>
  ({ id: `run ${number}`, number, madeAt: at(minute), trialId }) as ThreadRun;
const trial = (id: string, minute: number) => ({ id, createdAt: at(minute) }) as TrialNode;

const shown = (runs: ThreadRun[], trials: TrialNode[]) =>
  entriesOf(runs, trials).map((entry) =>
    "run" in entry ? entry.run.number : [entry.trial.id, ...entry.runs.map(({ number }) => number)],
  );

describe("a job's story", () => {
  it("tells runs and trials in the order they were begun, a trial's runs with it", () => {
    const runs = [run(1, 0), run(2, 5, "first"), run(3, 10, "first"), run(4, 20)];
    expect(shown(runs, [trial("first", 4)])).toEqual([1, ["first", 2, 3], 4]);
  });

  it("a trial taken up days later stays where it was begun", () => {
    const runs = [run(1, 0), run(2, 50), run(3, 55, "early")];
    expect(shown(runs, [trial("early", 3)])).toEqual([1, ["early", 3], 2]);
  });

  it("a trial without runs is told too", () => {
    expect(shown([run(1, 0)], [trial("planned", 9)])).toEqual([1, ["planned"]]);
  });

  it("runs of a trial that was left out stand by themselves, none is lost", () => {
    expect(shown([run(1, 0), run(2, 5, "gone")], [])).toEqual([1, 2]);
  });

  it("an empty job has no story", () => {
    expect(entriesOf([], [])).toEqual([]);
  });
});
