import { words } from "@/core/words";
import { readFileSync } from "node:fs";
import { summarise, type Segment, type Summary } from "@/core/metrics";
import { readLog, type FrameTrace } from "@/core/trace";
import { hitchEvidence } from "./evidence";
import { causes, diagnose, labelledCase, scoreDiagnosis, type DiagnoseInput } from ".";

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
    ["a whole-processor reading that hides a full core", { cpu: 30, gpu: 40 }, null],
  ])("%s: %s", (_name, means, cause) => {
    expect(first(input([segment({ means: means })]))).toBe(cause);
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
  it("full speed: nothing holds it back", () =>
    expect(words(diagnose(input([segment({ averageFps: 60, medianFrameTimeMs: 16.67 })])).sentence)).toMatch(
      /^Nothing holds it back/,
    ));
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
    const read = readLog(readFileSync(`samples/${file}.csv`, "utf8"));
    if (!read.ok) throw new Error(read.problem.message);
    return {
      trace: read.reading.trace as FrameTrace,
      summary: summarise(read.reading.trace, { nativeFps: 60, tied: true, targetFps: 60, refreshHz: 60 }),
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
