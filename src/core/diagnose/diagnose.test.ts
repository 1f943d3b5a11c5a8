import { words } from "@/core/words";
import { readFileSync } from "node:fs";
import { summarise, tallyTrace, type Segment, type Summary } from "@/core/metrics";
import { readLog, type FrameTrace } from "@/core/trace";
import { readingOf } from "@/testing/readingOf";
import { hitchEvidence } from "./hitches";
import { causes, diagnose, type DiagnoseInput } from ".";
import { labelledCase, scoreDiagnosis } from "@/testing/labelledRuns";

const limits = {
  temperatureC: 95,
  memoryMb: 8000,
  modeWatts: 20,
  processorMhz: 4000,
  graphicsMhz: 2000,
  refreshHz: 60,
};
const segment = (changes: Partial<Segment> = {}): Segment => ({
  label: "hall",
  visit: 1,
  startMs: 0,
  endMs: 20_000,
  averageFps: 45,
  medianFrameTimeMs: 22.2,
  cadence: 1,
  cadenceShare: 0.6,
  hitches: 0,
  lostMs: 0,
  entryLostMs: 0,
  means: {},
  ...changes,
});
const base = summarise(
  { form: "frames", frameTimes: new Float64Array(900).fill(22.2), channels: [], marks: [] },
  { nativeFps: 60, tied: true, targetFps: 60, refreshHz: 60 },
);
const input = (
  segments: Segment[],
  more: Partial<DiagnoseInput> = {},
  summary: Partial<Summary> = {},
): DiagnoseInput => ({
  summary: { ...base, ...summary, segments },
  cacheState: "warm",
  crashed: false,
  limits,
  ...more,
});
const first = (made: DiagnoseInput) => diagnose(made).causes[0]?.cause ?? null;

it("the log's own beginning names no storage: anything may still be loading", () => {
  const scenes = (firstLost: number, laterLost: number) => [
    segment({
      label: "gate",
      lostMs: firstLost,
      entryLostMs: firstLost,
      hitches: 4,
      averageFps: 59,
      medianFrameTimeMs: 16.7,
    }),
    segment({
      label: "hall",
      lostMs: laterLost,
      entryLostMs: laterLost,
      hitches: 4,
      averageFps: 59,
      medianFrameTimeMs: 16.7,
    }),
  ];
  const named = (segments: Segment[]) =>
    hitchEvidence(segments, "warm").filter(({ cause }) => cause === "storage");
  expect(named(scenes(900, 0))).toEqual([]);
  expect(named(scenes(0, 900))).toHaveLength(1);
});

describe("what holds a run back, sign by sign", () => {
  it.each<[string, Partial<Segment["means"]>, string | null]>([
    ["the busiest core is full", { cpuBusiest: 97, gpu: 50, cpuClock: 4000, gpuClock: 1500 }, "processor"],
    ["graphics is full", { cpuBusiest: 50, gpu: 97, cpuClock: 3000, gpuClock: 2000 }, "graphics"],
    [
      "a busy core at half its clock, cool and on few watts",
      { cpuBusiest: 96, gpu: 40, cpuClock: 2000, watts: 6, temperature: 55 },
      "governor",
    ],
    [
      "a busy core at a low clock near the limit",
      { cpuBusiest: 96, gpu: 40, cpuClock: 2600, watts: 15, temperature: 94 },
      "heat",
    ],
    [
      "graphics starved at the mode's watts while the processor boosts",
      { cpuBusiest: 60, gpu: 97, cpuClock: 4000, gpuClock: 1300, watts: 19.8, temperature: 70 },
      "power split",
    ],
    ["neither busy, no cap", { cpuBusiest: 45, gpu: 40 }, "engine or driver"],
  ])("%s: %s", (_name, means, cause) => {
    expect(first(input([segment({ means: means })]))).toBe(cause);
  });
  describe("what wasn't logged makes a sign weaker, and leaves the other explanations standing", () => {
    const likely = (means: Partial<Segment["means"]>, more: Partial<Summary> = {}) =>
      diagnose(input([segment({ means })], {}, more)).likely;
    const fullEarlier = { cpuClock: { mean: 3300, min: 2900, max: 4000, last: 2900, perMinute: null } };
    it.each<[string, Partial<Segment["means"]>, string]>([
      [
        "at the mode's watts with graphics full, its clock not logged",
        { cpuBusiest: 50, gpu: 97, cpuClock: 4000, watts: 19.8 },
        "power split",
      ],
      [
        "at the mode's watts with graphics full at a low clock, the other clock not logged",
        { cpuBusiest: 50, gpu: 97, gpuClock: 1300, watts: 19.8 },
        "power split",
      ],
      [
        "at the mode's watts, graphics' load not logged and its clock low beside a full one",
        { cpuBusiest: 40, cpuClock: 4000, gpuClock: 1200, watts: 19.8 },
        "power split",
      ],
      [
        "graphics full at a low clock beside a processor at its full one, watts not logged",
        { cpuBusiest: 30, gpu: 96, cpuClock: 3980, gpuClock: 900, temperature: 60 },
        "power split",
      ],
      [
        "the same beside a low clock of the processor: what saves, saves on both",
        { cpuBusiest: 30, gpu: 96, cpuClock: 1300, gpuClock: 900, temperature: 60 },
        "governor",
      ],
      [
        "near the limit of heat, the busy half's clock not logged",
        { cpuBusiest: 96, gpu: 40, temperature: 94 },
        "heat",
      ],
      [
        "near the limit of heat, at a low clock, the load not logged",
        { gpu: 40, cpuClock: 2500, temperature: 94 },
        "heat",
      ],
      [
        "a processor that does much at a low clock, its busiest core not logged",
        { cpu: 48, gpu: 40, cpuClock: 1400, watts: 6, temperature: 55 },
        "governor",
      ],
      ["a whole processor that can hide a full core", { cpu: 30, gpu: 40 }, "processor"],
      ["a whole processor that hardly works, and graphics with room", { cpu: 8, gpu: 40 }, "engine or driver"],
      [
        "a core with room, graphics not logged and at its full clock",
        { cpuBusiest: 30, cpuClock: 2000, gpuClock: 1990 },
        "graphics",
      ],
      [
        "a core with room, graphics not logged and at a low clock",
        { cpuBusiest: 30, cpuClock: 2000, gpuClock: 700 },
        "engine or driver",
      ],
    ])("%s: %s", (_name, means, cause) => {
      const [strongest] = likely(means);
      expect(strongest?.cause).toBe(cause);
      expect(words(strongest!.evidence[0]!.sign).length).toBeGreaterThan(20);
    });
    it("names the columns that would tell them apart", () => {
      const settleOf = (means: Partial<Segment["means"]>, channels: Summary["channels"]) =>
        words(diagnose(input([segment({ means })], {}, { channels })).settle!);
      const channel = { mean: 1, min: 1, max: 1, last: 1, perMinute: null };
      const means = { cpuBusiest: 30, gpu: 96, cpuClock: 3980, gpuClock: 900, temperature: 60 };
      const logged = {
        cpuBusiest: channel,
        gpu: channel,
        cpuClock: channel,
        gpuClock: channel,
        temperature: channel,
      };
      expect(settleOf(means, logged)).toMatch(/^Log watts as well/);
      const { gpuClock: _, ...fewer } = logged;
      expect(settleOf({ ...means, gpuClock: undefined, watts: 19.8 }, { ...fewer, watts: channel })).toMatch(
        /^Log the graphics clock as well/,
      );
    });
    it("is never sure of a core that nobody read", () => {
      for (const cpu of [20, 40, 60, 75]) expect(likely({ cpu, gpu: 40 })[0]?.chance).toBeLessThan(0.8);
    });
    it("a clock that was full earlier in the run is taken back, with heat not logged: heat before the processor", () => {
      const made = likely({ cpuBusiest: 96, gpu: 40, cpuClock: 3200, watts: 12 }, { channels: fullEarlier });
      expect(made[0]?.cause).toBe("heat");
      expect(words(made[0]!.evidence[0]!.sign)).toMatch(
        /80 % from 100 % earlier in the run; heat wasn't logged/,
      );
    });
    it("a clock a little low is no work where its full one would hold the target", () => {
      // 96 % of 1000/56 ms at nine tenths of the clock is 15.4 ms at the full one, of the 16.7 that 60 fps
      // allow: arithmetic.
      const of = (averageFps: number) =>
        diagnose(
          input([
            segment({
              averageFps,
              means: { cpuBusiest: 96, gpu: 40, cpuClock: 3600, watts: 12, temperature: 70 },
            }),
          ]),
        ).likely[0]?.cause;
      expect(of(56)).toBe("governor");
      // 34.6 ms are long at any clock.
      expect(of(25)).toBe("processor");
    });
  });
  it("frames on exactly two refreshes and nobody busy: a cap or the display", () => {
    expect(
      first(
        input([
          segment({
            averageFps: 30,
            medianFrameTimeMs: 1000 / 30,
            cadence: 2,
            cadenceShare: 0.99,
            means: { cpuBusiest: 40, gpu: 35 },
          }),
        ]),
      ),
    ).toBe("cap or sync");
  });
  it("what is lost on first visits only is shaders; on every visit, storage", () => {
    const visit = (n: number, lostMs: number, entryLostMs = lostMs): Segment =>
      segment({
        visit: n,
        averageFps: 59,
        medianFrameTimeMs: 16.7,
        hitches: lostMs > 0 ? 3 : 0,
        lostMs,
        entryLostMs,
      });
    expect(first(input([visit(1, 900), visit(2, 0)]))).toBe("shaders");
    expect(first(input([visit(1, 500), visit(2, 480)]))).toBe("storage");
  });
  it("hitches seen once, cache unknown: not enough evidence, and what would settle it", () => {
    const made = diagnose(
      input([segment({ averageFps: 59, medianFrameTimeMs: 16.7, hitches: 4, lostMs: 400, entryLostMs: 350 })], {
        cacheState: "unknown",
      }),
    );
    expect(made.causes).toEqual([]);
    expect(words(made.settle!)).toMatch(/twice in one run/);
  });
  it("memory that grows towards its wall counts even at full speed, and more when the run died there", () => {
    const memory = { mean: 6000, min: 4000, max: 7500, last: 7500, perMinute: 200 };
    expect(
      first(input([segment({ averageFps: 60, medianFrameTimeMs: 16.67 })], {}, { channels: { memory } })),
    ).toBe("memory");
    expect(
      diagnose(
        input(
          [segment({ averageFps: 60, medianFrameTimeMs: 16.67 })],
          { crashed: true },
          { channels: { memory } },
        ),
      ).causes[0].evidence[0].sign,
    ).toEqual({ code: "sign.diedFull", figures: { megabytes: 7500, ofMb: expect.any(Number) } });
  });
  it("no telemetry: it says what to log or try instead of guessing", () => {
    expect(diagnose(input([segment()]))).toMatchObject({
      causes: [],
      settle: { code: "settle.halfScaleOrLoad" },
    });
  });
  const atRate = (averageFps: number, fullSpeedTimePercent: number) => {
    const scene = segment({ averageFps, medianFrameTimeMs: 1000 / averageFps });
    return words(diagnose(input([scene], {}, { averageFps, fullSpeedTimePercent })).sentence);
  };
  it("full speed: nothing holds it back", () => expect(atRate(60, 100)).toMatch(/^Nothing holds it back/));
  it("a little under full speed isn't called full speed throughout", () =>
    expect(atRate(59.5, 91)).toMatch(/^A little under full speed, 99\.2 % on average and at it for 91\.0 %/));
  it("different causes in different parts are told apart", () => {
    const made = diagnose(
      input([
        segment({ means: { cpuBusiest: 97, gpu: 40, cpuClock: 4000 } }),
        segment({
          label: "field",
          startMs: 20_000,
          endMs: 40_000,
          means: { cpuBusiest: 40, gpu: 97, gpuClock: 2000 },
        }),
      ]),
    );
    expect(made.segments.map(({ cause }) => cause)).toEqual(["processor", "graphics"]);
  });
});

describe("what other runs say", () => {
  const slow = [segment()];
  it("even at native short of full speed: not the pixels", () => {
    const made = diagnose(
      input([segment({ means: { gpu: 95, gpuClock: 2000 } })], {
        scale: {
          pixels: 3e5,
          medianMs: 25,
          isNative: false,
          targetFps: 60,
          others: [{ pixels: 7.5e4, medianMs: 22, isNative: true }],
        },
      }),
    );
    expect(made.causes.map(({ cause }) => cause)).not.toContain("graphics");
  });
  it("a frame that goes with pixels: graphics, with the share", () => {
    const made = diagnose(
      input(slow, {
        scale: {
          pixels: 3e5,
          medianMs: 22,
          isNative: false,
          targetFps: 60,
          others: [{ pixels: 7.5e4, medianMs: 10, isNative: true }],
        },
      }),
    );
    expect(made.causes[0].cause).toBe("graphics");
    expect(made.pixelShare).toBeCloseTo(((12 / 2.25e5) * 3e5) / 22, 6);
  });
  it.each([
    ["less watts", 1.08, "power split"],
    ["forced clocks", 1.8, "governor"],
    ["cooler", 1.1, "heat"],
    ["cap lifted", 1.5, "cap or sync"],
  ] as const)("%s at %d: %s", (what, ratio, cause) =>
    expect(first(input(slow, { conditions: [{ what, name: "other", ratio }] }))).toBe(cause),
  );
  it("changes inside the spread say nothing", () =>
    expect(first(input(slow, { conditions: [{ what: "cooler", name: "cooler", ratio: 1.02 }] }))).toBeNull());
});

describe("on measured logs", () => {
  const measured = (file: string) => {
    const { trace } = readingOf(readLog(readFileSync(`samples/${file}.csv`, "utf8")));
    return {
      trace: trace as FrameTrace,
      summary: summarise(trace, { nativeFps: 60, tied: true, targetFps: 60, refreshHz: 60 }),
    };
  };
  const pixels = (scale: number) => 320 * 240 * scale ** 2;
  const sweep = (file: (scale: number) => string, scale: number, others: number[]): DiagnoseInput => {
    const { summary } = measured(file(scale));
    return {
      summary,
      cacheState: "warm",
      crashed: false,
      limits: { ...limits, refreshHz: 60 },
      scale: {
        pixels: pixels(scale),
        medianMs: summary.medianFrameTimeMs!,
        isNative: scale === 1,
        targetFps: 60,
        others: others.map((other) => ({
          pixels: pixels(other),
          medianMs: measured(file(other)).summary.medianFrameTimeMs!,
          isNative: other === 1,
        })),
      },
    };
  };
  it("the scale sweep is graphics-bound", () => {
    for (const scale of [3, 4, 5, 6, 8])
      expect(
        first(
          sweep(
            (s) => `scale-${s}-uncapped`,
            scale,
            [1, 2, 3, 4, 5, 6, 8].filter((s) => s !== scale),
          ),
        ),
      ).toBe("graphics");
  });
  it("the processor-heavy pair is not", () => {
    for (const [scale, other] of [
      [1, 3],
      [3, 1],
    ])
      expect(first(sweep((s) => `cpu-heavy-scale-${s}`, scale, [other]))).not.toBe("graphics");
  });
});

describe("on labelled simulated runs", () => {
  it("every cause can be drawn, and equal seeds give equal cases", () => {
    for (const cause of causes)
      expect(labelledCase(cause, 7).input.summary.averageFps).toBe(
        labelledCase(cause, 7).input.summary.averageFps,
      );
  });
  it("is right at least 85 % of the time (a small part of `npm run bench -- diagnosis`)", () => {
    const { right, cases } = scoreDiagnosis(6, 700_000);
    expect(right / cases).toBeGreaterThanOrEqual(0.85);
  }, 60_000);
});

describe("from readings off a screen, with what was read beside them", () => {
  /** Looks of one rate, each with the same readings beside it. */
  const looked = (fps: number, channels: Partial<Record<"gpu" | "cpuBusiest" | "cpu" | "watts", number>>) =>
    summarise(tallyTrace([0, 1, 2, 3].map((at) => ({ fps, second: 5 * at, scene: "", channels }))), {
      nativeFps: 60,
      tied: true,
      targetFps: 60,
      refreshHz: 60,
    });
  const of = (summary: Summary, more: Partial<DiagnoseInput> = {}) =>
    diagnose({ summary, cacheState: "unknown", crashed: false, limits, ...more });
  it("the half that works longer on a frame leads, though no clock was read", () => {
    const made = of(looked(24, { gpu: 97, cpuBusiest: 88 }));
    expect(made.causes[0]).toMatchObject({ cause: "graphics" });
    expect(made.causes[0]!.chance).toBeGreaterThan(0.6);
    expect(words(made.sentence)).toMatch(/Graphics holds it back.*Graphics is 97.% busy/);
    expect(of(looked(24, { gpu: 91, cpuBusiest: 99 })).causes[0]).toMatchObject({ cause: "processor" });
  });
  it("without loads it says what to read, not to log frames", () => {
    const made = of(looked(24, {}));
    expect(made.causes).toEqual([]);
    expect(words(made.settle!)).toMatch(/Read the loads beside the rate/);
  });
  it("a rate that holds still over one scene is no cap by that alone", () => {
    for (const code of of(looked(45, { gpu: 60, cpuBusiest: 55 })).likely.flatMap(({ cause }) => cause))
      expect(code).not.toBe("cap or sync");
  });
  it("a title that asks for more memory than the rig leaves is told so", () => {
    const made = of(looked(24, {}), { limits: { ...limits, neededMb: 12_288 } });
    expect(made.likely.map(({ cause }) => cause)).toContain("memory");
    expect(words(made.likely[0]!.evidence[0]!.sign)).toMatch(
      /said to need 12\.0 GB, and the rig leaves about 7\.8/,
    );
  });
});
