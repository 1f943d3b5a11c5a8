import type { ObservationRow } from "@/core/records";
import { seeded } from "@/core/stats";
import { Foresight } from "./suggest";

const random = seeded(4);
/** Twelve titles on four rigs of known pace; graphics hold all of them, so that the rate goes with the pixels. */
const paces = { slow: 14, even: 7, quick: 3.5, unused: 5 };
const titles = Array.from({ length: 12 }, (_, k) => ({ titleId: `t${k}`, work: 0.7 + 0.06 * k }));
const row = (titleId: string, rigId: string, scale: number, ms: number): ObservationRow => ({
  titleId,
  engineId: "engine",
  rigId,
  powerMode: "Even",
  clocks: "",
  scale,
  pixels: 0.3,
  fps: 1000 / ms,
  held: false,
});
const frameMs = (work: number, rig: keyof typeof paces, scale: number) =>
  work * paces[rig] * (0.3 * scale ** 2) * Math.exp(0.03 * random.normal()) + 1;
const rows = titles
  .slice(1)
  .flatMap(({ titleId, work }) =>
    (["slow", "even", "quick"] as const).flatMap((rig) =>
      [1, 2, 3].map((scale) => row(titleId, rig, scale, frameMs(work, rig, scale))),
    ),
  );
const asked = { titleId: "t5", engineId: "engine", pixels: 0.3, targetFps: 60, scales: [1, 2, 3, 4] };

describe("where to begin with a title on a rig", () => {
  const foresight = new Foresight(rows, 20);
  it("is a larger scale on a quicker rig, and holds there by the numbers it was made from", () => {
    const scaleOn = (rig: string) => foresight.beginning(asked, rig)!;
    const [slow, even, quick] = ["slow", "even", "quick"].map(scaleOn);
    expect(slow!.scale).toBeLessThanOrEqual(even!.scale);
    expect(even!.scale).toBeLessThan(quick!.scale);
    for (const [rig, { scale, chance }] of [
      ["even", even!],
      ["quick", quick!],
    ] as const) {
      expect(chance).toBeGreaterThanOrEqual(0.7);
      expect(frameMs(1, rig, scale)).toBeLessThan(1000 / 60);
    }
  });
  it("is nothing on a rig that was never measured, and in the modes that were", () => {
    expect(foresight.beginning(asked, "unused")).toBeNull();
    expect(foresight.modesOf("even")).toEqual([{ powerMode: "Even", clocks: "" }]);
    expect(foresight.modesOf("unused")).toEqual([]);
  });
  it("knows engine and picture of a title measured anywhere, and of no other", () => {
    expect(foresight.knownTitle("t5")).toEqual({ engineId: "engine", pixels: 0.3 });
    expect(foresight.knownTitle("t0")).toBeNull();
  });
  it("where no scale holds it names the likeliest, with its chance", () => {
    const hard = foresight.beginning({ ...asked, targetFps: 600 }, "slow")!;
    expect(hard.chance).toBeLessThan(0.7);
    expect(hard.scale).toBe(1);
  });
  it("speaks from enough rows only", () => {
    expect(foresight.speaks).toBe(true);
    expect(new Foresight(rows.slice(0, 7)).speaks).toBe(false);
    expect(new Foresight([]).beginning(asked, "even")).toBeNull();
  });
});
