import { said, words, type Said } from "@/core/words";
import { nextStep, type StepRun } from ".";

/** Matches a sentence by its words. */
const saying = (pattern: RegExp) => ({
  asymmetricMatch: (sentence: Said) => pattern.test(words(sentence)),
});

const run = (changes: Partial<StepRun> = {}): StepRun => ({
  held: true,
  grade: "dims",
  crashed: false,
  coldCache: false,
  ...changes,
});

describe("the next step of a job", () => {
  it("begins with a baseline", () => expect(nextStep({ runs: [] }).action).toBe("baseline"));
  it("doesn't promise that a confirmation closes a job whose last run ended Dark", () => {
    const after = (grade: StepRun["grade"]) => nextStep({ runs: [run({ grade })], decided: 1 });
    expect(after("steady").sentence).toEqual(saying(/that confirmation closes the job/));
    expect(after("dark")).toMatchObject({
      action: "confirm",
      sentence: saying(/ended Dark.*only a run that holds/),
    });
  });
  it("never asks for repeats first: one run is enough to begin a trial from", () => {
    expect(nextStep({ runs: [run()], suggestion: said("next.change") })).toMatchObject({ action: "change" });
    expect(nextStep({ runs: [run()] })).toMatchObject({
      action: "change",
      sentence: saying(/One run each way shows a large difference/),
    });
  });
  it("goes by the runs that were made under what holds", () =>
    expect(
      nextStep({ runs: [run({ grade: "steady" }), run({ held: false }), run({ grade: "steady" })] }),
    ).toMatchObject({ action: "confirm", sentence: saying(/Steady over 2 runs/) }));
  it("judges nothing by a cold or crashed run", () => {
    expect(nextStep({ runs: [run(), run(), run({ coldCache: true })] }).action).toBe("rerun");
    expect(nextStep({ runs: [run({ crashed: true })] })).toMatchObject({
      action: "rerun",
      sentence: saying(/crash/),
    });
  });
  it("a trial under way comes first: its next arms, then the decision", () => {
    const runs = [run(), run(), run()];
    expect(nextStep({ runs, openTrial: { name: "Other back end", left: ["B", "A", "B"] } })).toMatchObject({
      action: "trial",
      sentence: saying(/run B next, then A, B; 3 to go/),
    });
    expect(nextStep({ runs, openTrial: { name: "Other back end", left: [] } }).action).toBe("decide");
  });
  it("after decisions: confirm, then close, or go on where it isn't steady", () => {
    const runs = [run(), run({ grade: "steady" })];
    expect(nextStep({ runs, decided: 1 }).action).toBe("confirm");
    expect(nextStep({ runs, decided: 1, confirmed: true }).action).toBe("close");
    expect(nextStep({ runs: [run()], decided: 1, confirmed: true, suggestion: said("next.change") })).toEqual({
      action: "change",
      sentence: said("next.change"),
    });
    expect(nextStep({ runs: [run()], decided: 1, confirmed: true }).action).toBe("close");
    expect(nextStep({ runs, decided: 1, closed: true }).action).toBe("closed");
  });
  it("runs of a trial say what the trial needs, not what the job does", () =>
    expect(nextStep({ runs: [run(), run(), run(), run({ crashed: true, inTrial: true })] }).action).toBe(
      "change",
    ));
  it("confirms what is steady", () =>
    expect(
      nextStep({ runs: [run({ grade: "steady" }), run({ grade: "steady" }), run({ grade: "steady" })] }).action,
    ).toBe("confirm"));
});
