import { firstConditions } from "@/core/kit";
import { exampleSetting } from "@/testing/exampleKit";
import { tallyTrace, type Summary } from "@/core/metrics";
import { mostScale, usualFrameMs } from "@/core/sweep";
import type { FrameTrace } from "@/core/trace";
import { judge } from "@/core/verdict";
import { words } from "@/core/words";
import {
  understand,
  type ClocksReading,
  type MemoryReading,
  type PowerReading,
  type ResolutionReading,
  type TrialFacts,
} from ".";
import { exampleSpec, exampleTrial } from "@/testing/exampleTrial";
import { armShape } from "./shapesSchema";

const trace: FrameTrace = {
  form: "frames",
  frameTimes: Float64Array.from({ length: 1200 }, (_, i) => 9 + (i % 5)),
  channels: [],
  marks: [],
};
interface Made {
  arm: number;
  figures?: Partial<Summary>;
}

/** What a sweep of some kind reads from runs with given figures. */
function read(kind: string, levels: (number | null)[], runs: Made[], more: Partial<TrialFacts> = {}) {
  const arms = levels.map((level, at) => ({ name: `arm ${at}`, level }));
  const { facts, traces } = exampleTrial(
    kind,
    arms,
    runs.map(({ arm }) => ({ arm, trace })),
    { usefulScale: 3, screens: [{ width: 320, height: 240, pixelAspect: 1 }], ...more },
  );
  const changed = facts.runs.map((run, at) => ({ ...run, summary: { ...run.summary, ...runs[at]?.figures } }));
  return understand({ ...facts, runs: changed }, traces);
}
const rigWith = (spec: Partial<typeof exampleSpec>): TrialFacts["rig"] => ({
  name: "Lantern",
  revision: 1,
  revisionId: "revision 1",
  spec: { ...exampleSpec, ...spec },
});
const missing = ({ outcome }: ReturnType<typeof read>) => outcome?.notes.map(words).join(" ") ?? "";

describe("sweeps with little to go on say what is missing and give what they can", () => {
  it("one level repeated", () => {
    const made = read("resolution", [2, 3], [{ arm: 0 }, { arm: 0 }]);
    expect(made.reading).toMatchObject({ law: null, arm: null, levels: [{ scale: 2, runs: 2 }] });
    expect(missing(made)).toMatch(/only ×2/);
    expect(made.advice).toMatchObject({ choice: "put back", arm: null });
  });

  it("reversed order changes nothing", () => {
    const levels: [number, number][] = [
      [1, 9],
      [2, 12],
      [3, 20],
    ];
    const sentence = (order: [number, number][]) => {
      const scales = order.map(([scale]) => scale);
      const runs = order.map(([, ms], arm) => ({
        arm,
        figures: { medianFrameTimeMs: ms, p99FrameTimeMs: ms },
      }));
      return words(read("resolution", scales, runs).advice!.sentence);
    };
    expect(sentence([...levels].reverse())).toBe(sentence(levels));
  });

  it("a level of a hundred million is read like any other, and no larger one than a scale can be is offered", () => {
    const runs = [9, 12].map((ms, arm) => ({ arm, figures: { medianFrameTimeMs: ms, p99FrameTimeMs: ms } }));
    const { law, next, levels } = read("resolution", [1, 1.2e8], runs).reading as ResolutionReading;
    expect(levels.map(({ scale }) => scale)).toEqual([1, 1.2e8]);
    expect(law?.predicted.length).toBeLessThanOrEqual(mostScale + 1);
    expect(next?.scale ?? 1).toBeLessThanOrEqual(mostScale);
  });

  it("no trial is planned with such a level", () => {
    const arm = { name: "×1", settings: {}, conditions: {}, buildId: null };
    expect(armShape.safeParse({ ...arm, level: 1.2e8 }).success).toBe(false);
    expect(armShape.safeParse({ ...arm, level: 16 }).success).toBe(true);
  });

  it("display-paced runs are fitted by their means, and it says so", () => {
    const paced = {
      pacing: { cadence: 1, cadenceShare: 0.6, cadenceErrorRms: 0.02, lag1: 0 },
      medianFrameTimeMs: 16.7,
      averageFps: 45,
      channels: {},
    };
    expect(usualFrameMs(paced)).toBeCloseTo(1000 / 45, 9);
    const runs = [0, 1].map((arm) => ({ arm, figures: paced }));
    expect(missing(read("resolution", [1, 2], runs))).toMatch(
      /Let the rate run free.*only measured levels count/,
    );
    const figures = (mean: number) => ({ mean, min: mean, max: mean, last: mean, perMinute: null });
    // 80 % of 22.2 ms: the busier half works 17.8 ms on a frame.
    expect(usualFrameMs({ ...paced, channels: { gpu: figures(80), cpuBusiest: figures(40) } })).toBeCloseTo(
      17.8,
      1,
    );
  });

  it("watts missing, no battery", () => {
    const runs = [40, 62].map((averageFps, arm) => ({ arm, figures: { channels: {}, averageFps } }));
    const made = read("power", [null, null], runs, { rig: rigWith({ batteryWh: null }) });
    expect(missing(made)).toMatch(/Watts are missing.*battery size/);
    expect((made.reading as PowerReading).hours).toEqual([null, null]);
    expect(made.advice).toMatchObject({ choice: "keep", arm: 1 });
  });

  it("no temperature, no limit, no memory readings", () => {
    const bare = rigWith({ temperatureLimitC: null });
    expect(missing(read("heat", [null], [{ arm: 0 }], { rig: bare }))).toMatch(
      /no temperature limit.*logged no temperature/,
    );
    expect(missing(read("memory", [null], [{ arm: 0 }]))).toMatch(/logged no memory/);
    const soak = read("clocks", [1, 2], [{ arm: 0, figures: { durationMs: 600_000, channels: {} } }]);
    expect((soak.reading as ClocksReading).state).toMatchObject({
      lastClean: 0,
      next: { kind: "soak", step: 1 },
    });
    expect(missing(soak)).toMatch(/Temperature wasn't logged/);
  });

  it.each(["resolution", "power", "heat", "clocks", "memory", "rate", "screen", "compare"])(
    "%s without a run says so, and advises nothing",
    (kind) => {
      const made = read(kind, [1, 2], []);
      expect(made).toMatchObject({ reading: null, outcome: null, advice: null });
      expect(made.missing.map(words).join("")).not.toBe("");
    },
  );

  it("past the screen isn't kept, even where it holds", () => {
    const runs = [3, 4, 6, 9].map((ms, arm) => ({
      arm,
      figures: { medianFrameTimeMs: ms, p99FrameTimeMs: ms },
    }));
    const made = read("resolution", [1, 2, 3, 4], runs);
    expect((made.reading as ResolutionReading).arm).toBe(2);
    expect(words(made.advice!.sentence)).toMatch(/past ×3 is past the screen/);
  });

  it("conditions of the example are those of its rig", () =>
    expect(firstConditions(exampleSpec).powerMode).toBe("low"));
});

describe("soaks read off a screen", () => {
  /** A look every so many seconds with what stood beside it. */
  const looks = (every: number, told: { fps: number; temperature?: number; memory?: number }[]) =>
    tallyTrace(told.map(({ fps, ...channels }, at) => ({ fps, second: every * at, scene: "", channels })));
  it("a ladder of clocks stops at the limit that the readings show, and goes back to the last clean step", () => {
    const soaks = [
      [52, 81],
      [58, 85],
      [50, 95],
    ].map(([fps, hottest]) =>
      looks(
        120,
        [20, 12, 6, 2, 0, 0].map((below) => ({ fps: fps!, temperature: hottest! - below })),
      ),
    );
    const arms = ["stock", "+5", "+10"].map((name) => ({ name, level: null }));
    const { facts, traces } = exampleTrial(
      "clocks",
      arms,
      soaks.map((soak, arm) => ({ arm, trace: soak })),
      { rig: rigWith({ temperatureLimitC: 90 }) },
    );
    const { reading, advice } = understand(facts, traces);
    expect(reading).toMatchObject({ state: { lastClean: 1 }, arm: 1 });
    expect(words(advice!.sentence)).toMatch(/\+10 is given up: it reached 95\s°C, the limit is 90\s°C\./);
  });
  it("memory of a reading a minute: its slope, when it is full, and what more would give", () => {
    const minutes = Array.from({ length: 10 }, (_, minute) => ({ fps: 60, memory: 3000 + 50 * minute }));
    const { facts, traces } = exampleTrial(
      "memory",
      [{ name: "as it is", level: null }],
      [{ arm: 0, trace: looks(60, minutes) }],
      { rig: rigWith({ memoryGb: 6 }) },
    );
    const { reading, advice } = understand(facts, traces);
    const { rows, limitMb } = reading as MemoryReading;
    expect(rows[0]!.growth).toMatchObject({ grows: true, mbPerMinute: expect.closeTo(50, 6) });
    expect(rows[0]!.growth!.minutesToLimit).toBeCloseTo((limitMb! - 3000) / 50, 3);
    expect(words(advice!.sentence)).toMatch(/^Memory grows by 50\sMB a minute; .* full after 54\.3\smin\./);
  });
});

describe("scales read off a screen", () => {
  const scale = exampleSetting("scale", {
    type: "number",
    purpose: "scale",
    min: 1,
    max: 12,
    step: 1,
    default: 2,
  });
  /** A sweep of looks: the rate shown at each scale. */
  const looked = (shown: [scale: number, ...fps: number[]][], more: Partial<TrialFacts> = {}) => {
    const arms = shown.map(([level]) => ({ name: `×${level}`, level }));
    const runs = shown.flatMap(([, ...rates], arm) => rates.map((fps) => ({ arm, fps })));
    const tally = (fps: number) => tallyTrace([0, 1, 2].map((at) => ({ fps, second: 5 * at, scene: "" })));
    const { facts, traces } = exampleTrial(
      "resolution",
      arms,
      runs.map(({ arm, fps }) => ({ arm, trace: tally(fps) })),
      { usefulScale: 9, catalogue: [scale], ...more },
    );
    const judged = facts.runs.map((each) => ({ ...each, verdict: judge(each.summary, facts.rules) }));
    return understand({ ...facts, runs: judged }, traces);
  };
  const target = exampleTrial("resolution", [], []).facts.targetFps;
  const said = (made: ReturnType<typeof looked>) => words(made.advice!.sentence);
  it("three looks: the largest that holds, the smallest that doesn't, and the one to try between", () => {
    const made = looked([
      [5, target],
      [7, target],
      [9, 0.85 * target],
    ]);
    expect(said(made)).toMatch(/^×7 is the largest measured that holds .* fps, ×9 doesn't \(.*\): try ×8\.$/);
    expect(made.reading).toMatchObject({ arm: 1, next: { scale: 8 }, law: null });
  });
  it("halves from the useful scale downwards", () =>
    expect(looked([[9, 0.6 * target]]).reading).toMatchObject({
      arm: null,
      next: { scale: 4 },
    }));
  it("rates that nothing holds point at the next", () => {
    // Frame time is 4 ms + 0.6 ms a pixel unit: 60 fps at √((16.7 − 4) / 0.6) = 4.6.
    const at = (level: number) => 1000 / (4 + 0.6 * level ** 2);
    const made = looked(
      [
        [2, 60],
        [10, at(10)],
        [12, at(12)],
      ],
      { targetFps: 60 },
    );
    expect(made.reading).toMatchObject({ next: { scale: 5 } });
    expect(said(made)).toMatch(/where the rates of those that don't hold point/);
  });
  it("neighbours settle it; past the screen nothing is looked for", () => {
    expect(
      said(
        looked([
          [3, target],
          [4, 0.8 * target],
        ]),
      ),
    ).toMatch(/^Keep ×3: ×3 is the largest measured that holds .*, ×4 doesn't/);
    expect(said(looked([[10, target]], { usefulScale: 4 }))).toMatch(
      /^Keep ×4: .*past ×4 is past the screen\.$/,
    );
    expect(said(looked([[1, 0.4 * target]]))).toMatch(/^No scale measured holds .*; look elsewhere\.$/);
  });
  it("looks that contradict each other are said, and nothing is made of them", () => {
    const twice = looked([[4, target, 0.7 * target]]);
    expect(said(twice)).toMatch(/Runs of ×4 contradict each other/);
    expect(twice.advice).toMatchObject({ choice: "put back", arm: null });
    expect(
      said(
        looked([
          [2, 0.7 * target],
          [4, target],
        ]),
      ),
    ).toMatch(/×2 doesn't hold and ×4 does/);
  });
});
