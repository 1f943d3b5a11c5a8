import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { lamp, lampItself } from "./inTests";

const folder = mkdtempSync(join(tmpdir(), "lamp-"));
const file = (name: string, text: string) => {
  writeFileSync(join(folder, name), text);
  return join(folder, name);
};

describe("lamp compare", () => {
  const log = (name: string, ms: number) =>
    file(
      name,
      `frame time ms\n${Array.from({ length: 900 }, (_, i) => (ms * (1 + 0.03 * Math.sin(i * 1.7))).toFixed(3)).join("\n")}\n`,
    );
  it("prints one object: B over A, with intervals and a decision", async () => {
    const { code, out } = await lamp([
      "compare",
      "--a",
      log("a1.csv", 25),
      log("a2.csv", 25.2),
      "--b",
      log("b1.csv", 20),
      log("b2.csv", 20.1),
      "--json",
    ]);
    expect(code).toBe(0);
    const made = JSON.parse(out);
    expect(Object.keys(made)).toEqual([
      "arms",
      "averageFps",
      "worstTimeLow",
      "fullSpeedTime",
      "hitchesPerMinute",
      "decision",
      "moreRunsPerSide",
      "chanceSettled",
      "steps",
      "notes",
    ]);
    expect(made).toMatchObject({
      arms: { a: { runs: 2 }, b: { runs: 2, averageFps: expect.closeTo(49.9, 0) } },
      averageFps: { ratio: expect.closeTo(1.252, 2) },
      decision: "better",
      moreRunsPerSide: 0,
    });
  });
  it("takes the order of the runs, tells drift from the change, and refuses letters that don't fit", async () => {
    const logs = ["--a", log("a1.csv", 25), log("a2.csv", 25.2), "--b", log("b1.csv", 20), log("b2.csv", 20.1)];
    const mixed = await lamp(["compare", ...logs, "--order", "AABB", "--json"]);
    expect(JSON.parse(mixed.out)).toMatchObject({
      decision: "undecided",
      notes: expect.arrayContaining([expect.stringMatching(/can't be told from what the rig did meanwhile/)]),
    });
    const inTurn = await lamp(["compare", ...logs, "--order", "abba", "--json"]);
    expect(JSON.parse(inTurn.out)).toMatchObject({ decision: "better" });
    const { code, err } = await lamp(["compare", ...logs, "--order", "ABB"]);
    expect([code, err]).toEqual([2, expect.stringMatching(/one A or B a log.*2 A and 2 B/)]);
  });
  it("refuses uneven rounds with one clear line", async () => {
    const { code, err } = await lamp([
      "compare",
      "--rounds",
      "--a",
      log("a1.csv", 25),
      "--b",
      log("b1.csv", 20),
      log("b2.csv", 20),
    ]);
    expect([code, err.trim().split("\n").length]).toEqual([2, 1]);
  });
});

describe("lamp resolution, against values of the trade (common practice)", () => {
  it("prints every scale, the useful one and a sentence", async () => {
    const { code, out } = await lamp(["resolution", "--picture", "320x240", "--display", "1440x900", "--json"]);
    expect(code).toBe(0);
    const made = JSON.parse(out);
    expect(made.scales[3]).toEqual({
      scale: 4,
      width: 1280,
      height: 960,
      pixels: 1_228_800,
      costOfNative: 16,
      displayShare: expect.closeTo(0.948, 3),
      coverage: expect.closeTo(0.8333, 4),
      fits: false,
    });
    expect([made.scales[5].height, made.usefulScale]).toEqual([1440, 4]);
    expect(made.sentence).toMatch(/^Try ×4 first/);
  });
  it("takes several screens, another fit, and pixels that aren't square", async () => {
    const { out } = await lamp([
      "resolution",
      "--screens",
      "384x240,320x240",
      "--display",
      "2340x1080",
      "--filling",
      "integer",
      "--layout",
      "side by side",
      "--json",
    ]);
    expect(JSON.parse(out).scales[0].pixels).toBe(168_960);
    expect((await lamp(["resolution", "--picture", "256x224:1.143", "--display", "1440x900"])).out).toMatch(
      /Covers 8\d\.\d %/,
    );
  });
  it.each<[string, string[]]>([
    ["no picture", ["--display", "1440x900"]],
    ["a bad size", ["--picture", "wide", "--display", "1440x900"]],
    ["an unknown filling", ["--picture", "320x240", "--display", "1440x900", "--filling", "zoom"]],
    ["the same by its name before", ["--picture", "320x240", "--display", "1440x900", "--fit", "zoom"]],
  ])("%s: exit 2 with one clear line", async (_, args) => {
    const { code, err } = await lamp(["resolution", ...args]);
    expect([code, err.trim().split("\n").length]).toEqual([2, 1]);
  });
});

describe("lamp analyse", () => {
  it("prints one object with every figure", async () => {
    const { code, out } = await lampItself([
      "analyse",
      "samples/scale-2-uncapped.csv",
      "--native",
      "30",
      "--target",
      "30",
      "--json",
    ]);
    expect(code).toBe(0);
    const made = JSON.parse(out);
    expect(Object.keys(made)).toEqual([
      "file",
      "form",
      "frames",
      "durationMs",
      "skippedRows",
      "averageFps",
      "speedPercent",
      "medianFrameTimeMs",
      "p95FrameTimeMs",
      "p99FrameTimeMs",
      "maxFrameTimeMs",
      "lows",
      "fullSpeedTimePercent",
      "dips",
      "hitches",
      "freezes",
      "pacing",
      "verdict",
    ]);
    expect(made).toMatchObject({
      file: "scale-2-uncapped.csv",
      form: "frames",
      frames: 878,
      skippedRows: 0,
      averageFps: expect.closeTo(43.9185, 4),
      speedPercent: expect.closeTo(146.395, 3),
      verdict: { grade: "flickers" },
    });
    expect(made.lows).toMatchObject({
      percentile: { one: expect.closeTo(27.1038, 4) },
      worstMean: { one: expect.closeTo(21.8978, 4) },
      worstTime: { one: expect.closeTo(23.5655, 4) },
    });
  });
  it("reads standard input, and prints a page", async () => {
    const { code, out } = await lamp(["analyse", "-"], "frame time ms\n" + "16.667\n".repeat(900));
    expect(code).toBe(0);
    expect(out).toMatch(/^-: Steady, full speed/);
    expect(out).toMatch(/Average +60\.00 fps/);
  });
  it("gives nulls where readings can't say", async () => {
    const { out } = await lamp([
      "analyse",
      file("counter.csv", `time s,fps\n${Array.from({ length: 20 }, (_, i) => `${i},60`).join("\n")}\n`),
      "--json",
    ]);
    expect(JSON.parse(out)).toMatchObject({
      form: "interval",
      p99FrameTimeMs: null,
      lows: { worstTime: { one: null } },
      hitches: { count: null },
      freezes: null,
      pacing: null,
      fullSpeedTimePercent: 100,
    });
  });
  it("takes a column map", async () => {
    const { out } = await lamp([
      "analyse",
      file("odd.csv", "a=b,c\n20000,1\n20000,2\n"),
      "--map",
      "a=b=frameTime:us",
      "--json",
    ]);
    expect(JSON.parse(out).averageFps).toBe(50);
  });
  it.each<[string, string[]]>([
    ["no such file", ["analyse", join(folder, "none.csv")]],
    ["a folder", ["analyse", folder]],
    ["a bad time", ["analyse", file("bad.csv", "frame time ms\n16\n-1\n")]],
    ["an unknown role", ["analyse", file("ok.csv", "x\n16\n"), "--map", "x=colour"]],
    ["a wrong unit", ["analyse", file("ok2.csv", "x\n16\n"), "--map", "x=frameTime:MHz"]],
    ["a bad number", ["analyse", file("ok3.csv", "x\n16\n"), "--native", "fast"]],
    ["an unknown flag", ["analyse", file("ok4.csv", "x\n16\n"), "--colour"]],
  ])("%s: exit 2 with one clear line", async (_, args) => {
    const { code, out, err } = await lamp(args);
    expect(code).toBe(2);
    expect(out).toBe("");
    expect(err.trim().split("\n")).toHaveLength(1);
    expect(err).toMatch(/^lamp: /);
  });
});

describe("lamp tally", () => {
  const tally = async (...args: string[]) => {
    const { code, out, err } = await lamp(["tally", ...args, "--json"]);
    return { code, err, ...(out ? (JSON.parse(out) as Record<string, unknown>) : {}) };
  };
  it("gives light, average with its interval, and effective readings, as the pages do", async () =>
    expect(await tally("59 60 60 59", "--native", "59.94", "--every", "2")).toMatchObject({
      code: 0,
      lights: ["steady"],
      averageFps: 59.5,
      // Student's t with 3 degrees of freedom, 3.182446 · 0.57735 / 2 = 0.919, and half a unit to each side.
      interval: { low: expect.closeTo(58.081, 2), high: expect.closeTo(60.919, 2) },
      readings: 4,
      effective: 4,
      said: expect.arrayContaining([expect.stringMatching(/as far as whole numbers tell/)]),
    }));
  it("two lights where readings leave both open, and speeds as speeds", async () => {
    expect(await tally("48 49 48 49")).toMatchObject({ lights: ["gutters", "dims"], grade: "dims" });
    expect(await tally("85 % 84 % 86 %", "--native", "50")).toMatchObject({
      averageFps: 42.5,
      lights: ["dims"],
    });
    expect(await tally("90 91", "--kind", "speed")).toMatchObject({ averageFps: 54.3 });
  });
  it("typed faster than a counter changes they are fewer", async () =>
    expect(await tally("57 58 59 60 57 58 59 60 57 58", "--every", "0.25")).toMatchObject({
      readings: 10,
      looks: 3,
    }));
  it.each([[["sixty"]], [[""]], [["60", "--kind", "colour"]], [["60", "--every", "0"]]])(
    "%j: exit 2 with one clear line",
    async (args) => {
      const { code, err } = await tally(...args);
      expect(code).toBe(2);
      expect(err).toMatch(/^lamp: .+\n$/);
    },
  );
});
