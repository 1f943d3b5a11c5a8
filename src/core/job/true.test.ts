import { leversFor, suggest, type SuggestInput } from "@/core/advise";
import { compare, givenNoise } from "@/core/compare";
import type { Diagnosis } from "@/core/diagnose";
import { plainSetting, type Conditions } from "@/core/kit";
import { summarise } from "@/core/metrics";
import type { JobRow, RigRow, TrialRow } from "@/core/records";
import { mean, seeded } from "@/core/stats";
import type { FrameTrace } from "@/core/trace";
import { emptyPlan, understand, type Arm } from "@/core/trial";
import { exampleSpec, exampleTrial } from "@/testing/exampleTrial";
import { judge, lendingDesk } from "@/core/verdict";
import { words } from "@/core/words";
import { readJob, storyFrom, whatHolds } from ".";

/** Sentences of the core, each beside the figures that it is said of. */

const random = seeded(31);
const yardstick = { nativeFps: 60, tied: true, targetFps: 60, refreshHz: 60 };
const run = (fps: number, spread = 0.03, seconds = 40): FrameTrace => ({
  form: "frames",
  frameTimes: Float64Array.from(
    { length: Math.round(fps * seconds) },
    () => (1000 / fps) * Math.exp(spread * random.normal()),
  ),
  channels: [],
  marks: [],
});
const even = (fps: number): FrameTrace => run(fps, 0.0005);

describe("full-speed time beside its points", () => {
  it("is the difference of the two shares that stand there: full speed on one side is no +98 points over 40", () => {
    const [slow, fast] = [
      [run(55), run(55.5), run(54.5)],
      [run(66), run(66.5), run(65.5)],
    ];
    const share = (traces: FrameTrace[]) =>
      mean(traces.map((trace) => summarise(trace, yardstick).fullSpeedTimePercent ?? NaN));
    const { fullSpeedTime } = compare(slow, fast, { targetFps: 60 });
    expect(fullSpeedTime?.difference).toBeCloseTo(share(fast) - share(slow), 6);
    expect(share(slow) + (fullSpeedTime?.high ?? NaN)).toBeLessThanOrEqual(100 + share(slow));
    expect(fullSpeedTime?.low).toBeLessThanOrEqual(fullSpeedTime?.difference ?? NaN);
  });
});

describe("an effect that isn't that of the two averages", () => {
  it("says that the order was fitted, and what drifted; one that is says nothing of it", () => {
    const drifting = [50, 51, 52, 53, 54, 55, 56, 57].map((fps) => run(fps));
    const places = { a: [0, 2, 4, 7], b: [1, 3, 5, 6] };
    const [a, b] = [places.a, places.b].map((own) => own.flatMap((place) => drifting[place] ?? [])) as [
      FrameTrace[],
      FrameTrace[],
    ];
    const plain = mean(b.map(rateOf)) / mean(a.map(rateOf));
    const made = compare(a, b, { targetFps: 60, noise: givenNoise(0.01), places });
    expect(Math.abs(made.averageFps.ratio / plain - 1)).toBeGreaterThan(0.005);
    expect(made.notes.map(words).join(" ")).toMatch(
      /drifted by \+1\d\.\d %.*So the effect may differ from that of the two averages/,
    );
    const alone = compare(a, b, { targetFps: 60 });
    expect(alone.averageFps.ratio).toBeCloseTo(plain, 2);
    expect(alone.notes.map(words).join(" ")).not.toMatch(/order of the runs|two averages/);
  });
  const rateOf = ({ frameTimes }: FrameTrace) => 1000 / mean(Array.from(frameTimes));
});

describe("a sweep of scales", () => {
  const arms = [1, 2, 3].map((level) => ({ name: `×${level}`, level, settings: { scale: level } }));
  const swept = (rates: number[], make = run) =>
    understand(
      ...(Object.values(
        exampleTrial(
          "resolution",
          arms,
          rates.map((fps, arm) => ({ arm, trace: make(fps) })),
          { plan: { keys: ["scale"] } },
        ),
      ) as [never, never]),
    );
  it("whose ×1 dims isn't advised to keep ×1, nor anything else", () => {
    const made = swept([48, 40, 28]);
    expect(judge(summarise(run(48), yardstick), lendingDesk).grade).toBe("dims");
    expect(made.advice).toMatchObject({ choice: "put back", arm: null });
    expect(words(made.advice!.sentence)).not.toMatch(/^Keep/);
  });
  it("names a figure that is over what is allowed where it says that none holds", () => {
    const made = words(swept([48, 40, 28]).advice!.sentence);
    const [, shown, allowed] = made.match(/is (\d+\.\d) ms, and (\d+\.\d) are allowed/) ?? [];
    expect(Number(shown)).toBeGreaterThan(Number(allowed));
  });
  it("isn't said to follow the display's refreshes where nothing caps it; evenly at 60 of 60 it is", () => {
    const notes = (made: ReturnType<typeof swept>) => made.outcome!.notes.map(words).join(" ");
    expect(notes(swept([83, 71, 52]))).not.toMatch(/follow the display/);
    const paced: FrameTrace = { ...even(60), frameTimes: new Float64Array(2400).fill(1000 / 60) };
    expect(notes(swept([60, 60, 60], () => paced))).toMatch(/Frames follow the display's refreshes/);
  });
});

describe("intervals", () => {
  it("of runs as even as they come still have a width", () => {
    const made = compare([even(60), even(60)], [even(60), even(60)], { targetFps: 60 });
    expect(made.averageFps.high).toBeGreaterThan(made.averageFps.low);
    expect(made.worstTimeLow!.high).toBeGreaterThan(made.worstTimeLow!.low);
    expect(made.fullSpeedTime!.high).toBeGreaterThan(made.fullSpeedTime!.low);
  });
});

const haze = plainSetting("haze", { relieves: ["graphics"], label: "Haze" });
const backEnd = plainSetting("back_end", {
  type: "choice",
  choices: ["vulkan", "opengl"],
  default: "opengl",
  fastest: null,
  relieves: ["processor"],
  label: "Back end",
});
const conditions: Conditions = {
  display: null,
  powerMode: "low",
  clocks: "quiet",
  cooler: true,
  docked: false,
  pluggedIn: false,
  roomC: null,
} as Conditions;

/** What a job says to do next whose one run has a rate, with trials that stand beside it. */
function advisedWhole(fps: number, trials: Partial<TrialRow>[] = []) {
  const summary = summarise(run(fps), yardstick);
  const job = {
    buildId: "build",
    targetFps: 60,
    tied: true,
    aim: "speed",
    strategy: "climb",
    rules: { ...lendingDesk, mayChange: { clocks: false, powerMode: true, picture: true } },
    closedAt: null,
    baseline: null,
  } as unknown as JobRow;
  const arm = (more: Partial<Arm>): Arm => ({
    name: "arm",
    settings: {},
    conditions: {},
    buildId: null,
    level: null,
    role: "level",
    ...more,
  });
  const told = {
    id: "run 1",
    trialId: null,
    settings: {},
    conditions,
    yardstick,
    rules: job.rules,
    crashed: false,
    faults: [],
    summary,
    verdict: judge(summary, job.rules),
  };
  const story = storyFrom(
    job,
    [told] as never,
    trials.map(
      (trial, at) =>
        ({
          id: `trial ${at}`,
          number: at + 1,
          kind: "compare",
          name: "",
          rounds: 2,
          cold: false,
          plan: emptyPlan,
          before: { settings: {}, conditions: {}, targetFps: null },
          choice: null,
          keptArm: null,
          outcome: null,
          decidedAt: null,
          ...trial,
          arms: (trial.arms ?? []).map(arm),
        }) as TrialRow,
    ),
    [haze, backEnd],
  );
  const rig = { id: "rig", name: "Lantern", revision: 1, revisionId: "1", spec: exampleSpec } as RigRow;
  const [only] = story.runs;
  return readJob(
    story,
    { rig, system: undefined, title: { scenes: [] }, tried: [], holds: whatHolds(story, rig.spec) },
    only ?? null,
  ).suggestions;
}
const advised = (...given: Parameters<typeof advisedWhole>) =>
  advisedWhole(...given).map(({ lever: { key, to } }) => `${key} ${String(to)}`);

describe("what is offered next", () => {
  it("short of speed: settings, the other back end, more power", () =>
    expect(advised(45).sort()).toEqual(["back_end vulkan", "haze true", "power mode high"]));
  it("at 117 % of its speed: no power, and nothing that could only make it faster", () => {
    const levers = leversFor({
      catalogue: [haze, backEnd],
      settings: {},
      rules: { mayChange: { clocks: true, powerMode: true, picture: true }, requires: lendingDesk.requires },
      spec: exampleSpec,
      conditions,
    });
    const graphics = { cause: "graphics" as const, weight: 4, chance: 0.9, evidence: [] };
    const input: SuggestInput = {
      levers,
      diagnosis: { causes: [graphics], likely: [graphics] } as unknown as Diagnosis,
      aim: "speed",
      speedPercent: 117,
      steady: false,
      history: [],
      sceneMinutes: 1,
    };
    expect(suggest(input)).toEqual([]);
    expect(suggest({ ...input, speedPercent: 75 }).length).toBeGreaterThan(0);
  });
  it("calls a setting by its label, once, and never by its key", () => {
    const said = advisedWhole(45).map(({ sentence }) => words(sentence));
    expect(said.find((text) => text.includes("vulkan"))).toMatch(/^Back end opengl → vulkan:/);
    for (const text of said) expect(text).not.toMatch(/back_end|(\b[A-Z]\w+( \w+)?) \1/);
  });
  it("not the mode that the job's own sweep measured and didn't keep", () => {
    const sweep = {
      kind: "power",
      arms: [{ conditions: { powerMode: "low" } }, { conditions: { powerMode: "high" } }] as Arm[],
      choice: "keep" as const,
      keptArm: 0,
      decidedAt: new Date(0).toISOString(),
    };
    expect(advised(45, [sweep])).not.toContain("power mode high");
  });
  it("not the back end that an open trial is already trying", () =>
    expect(advised(45, [{ arms: [{}, { settings: { back_end: "vulkan" } }] as unknown as Arm[] }])).toEqual(
      expect.not.arrayContaining(["back_end vulkan"]),
    ));
});
