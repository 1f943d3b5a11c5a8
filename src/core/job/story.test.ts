import type { TrialRow } from "@/core/records";
import { firstConditions } from "@/core/kit";
import { emptyPlan, progressOf, usableRuns, type Arm } from "@/core/trial";
import { exampleSpec } from "@/testing/exampleTrial";
import { limitsOf } from "./diagnosing";
import { runsOf, type StoryRun } from "./story";

/** Runs of a trial that count, and how far it has come. */
const usableIn = (of: TrialRow, runs: StoryRun[]) => usableRuns(of, runsOf(of, runs));
const nodeOf = (of: TrialRow, runs: StoryRun[]) => progressOf(of, runsOf(of, runs));

const arm = (name: string, level: number | null = null): Arm => ({
  name,
  role: level === null ? "free" : "capped",
  settings: {},
  conditions: {},
  buildId: null,
  level,
});

const trial = (changes: Partial<TrialRow> = {}): TrialRow => ({
  id: "trial",
  version: 1,
  jobId: "job",
  number: 1,
  kind: "compare",
  name: "Other back end",
  arms: [arm("a"), arm("b")],
  rounds: 2,
  cold: false,
  plan: emptyPlan,
  before: { settings: {}, conditions: {}, targetFps: null },
  createdAt: new Date().toISOString(),
  choice: null,
  keptArm: null,
  reason: "",
  outcome: null,
  decidedAt: null,
  ...changes,
});

const run = (place: number, changes: Partial<StoryRun> = {}) =>
  ({ trialId: "trial", arm: place, crashed: false, cold: false, ...changes }) as StoryRun;

describe("runs that count in a trial", () => {
  it("are whole and warm ones, of this trial", () => {
    const runs = [
      run(0),
      run(1, { crashed: true }),
      run(1, { cold: true }),
      run(0, { trialId: "other" }),
      run(1),
    ];
    expect(usableIn(trial(), runs)).toEqual([runs[0], runs[4]]);
  });

  it("are cold ones too where first passes are the question", () => {
    const runs = [run(0, { cold: true }), run(1)];
    expect(usableIn(trial({ cold: true }), runs)).toEqual(runs);
  });

  it.each(["memory", "clocks", "heat"] as const)("a crash is an answer in a sweep of %s", (kind) => {
    const runs = [run(0, { crashed: true })];
    expect(usableIn(trial({ kind }), runs)).toEqual(runs);
  });

  it.each(["compare", "power", "resolution", "screen"] as const)("a crash is none in one of %s", (kind) => {
    expect(usableIn(trial({ kind }), [run(0, { crashed: true })])).toEqual([]);
  });
});

describe("how far a trial has come", () => {
  it("counts runs by arm, and what is left in turns", () => {
    const node = nodeOf(trial(), [run(0), run(1), run(1)]);
    expect(node.runs).toEqual([1, 2]);
    expect(node.left).toEqual([0]);
  });

  it("has nothing left once it is decided", () => {
    const node = nodeOf(trial({ decidedAt: new Date().toISOString(), choice: "put back" }), [run(0)]);
    expect(node.left).toEqual([]);
  });

  it("a rate wants its uncapped run, and leaves the capped ones to the tuner", () => {
    const rate = trial({ kind: "rate", arms: [arm("free"), arm("60 fps", 60), arm("30 fps", 30)], rounds: 1 });
    expect(nodeOf(rate, []).left).toEqual([0]);
    expect(nodeOf(rate, [run(0)]).left).toEqual([]);
  });
});

describe("what is known of a rig's limits", () => {
  const spec = {
    ...exampleSpec,
    temperatureLimitC: 95,
    memoryGb: 16,
    powerModes: [{ name: "Brisk", watts: 19, use: "any" as const }],
    processor: { clusters: [{ cores: 8, baseGhz: 2.6, boostGhz: 4.4 }] },
    graphics: { units: 12, clockGhz: 2.2 },
  };
  const conditions = firstConditions(spec);

  it("comes from its own figures", () => {
    expect(limitsOf(spec, { ...conditions, powerMode: "Brisk" }, 60, [])).toEqual({
      temperatureC: 95,
      memoryMb: expect.closeTo(16 * 1024 * 0.93, 6),
      modeWatts: 19,
      processorMhz: 4400,
      graphicsMhz: 2200,
      refreshHz: 60,
    });
  });

  it("a clock seen higher than written down counts", () => {
    const seen = [{ summary: { channels: { cpuClock: { max: 4650 } } } }] as unknown as StoryRun[];
    expect(limitsOf(spec, conditions, 60, seen).processorMhz).toBe(4650);
  });

  it("what nobody wrote down isn't made up", () => {
    const bare = { ...spec, temperatureLimitC: null, graphics: { units: null, clockGhz: null } };
    expect(limitsOf(bare, { ...conditions, powerMode: "none of them" }, 60, [])).toMatchObject({
      temperatureC: null,
      modeWatts: null,
      graphicsMhz: null,
    });
  });
});
