import { exampleSetting } from "@/testing/exampleKit";
import { seeded } from "@/core/stats";
import type { FrameTrace } from "@/core/trace";
import { said, words } from "@/core/words";
import {
  armFigures,
  driftOf,
  evidenceOf,
  isAgainst,
  kindOf,
  progressOf,
  screeningPlan,
  tracesNeeded,
  understand,
  usableRuns,
  visitsOf,
} from ".";
import { exampleTrial, type ExampleRun } from "@/testing/exampleTrial";

const random = seeded(7);
/** Half a minute at some rate, with the spread that frames have. */
const run = (fps: number): FrameTrace => ({
  form: "frames",
  frameTimes: Float64Array.from(
    { length: Math.round(30 * fps) },
    () => (1000 / fps) * Math.exp(0.04 * random.normal()),
  ),
  channels: [],
  marks: [],
});
const pair = [{ name: "as it is" }, { name: "changed" }];
const noise = { sd: 0.01, freedom: 30 };

describe("which runs count", () => {
  const crashedRun: ExampleRun = { arm: 0, trace: run(50), crashed: true };
  it.each([
    ["compare", 0],
    ["screen", 0],
    ["resolution", 0],
    ["power", 0],
    ["rate", 0],
    ["heat", 1],
    ["clocks", 1],
    ["memory", 1],
  ])("a crash in a %s trial counts as %d usable run, and always as a crash", (kind, usable) => {
    const { facts } = exampleTrial(kind, pair, [crashedRun]);
    const [first] = evidenceOf(facts);
    expect(first).toMatchObject({ runs: usable, crashes: 1, faulted: true });
    expect(progressOf({ ...facts.trial, decidedAt: null }, facts.runs).runs[0]).toBe(usable);
  });
  it("first passes are kept apart from a warm comparison, and only from that", () => {
    const cold: ExampleRun[] = [{ arm: 0, trace: run(50), cold: true }];
    const count = (kind: string, asked: boolean) => {
      const { facts } = exampleTrial(kind, pair, cold, { cold: asked });
      return usableRuns(facts.trial, facts.runs).length;
    };
    expect([count("compare", false), count("compare", true), count("heat", false)]).toEqual([0, 1, 1]);
  });
  it("a decided trial has nothing left to run", () => {
    const { facts } = exampleTrial("compare", pair, [], { rounds: 2 });
    expect(progressOf({ ...facts.trial, decidedAt: null }, []).left).toEqual([0, 1, 1, 0]);
    expect(progressOf({ ...facts.trial, decidedAt: new Date().toISOString() }, []).left).toEqual([]);
  });
  it("only traces that are read are asked for: none of a power sweep, the free run's and those behind caps of a rate", () => {
    const arms = [
      { name: "free", role: "free" as const },
      { name: "cap", role: "capped" as const, level: 30 },
    ];
    const runs = [0, 1].map((arm) => ({ arm, trace: run(40) }));
    expect(tracesNeeded(exampleTrial("power", arms, runs).facts)).toEqual([]);
    expect(tracesNeeded(exampleTrial("rate", arms, runs).facts)).toEqual(["run 1", "run 2"]);
    expect(tracesNeeded(exampleTrial("compare", arms, runs).facts)).toEqual(["run 1", "run 2"]);
  });
});

describe("a comparison", () => {
  const turns = (a: number, b: number) =>
    [0, 1, 1, 0, 0, 1].map((arm) => ({ arm, trace: run(arm === 0 ? a : b) }));
  it("keeps what is clearly faster, and says by how much", () => {
    const { facts, traces } = exampleTrial("compare", pair, turns(40, 46), { rounds: 3, noise });
    const made = understand(facts, traces);
    expect(made.advice).toMatchObject({ choice: "keep", arm: 1 });
    expect(words(made.advice!.sentence)).toMatch(/^Keep changed: \+1[3-6]\.\d %/);
    expect(made.outcome!.arms.map(({ runs }) => runs)).toEqual([3, 3]);
  });
  it("names the arm that has no run", () => {
    const { facts, traces } = exampleTrial("compare", pair, [{ arm: 0, trace: run(40) }]);
    expect(understand(facts, traces).missing.map(words)).toEqual([
      "changed has no warm, whole run yet. Run every arm once at least, then decide.",
    ]);
  });
  it("a faster arm with a severe fault is put back; taking the fault away keeps it", () => {
    const runs = turns(40, 46).map((each) => ({
      ...each,
      faults: each.arm === 1 ? (["severe"] as const).slice() : [],
    }));
    const { facts, traces } = exampleTrial("compare", pair, runs, { rounds: 3, noise });
    expect(words(understand(facts, traces).advice!.sentence)).toMatch(/faults outweigh/);
    const sound = facts.runs.map((each) => ({ ...each, faults: [] }));
    expect(understand({ ...facts, runs: sound }, traces).advice).toMatchObject({ arm: 1 });
  });
  it("against the advice is said once, for screen and server alike", () => {
    const advice = { choice: "keep" as const, arm: 1 };
    expect(isAgainst({ choice: "keep", arm: 1 }, advice)).toBe(false);
    expect(isAgainst({ choice: "keep", arm: 0 }, advice)).toBe(true);
    expect(isAgainst({ choice: "put back", arm: null }, advice)).toBe(true);
  });
});

const switches = ["a", "b", "c", "d", "e"].map((key) => exampleSetting(key, { label: `switch ${key}` }));

describe("a screening can be decided", () => {
  const settings = Object.fromEntries(switches.map(({ key }) => [key, false]));
  const draft = screeningPlan({ catalogue: switches, standing: { settings, conditions: {} } }, [
    "a",
    "b",
    "c",
    "d",
    "e",
  ]);
  /** Rows run at 50 fps, 12 % faster with switch b, 9 % slower with switch d. */
  const rows = draft.arms.map((arm, at) => ({
    arm: at,
    trace: run(50 * (arm.settings.b ? 1.12 : 1) * (arm.settings.d ? 0.91 : 1)),
  }));
  const trial = (runs: ExampleRun[]) => {
    const made = exampleTrial("screen", draft.arms, runs, { plan: draft.plan, catalogue: switches, noise });
    const before = { settings, conditions: {}, targetFps: null };
    return { ...made, facts: { ...made.facts, trial: { ...made.facts.trial, before } } };
  };
  it("what helps and what hurts is named, and the row nearest to it is advised", () => {
    const { facts, traces } = trial(rows);
    const made = understand(facts, traces);
    expect(words(made.advice!.sentence)).toMatch(/switch b \+1[0-4]\.\d %.*switch d hurts\./);
    const kept = draft.arms[made.advice!.arm!].settings;
    expect([kept.b, kept.d]).toEqual([true, false]);
  });
  it("keeping it changes what helps, and nothing beside it; another row is kept whole", () => {
    const { facts, traces } = trial(rows);
    const { outcome } = understand(facts, traces);
    const { keptSettings, keptName } = kindOf("screen");
    const advised = facts.trial.arms[outcome!.advice.arm!]!;
    expect(keptSettings(facts.trial, advised, outcome)).toEqual({ ...settings, b: true });
    expect(keptName(advised, true)).toBe("what helps");
    const other = facts.trial.arms.find((arm) => arm !== advised)!;
    expect(keptSettings(facts.trial, other, outcome)).toEqual(other.settings);
  });
  it("what is linked to a switch that helps goes with it", () => {
    const linked = { ...settings, e2: 0 };
    const arm = (own: object) => ({ ...draft.arms[0]!, settings: { ...linked, ...own } });
    const arms = [
      arm({ a: true, e: true, e2: 1 }),
      arm({ e: true, e2: 1, b: true }),
      arm({ a: true, b: true }),
    ];
    const { facts } = trial([]);
    const planned = { ...facts.trial, arms, before: { ...facts.trial.before, settings: linked } };
    const effect = { key: "e", label: "e", factor: 4, logGain: 0.1, low: 0.05, high: 0.15, matters: true };
    const advice = { choice: "keep" as const, arm: 0, sentence: said("screen.leads", { mixed: true }) };
    const made = kindOf("screen").keptSettings(planned, arms[0]!, { advice, effects: [effect] });
    expect(made).toEqual({ ...linked, e: true, e2: 1 });
  });
  it("fewer than half of the rows: it says how many are in", () => {
    const { facts, traces } = trial(rows.slice(0, 3));
    expect(understand(facts, traces).missing.map(words).join()).toMatch(/\(3 of 16\)/);
  });
});

describe("what makes a trial's runs less alike", () => {
  const { facts } = exampleTrial(
    "compare",
    pair,
    [0, 1].map((arm) => ({ arm, trace: run(40) })),
  );
  const [a, b] = facts.runs as [(typeof facts.runs)[0], (typeof facts.runs)[0]];
  const said = (changed: Partial<typeof b>) =>
    driftOf({ ...facts, runs: [a, { ...b, ...changed }] })
      .map(words)
      .join(" ");
  it("nothing, where nothing changed", () => expect(said({})).toBe(""));
  it("another revision, room, capture path, plug and day", () => {
    expect(said({ rigRevisionId: "revision 0" })).toMatch(/newer revision \(1\)/);
    const warm = { ...a, conditions: { ...a.conditions, roomC: 20 } };
    const hot = { ...b, conditions: { ...b.conditions, roomC: 27 } };
    expect(driftOf({ ...facts, runs: [warm, hot] }).map(words)).toEqual(["The room was between 20 and 27 °C."]);
    expect(said({ conditions: { ...b.conditions, capturePath: "card" } })).toMatch(/capture path/);
    expect(said({ conditions: { ...b.conditions, pluggedIn: true } })).toMatch(/plugged in/);
    expect(said({ madeAt: new Date(Date.UTC(2026, 0, 4, 13)).toISOString() })).toMatch(/3 days apart/);
  });
});

describe("figures beside the advice", () => {
  it("are means of an arm's runs, and nothing where it has none", () => {
    const { facts } = exampleTrial("compare", pair, [{ arm: 0, trace: run(40) }]);
    const [ran, not] = armFigures(facts);
    expect(ran.averageFps).toBeCloseTo(facts.runs[0].summary.averageFps, 9);
    expect(not).toEqual({
      speedPercent: null,
      averageFps: null,
      low: null,
      fullSpeedTimePercent: null,
      hitchesPerMinute: null,
      watts: null,
    });
  });
  it("first and later visits stand only where a scene was visited again", () => {
    const frames = run(60);
    const marks = ["hall", "stair", "hall"].map((label, k) => ({
      label,
      startMs: k * 9000,
      endMs: (k + 1) * 9000,
    }));
    const { facts } = exampleTrial("compare", pair, [
      { arm: 0, trace: frames },
      { arm: 1, trace: { ...frames, marks } },
    ]);
    expect(visitsOf(facts)).toMatchObject([{ runId: "run 2", arm: 1, scenes: 1 }]);
  });
});
