import { clockIn, isNonFiniteWord, numberIn } from "./cells";
import { layoutOf } from "./layout";
import type { Role, Unit } from "./types";
import { conversion, plausibleClockUnit, plausibleFrameTimeUnit, unitNamed, unitsFor } from "./units";
import { guessColumns, wordsOf } from "./vocabulary";

describe("units", () => {
  it.each<[string, Unit | null]>([
    ["ms", "ms"],
    ["MSEC", "ms"],
    ["milliseconds", "ms"],
    ["µs", "us"],
    ["μs", "us"],
    ["us", "us"],
    ["ns", "ns"],
    ["sec", "s"],
    ["fps", "fps"],
    ["%", "%"],
    ["pct", "%"],
    ["MHz", "MHz"],
    ["GHz", "GHz"],
    ["°C", "C"],
    ["celsius", "C"],
    ["mW", "mW"],
    ["watts", "W"],
    ["MiB", "MB"],
    ["parsec", null],
    ["constructor", null],
  ])("%s names %s", (word, unit) => {
    expect(unitNamed(word)).toBe(unit);
  });

  it.each<[Role, Unit | null, number, number]>([
    ["frameTime", "s", 0.0167, 16.7],
    ["frameTime", "us", 16_700, 16.7],
    ["frameTime", "ns", 16_700_000, 16.7],
    ["frameTime", null, 16.7, 16.7],
    ["cpuClock", "GHz", 2.4, 2400],
    ["cpuClock", "kHz", 2_400_000, 2400],
    ["gpuClock", "Hz", 850e6, 850],
    ["watts", "mW", 14_500, 14.5],
    ["memory", "GB", 7.5, 7500],
    ["memory", "KB", 7_500_000, 7500],
    // 212 °F is the boiling point of water, 100 °C.
    ["temperature", "F", 212, 100],
    ["temperature", "F", 32, 0],
    ["temperature", "C", 81, 81],
  ])("%s in %s: %d is kept as %d", (role, unit, reading, kept) => {
    const { factor, offset } = conversion(role, unit);
    expect(reading * factor + offset).toBeCloseTo(kept, 6);
  });

  it("every role's units convert to a positive factor", () => {
    for (const role of [
      "frameTime",
      "presentTime",
      "cpuClock",
      "gpuClock",
      "watts",
      "temperature",
      "memory",
      "cpu",
      "speed",
      "rate",
    ] as const) {
      for (const unit of unitsFor(role)) {
        expect(conversion(role, unit).factor).toBeGreaterThan(0);
      }
    }
  });

  it.each<[number, Unit]>([
    [0.0167, "s"],
    [16.7, "ms"],
    [500, "ms"],
    [16_700, "us"],
    [16_700_000, "ns"],
  ])("a typical frame of %d is in %s", (median, unit) => {
    expect(plausibleFrameTimeUnit(median)).toBe(unit);
  });

  it.each<[number, number | null, Unit]>([
    [1, 60, "s"],
    [1000, 60, "ms"],
    [0.5, 60, "s"],
    [16.7, 60, "ms"],
    [0.0167, 60, "s"],
    [16_700, 60, "us"],
    [1_000_000, 60, "us"],
    [1_000_000_000, 60, "ns"],
    [16.7, null, "ms"],
  ])("clock steps of %d beside a rate of %s are in %s", (step, rate, unit) => {
    expect(plausibleClockUnit(step, rate)).toBe(unit);
  });
});

describe("cells", () => {
  it.each<[string | undefined, boolean, number]>([
    ["16.7", false, 16.7],
    [" 16.7 ", false, 16.7],
    ["1e3", false, 1000],
    ["-4", false, -4],
    ["16,7", true, 16.7],
    ["45 °C", false, 45],
    ["60%", false, 60],
    ["14.5W", false, 14.5],
    ["60 fps", false, 60],
    [".5", false, 0.5],
    ["", false, NaN],
    ["   ", false, NaN],
    [undefined, false, NaN],
    ["n/a", false, NaN],
    ["12 parrots", false, NaN],
    ["2026-11-24", false, NaN],
    ["0x10", false, NaN],
    ["0", false, 0],
    ["-0", false, -0],
    ["007", false, 7],
    ["+12", false, 12],
    [" 9", false, 9],
    ["  ", false, NaN],
    ["\t", false, NaN],
    [" 0b1", false, NaN],
    ["1e3", false, 1000],
    [" 0b11", false, NaN],
    ["0", false, 0],
    ["12 \uFFFDC", false, 12],
  ])("%s (decimal comma %s) holds %d", (cell, comma, value) => {
    expect(numberIn(cell, comma)).toEqual(value);
  });

  it.each<[string, number]>([
    ["00:00:01.5", 1500],
    ["10:00:00", 36_000_000],
    ["1:02:03,25", 3_723_250],
    ["2026-11-24T00:00:01Z", Date.UTC(2026, 10, 24, 0, 0, 1)],
    ["2026-11-24 00:00:01.125", Date.UTC(2026, 10, 24, 0, 0, 1, 125)],
  ])("the clock %s is %d ms", (cell, ms) => {
    expect(clockIn(cell)).toBe(ms);
  });

  it.each(["16.7", "", "noon", "1:2", undefined])("%s is no clock", (cell) => {
    expect(clockIn(cell)).toBeNaN();
  });

  it.each(["nan", "NaN", "inf", "-Infinity", " INF "])("%s stands for a number that isn't finite", (word) => {
    expect(isNonFiniteWord(word)).toBe(true);
  });

  it.each(["", "none", "info", "nano"])("%s doesn't", (word) => {
    expect(isNonFiniteWord(word)).toBe(false);
  });
});

describe("words of a header", () => {
  it.each<[string, string[], Unit | null]>([
    ["Frame-Time [ms]", ["frame", "time"], "ms"],
    ["frametime_ms", ["frame", "time"], "ms"],
    ["frameTimeMs", ["frame", "time"], "ms"],
    ["CPU Usage (%)", ["cpu", "usage"], "%"],
    ["GPU °C", ["gpu"], "C"],
    ["frames per second", [], "fps"],
    ["cpuload%", ["cpu", "load"], "%"],
    ["Température", ["température"], null],
    ["c", ["c"], null],
    ["", [], null],
  ])("%s", (header, words, unit) => {
    expect(wordsOf(header)).toEqual({ words, unit });
  });

  it("gives each role to one column only", () => {
    const made = guessColumns([
      "frame time ms",
      "frame delta ms",
      "elapsed s",
      "timestamp",
      "cpu %",
      "cpu load %",
    ]);
    const given = made.map(({ role }) => role).filter((role) => role !== "ignore");
    expect(new Set(given).size).toBe(given.length);
    expect(given.sort()).toEqual(["cpu", "frameTime", "presentTime"]);
  });
});

describe("how a log is laid out", () => {
  it("finds a header under a preamble of another width", () => {
    const made = layoutOf([
      "Device: bench",
      "Notes, with, many, commas, in, it",
      "time s,frame time ms,gpu %",
      "0.1,16.7,50",
      "0.2,16.8,51",
      "0.3,16.6,52",
    ]);
    expect(made).toMatchObject({ delimiter: ",", headerLine: 3, decimalComma: false });
    expect(made.columns.map(({ role }) => role)).toEqual(["presentTime", "frameTime", "gpu"]);
  });

  it("names columns that have no header by their place", () => {
    expect(layoutOf(["1,16.7", "2,16.8", "3,16.6"])).toMatchObject({
      headerLine: null,
      header: ["column 1", "column 2"],
    });
  });

  it("takes a comma between digits for a decimal mark when nothing else parts the cells", () => {
    expect(layoutOf(["frame time ms", "16,7", "16,8"])).toMatchObject({ decimalComma: true });
    expect(layoutOf(["a,b", "16,7", "16,8"])).toMatchObject({ delimiter: ",", decimalComma: false });
  });

  it("passes over comments of every kind", () => {
    expect(layoutOf(["# one", "// two", "-- three", "! four", "frame time ms", "16.7"])).toMatchObject({
      headerLine: 5,
    });
  });
});
