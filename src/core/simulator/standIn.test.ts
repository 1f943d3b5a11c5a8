import { durationOf } from "@/core/trace";
import { plainRig } from "@/core/kit";
import { summarise } from "@/core/metrics";
import { seedOf, standInRun, type StandInAsked } from ".";

const asked = (more: Partial<StandInAsked> = {}): StandInAsked => ({
  spec: plainRig(60),
  powerMode: null,
  title: "Tin Harbour",
  engine: "Plait",
  build: "5.1",
  scale: 2,
  seconds: 30,
  seed: 7,
  ...more,
});
const fps = (more: Partial<StandInAsked> = {}) =>
  summarise(standInRun(asked(more)).trace, { nativeFps: 60, tied: true, targetFps: 60, refreshHz: 60 })
    .averageFps;

describe("a stand-in for a device", () => {
  it('seeds are FNV-1a (published test values of the hash: empty, "a", "foobar")', () =>
    expect([seedOf(""), seedOf("a"), seedOf("foobar")]).toEqual([0x811c9dc5, 0xe40c292c, 0xbf9cf968]));
  it("runs as long as it is asked to, and the same for a seed", () => {
    const { trace } = standInRun(asked());
    const lasted = durationOf(trace) / 1000;
    expect(lasted).toBeGreaterThan(29);
    expect(lasted).toBeLessThan(32);
    expect(standInRun(asked()).trace.frameTimes).toEqual(trace.frameTimes);
    expect(standInRun(asked({ seed: 8 })).trace.frameTimes).not.toEqual(trace.frameTimes);
  });
  it("a title has its own hardness, and more pixels are never faster", () => {
    const titles = ["Tin Harbour", "Salt and Semaphore", "Candle Parade", "Marsh Rally 3"];
    expect(new Set(titles.map((title) => fps({ title }).toFixed(1))).size).toBeGreaterThan(1);
    expect(fps({ scale: 8 })).toBeLessThan(fps({ scale: 1 }));
  });
});
