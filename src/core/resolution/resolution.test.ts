import fc from "fast-check";
import { words } from "@/core/words";
import {
  arranged,
  coverage,
  filled,
  physicalSize,
  pixelsAt,
  planScales,
  scaleFor,
  scaleAdvice,
  screenLayouts,
  type ScreenShape,
} from ".";

const screen = (width: number, height: number, pixelAspect = 1): ScreenShape => ({
  width,
  height,
  pixelAspect,
});
const covers = (aspect: number, display: [number, number]) =>
  coverage(
    filled({ width: aspect * 100, height: 100, aspect }, { width: display[0], height: display[1] }, "contain"),
    { width: display[0], height: display[1] },
  );

describe("values of the trade (common practice)", () => {
  it("408 → 544 lines at the same shape is 1.778 times the pixels", () =>
    expect(
      pixelsAt([{ width: 544 * (16 / 9), height: 544 }], 1) /
        pixelsAt([{ width: 408 * (16 / 9), height: 408 }], 1),
    ).toBeCloseTo(1.778, 3));
  it.each([
    [240, 6, 1440],
    [272, 6, 1632],
    [480, 4, 1920],
    [448, 4, 1792],
    [272, 9, 2448],
    [720, 2, 1440],
    [720, 3, 2160],
  ])("%d lines at ×%d are %d", (lines, scale, made) => {
    expect(planScales([screen(lines * 2, lines)], { width: 3840, height: 2160 }).scales[scale - 1].height).toBe(
      made,
    );
  });
  it.each<[string, number, [number, number], number]>([
    ["4:3 on a 16:10 screen", 4 / 3, [16, 10], 0.8333],
    ["4:3 on 16:9", 4 / 3, [16, 9], 0.75],
    ["3:2 on 16:10", 1.5, [16, 10], 0.9375],
  ])("%s covers %s", (_, aspect, display, share) => expect(covers(aspect, display)).toBeCloseTo(share, 4));
  it("a 720-line picture is enough for a 1280×800 screen", () =>
    expect(planScales([screen(1280, 720)], { width: 1280, height: 800 }).usefulScale).toBe(1));
  it("over a cable to a 4K display (ITU-R BT.2020: 3840×2160) a 272-line title wants ×8, and ×9 is past it", () => {
    const { usefulScale, scales } = planScales([screen(480, 272)], { width: 3840, height: 2160 });
    expect(usefulScale).toBe(8);
    expect([scales[7].height, scales[8].height, scales[8].isWithin]).toEqual([2176, 2448, false]);
  });
});

describe("fits", () => {
  const display = { width: 1440, height: 900 };
  it("contains, covers, multiplies and stretches 320×240", () => {
    const picture = { width: 320, height: 240, aspect: 4 / 3 };
    expect(filled(picture, display, "contain")).toEqual({ width: 1200, height: 900 });
    expect(filled(picture, display, "cover")).toEqual({ width: 1440, height: 1080 });
    expect(filled(picture, display, "integer")).toEqual({ width: 960, height: 720 });
    expect(filled(picture, display, "stretch")).toEqual(display);
  });
  it("contains where no whole multiple fits", () =>
    expect(filled({ width: 1920, height: 1080, aspect: 16 / 9 }, display, "integer")).toEqual({
      width: 1440,
      height: 810,
    }));
  it("cover fills the display, contain never leaves it, and shapes are kept", () => {
    const side = fc.integer({ min: 16, max: 4000 });
    fc.assert(
      fc.property(side, side, side, side, (w, h, dw, dh) => {
        const picture = { width: w, height: h, aspect: w / h },
          screen = { width: dw, height: dh };
        const inside = filled(picture, screen, "contain");
        expect(inside.width).toBeLessThanOrEqual(dw * (1 + 1e-9));
        expect(inside.height).toBeLessThanOrEqual(dh * (1 + 1e-9));
        expect(inside.width / inside.height).toBeCloseTo(w / h, 6);
        expect(coverage(filled(picture, screen, "cover"), screen)).toBeCloseTo(1, 9);
        // The textbook form: the smaller aspect over the larger.
        const [a, d] = [w / h, dw / dh];
        expect(coverage(inside, screen)).toBeCloseTo(Math.min(a, d) / Math.max(a, d), 9);
      }),
    );
  });
});

describe("scales", () => {
  it("320×240 on 1440×900: ×4 is the least that fills 900 lines, and ×3 lies within", () => {
    const { scales, usefulScale } = planScales([screen(320, 240)], { width: 1440, height: 900 });
    expect(usefulScale).toBe(4);
    expect(scales[3]).toMatchObject({
      width: 1280,
      height: 960,
      pixels: 1_228_800,
      costOfNative: 16,
      displayShare: expect.closeTo(0.948, 3),
      coverage: expect.closeTo(0.8333, 4),
      linesShown: 900,
      isWithin: false,
      pastScreen: expect.closeTo(0.0667, 4),
    });
    expect(scales[2]).toMatchObject({ height: 720, isWithin: true, pastScreen: 0 });
  });
  it("cost goes with the square of the scale, over all screens", () => {
    const two = planScales([screen(384, 240), screen(320, 240)], { width: 2340, height: 1080 });
    expect(two.scales[0].pixels).toBe(384 * 240 + 320 * 240);
    expect(two.scales.map(({ costOfNative }) => costOfNative)).toEqual([1, 4, 9, 16, 25, 36, 49, 64, 81, 100]);
  });
  it("pixels that aren't square change the shape seen, not the pixels rendered", () => {
    const wide = planScales([screen(256, 224, 8 / 7)], { width: 1440, height: 900 }),
      square = planScales([screen(256, 224)], { width: 1440, height: 900 });
    expect(wide.scales[2].pixels).toBe(square.scales[2].pixels);
    expect(wide.scales[2].coverage).toBeGreaterThan(square.scales[2].coverage);
  });
  it("is past what is listed for a large display", () =>
    expect(planScales([screen(160, 120)], { width: 7680, height: 4320 }).usefulScale).toBeNull());
  it("refuses nothing and nonsense", () => {
    expect(() => planScales([], { width: 10, height: 10 })).toThrow(RangeError);
    expect(() => planScales([screen(0, 10)], { width: 10, height: 10 })).toThrow(RangeError);
  });
});

describe("two screens", () => {
  const both = [screen(384, 240), screen(320, 240)];
  it.each(screenLayouts)("%s: within the whole, without overlap, shapes kept", (layout) => {
    const { aspect, places } = arranged(both, layout);
    for (const place of places) {
      expect(place.left).toBeGreaterThanOrEqual(-1e-9);
      expect(place.left + place.width).toBeLessThanOrEqual(1 + 1e-9);
      expect(place.top + place.height).toBeLessThanOrEqual(1 + 1e-9);
      const own = both[place.screen];
      expect((place.width * aspect) / place.height).toBeCloseTo(own.width / own.height, 6);
    }
    const [a, b] = places;
    expect(a.left + a.width <= b.left + 1e-9 || a.top + a.height <= b.top + 1e-9).toBe(true);
  });
  it("stacked halves the lines each gets; side by side is bound by width", () => {
    const lines = (layout: (typeof screenLayouts)[number]) =>
      planScales(both, { width: 1440, height: 900 }, "contain", layout).scales[0].linesShown;
    expect(lines("stacked")).toBe(450);
    expect(lines("side by side")).toBeCloseTo((1440 / 704) * 240, 9);
    expect(lines("one large")).toBeGreaterThan(lines("stacked"));
  });
});

describe("advice", () => {
  const plan = planScales([screen(640, 448)], { width: 1440, height: 900 });
  it("aims differ, and smooth never costs more than sharp", () => {
    expect(plan.usefulScale).toBe(3);
    expect([scaleFor(plan, "sharp"), scaleFor(plan, "smooth")]).toEqual([3, 2]);
    fc.assert(
      fc.property(
        fc.integer({ min: 100, max: 1300 }),
        fc.integer({ min: 100, max: 800 }),
        fc.integer({ min: 300, max: 4000 }),
        (w, h, d) => {
          const made = planScales([screen(w, h)], { width: d * 1.6, height: d });
          const [sharp, balanced, smooth] = (["sharp", "balanced", "smooth"] as const).map((aim) =>
            scaleFor(made, aim),
          );
          expect(smooth).toBeLessThanOrEqual(balanced);
          expect(balanced).toBeLessThanOrEqual(sharp);
        },
      ),
    );
  });
  it("says which first, and why, in one sentence with figures", () =>
    expect(words(scaleAdvice(planScales([screen(1280, 720)], { width: 1280, height: 800 })))).toBe(
      "Try ×1 first (1280×720): it meets the 720 lines it is shown at exactly, at 1 times the pixels of ×1; ×2 is past the screen and buys only smoothing.",
    ));
  it("a seven-inch 16:10 screen is 150.8 by 94.2 mm (arithmetic; 25.4 mm an inch, ISO 31-1)", () => {
    const { width, height } = physicalSize({ width: 1440, height: 900 }, 7);
    expect(width).toBeCloseTo(150.8, 1);
    expect(height).toBeCloseTo(94.2, 1);
  });
});
