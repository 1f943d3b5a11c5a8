import { nextStep, type StepRun } from ".";

const run = (changes: Partial<StepRun> = {}): StepRun => ({ settings: { scale: 2 }, grade: "dims", crashed: false, coldCache: false, ...changes });

describe("the next step of a job", () => {
  it("begins with a baseline", () => expect(nextStep({ runs: [] }).action).toBe("baseline"));
  it("asks for repeats until three tell the spread", () => {
    expect(nextStep({ runs: [run()] })).toMatchObject({ action: "repeat", sentence: expect.stringContaining("twice more") });
    expect(nextStep({ runs: [run(), run()] })).toMatchObject({ action: "repeat", sentence: expect.stringContaining("once more") });
    expect(nextStep({ runs: [run(), run(), run()] }).action).toBe("change");
  });
  it("counts repeats of the same settings only", () => expect(nextStep({ runs: [run({ settings: { scale: 4 } }), run({ settings: { scale: 4 } }), run()] }).action).toBe("repeat"));
  it("judges nothing by a cold or crashed run", () => {
    expect(nextStep({ runs: [run(), run(), run({ coldCache: true })] }).action).toBe("rerun");
    expect(nextStep({ runs: [run({ crashed: true })] })).toMatchObject({ action: "rerun", sentence: expect.stringContaining("crash") });
  });
  it("confirms what is steady", () => expect(nextStep({ runs: [run({ grade: "steady" }), run({ grade: "steady" }), run({ grade: "steady" })] }).action).toBe("confirm"));
});
