import { durationOf } from "@/core/trace";
import { judge } from "@/core/verdict";
import { summarise } from "@/core/metrics";
import {
  clockFor,
  deviceUnder,
  governorClock,
  heatFactor,
  settledPower,
  simulate,
  underSettings,
  wattsAt,
  type SimDevice,
  type SimProfile,
  type SimWorkload,
} from ".";

const forced = { floor: 1, sees: 1 };
const device: SimDevice = {
  refreshHz: 60,
  processorSpeed: 1,
  graphicsSpeed: 1,
  processorMhz: 3000,
  graphicsMhz: 1500,
  processorMaxWatts: 10,
  graphicsMaxWatts: 10,
  idleWatts: 3,
  budgetWatts: 40,
  processorFirstWatts: 20,
  spin: 0.3,
  coreShare: 0.4,
  governor: forced,
  roomC: 20,
  degreesPerWatt: 2,
  settleSeconds: 60,
  limitC: 95,
  startC: 30,
  memoryMb: 8000,
};
const work: SimWorkload = {
  nativeFps: 60,
  capFps: 60,
  processorMs: 8,
  graphicsMs: 2,
  graphicsMsPerMegapixel: 4,
  waitMs: 0,
  megapixels: 0.3,
  scenes: [{ label: "hall", seconds: 20, processor: 1, graphics: 1, newShaders: 6 }],
  passes: 2,
  compileMs: 200,
  storageMs: 0,
  memoryStartMb: 2000,
  memoryMbPerMinute: 0,
  repeatsFrames: false,
  unevenPacing: false,
  strictSync: false,
};
const at = (changes: Partial<SimWorkload>, scale = 1) => ({ ...work, ...changes, scale });
const figures = (run: ReturnType<typeof simulate>, nativeFps = 60) =>
  summarise(run.trace, { nativeFps, tied: true, targetFps: nativeFps, refreshHz: 60 });

describe("the simulated bench", () => {
  it("repeats itself for a seed and varies between seeds", () => {
    const one = simulate(device, at({ capFps: null }), 5, false).trace.frameTimes;
    expect(simulate(device, at({ capFps: null }), 5, false).trace.frameTimes).toEqual(one);
    expect(simulate(device, at({ capFps: null }), 6, false).trace.frameTimes).not.toEqual(one);
  });
  it("holds a cap it can hold, on whole refreshes", () =>
    expect(figures(simulate(device, at({}), 1, false)).pacing).toMatchObject({
      cadence: 1,
      cadenceShare: expect.closeTo(1, 2),
    }));
  it("is bound by graphics at a high scale, and scale frees it; a heavy processor is not helped", () => {
    const fps = (changes: Partial<SimWorkload>, scale: number) =>
      figures(simulate(device, at({ capFps: null, ...changes }, scale), 3, false)).averageFps;
    expect(fps({}, 1) / fps({}, 5)).toBeGreaterThan(2);
    expect(fps({ processorMs: 40 }, 1) / fps({ processorMs: 40 }, 3)).toBeLessThan(1.15);
  });
  it("compiles on a cold first visit and not on the second", () => {
    const { coldScenes } = figures(simulate(device, at({}), 2, true));
    expect(coldScenes).toEqual({ cold: 1, revisited: 1 });
    expect(figures(simulate(device, at({}), 2, false)).coldScenes).toEqual({ cold: 0, revisited: 1 });
  });
  it("shows old frames at full pace while the title crawls, and reports the speed", () => {
    const made = figures(simulate(device, at({ processorMs: 22, repeatsFrames: true }), 4, false));
    expect(made.averageFps).toBeCloseTo(60, 0);
    expect(made.reportedSpeedPercent!).toBeLessThan(80);
    expect(judge(made).grade).toBe("gutters");
  });
  it("paces unevenly when told to, at the same average", () => {
    const made = figures(simulate(device, at({ nativeFps: 30, capFps: 30, unevenPacing: true }), 4, false), 30);
    expect(made.averageFps).toBeCloseTo(30, 0);
    expect(made.pacing!.lag1!).toBeLessThan(-0.9);
  });
  it("dies when memory runs out, and the trace ends there", () => {
    const { crashed, trace } = simulate(
      { ...device, memoryMb: 2100 },
      at({ memoryMbPerMinute: 600 }),
      1,
      false,
    );
    expect(crashed).toBe(true);
    expect(durationOf(trace)).toBeCloseTo(10_000, -2);
  });
  it("warms as a first-order system: 63.2 % of the way after one time constant (textbook)", () => {
    const { trace } = simulate({ ...device, settleSeconds: 10 }, at({ passes: 4, capFps: 60 }), 9, false);
    const heat = trace.channels.find(({ role }) => role === "temperature")!;
    const settled = heat.values[heat.values.length - 1];
    const atTau = heat.values[heat.times.findIndex((ms) => ms >= 10_000)];
    expect((atTau - 30) / (settled - 30)).toBeCloseTo(0.632, 1);
  });
  it("takes clocks back near the limit, never under about a third", () => {
    expect(heatFactor(80, 95)).toBe(1);
    expect(heatFactor(95, 95)).toBeCloseTo(0.8, 9);
    expect(heatFactor(120, 95)).toBe(0.35);
  });
  it("eight times the watts are twice the clock (draw goes with the cube of the clock: common practice)", () => {
    expect(clockFor(8, 8, 1) / clockFor(1, 8, 1)).toBeCloseTo(2, 9);
    expect(wattsAt(10, clockFor(4, 10, 0.8), 0.8)).toBeCloseTo(4, 9);
  });
  it("a mode with more watts starves graphics when its firmware lets the processor boost", () => {
    const mode = (budgetWatts: number, processorFirstWatts: number) =>
      settledPower(
        { ...device, processorMaxWatts: 22, graphicsMaxWatts: 14, spin: 0.6, budgetWatts, processorFirstWatts },
        0.9,
        1,
        50,
      );
    const less = mode(19, 8.5),
      more = mode(28, 21);
    expect(more.watts).toBeGreaterThan(less.watts);
    expect(more.processor).toBeGreaterThan(less.processor);
    expect(more.graphics).toBeLessThan(less.graphics);
  });
  it("a governor that sees a mean over idle cores leaves clocks low; forcing them doubles the rate", () => {
    const sleepy = { floor: 0.25, sees: 0.42 };
    expect(governorClock(sleepy, 1)).toBeLessThan(0.5);
    const fps = (governor: SimDevice["governor"]) =>
      figures(simulate({ ...device, governor }, at({ capFps: null, processorMs: 25 }), 3, false)).averageFps;
    expect(fps(forced) / fps(sleepy)).toBeGreaterThan(2);
  });
  it("a strict wait for the display halves a rate just missed; working ahead doesn't", () => {
    const fps = (strictSync: boolean) =>
      figures(simulate(device, at({ processorMs: 17.5, strictSync }), 3, false)).averageFps;
    expect(fps(true)).toBeLessThan(35);
    expect(fps(false)).toBeGreaterThan(50);
  });
  it("conditions choose mode, governor, display and cooler", () => {
    const profile: SimProfile = {
      device,
      modes: { Low: { budgetWatts: 8, processorFirstWatts: 4 } },
      governors: { quiet: { floor: 0.2, sees: 0.5 } },
      coolerFactor: 0.5,
      pluggedFactor: 1.25,
      displays: { television: 50 },
    };
    const none = { powerMode: null, clocks: null, display: null, pluggedIn: false, cooler: false, roomC: null };
    expect(deviceUnder(profile, none)).toEqual(device);
    expect(
      deviceUnder(profile, {
        powerMode: "Low",
        clocks: "quiet",
        display: "television",
        pluggedIn: true,
        cooler: true,
        roomC: 25,
      }),
    ).toMatchObject({
      budgetWatts: 10,
      processorFirstWatts: 5,
      governor: { floor: 0.2 },
      refreshHz: 50,
      degreesPerWatt: 1,
      roomC: 25,
      startC: 35,
    });
  });
  it("settings act by their values, and unknown ones do nothing", () => {
    const made = underSettings(
      work,
      { scale: 3, back_end: "Vulkan", other: true },
      { scale: { 3: { scale: 3 } }, back_end: { Vulkan: { graphics: 0.5 } } },
    );
    expect(made).toMatchObject({ scale: 3, graphicsMs: 1, graphicsMsPerMegapixel: 2, processorMs: 8 });
  });
});
