import { coverage, filled, type Box, type Filling } from "./filling";
import { arranged, type ScreenShape, type ScreenLayout } from "./layout";

/** One internal scale of a system on a display. */
export interface ScaleRow {
  scale: number;
  /** The first screen's picture at this scale. */
  width: number;
  height: number;
  /** Every screen's picture. */
  screens: Box[];
  /** Pixels of all screens together. */
  pixels: number;
  /** Pixels against those of ×1, and against the display's. */
  costOfNative: number;
  displayShare: number;
  /** Share of the display covered, 0…1; the same at every scale unless fitted by whole multiples. */
  coverage: number;
  /** Lines the display gives the first screen at this fit. */
  linesShown: number;
  /** Rendered lines past those shown, as a share of them; 0 when there are none. */
  pastScreen: number;
  /** Whether the picture lies within the display's own pixels. */
  isWithin: boolean;
}

export interface ScalePlan {
  scales: ScaleRow[];
  /** The least scale whose picture has as many lines as it occupies; null when that lies past the most. */
  usefulScale: number | null;
}

/** Pixels of a picture at a scale. @example pixelsAt([{ width: 320, height: 240 }], 2) // → 307,200 */
export function pixelsAt(screens: Box[], scale: number): number {
  return screens.reduce((sum, { width, height }) => sum + scale * width * scale * height, 0);
}

/**
 * Every whole scale of a system on a display: what is rendered, what it costs, what of it is seen.
 *
 * @param screens the system's screens, native pixels
 * @param display the display's pixels
 * @param most    the largest scale listed
 * @throws RangeError without a screen or for sizes that aren't positive
 */
export function planScales(
  screens: ScreenShape[],
  display: Box,
  filling: Filling = "contain",
  layout: ScreenLayout = "stacked",
  most = 10,
): ScalePlan {
  const positive = (box: Box) => box.width > 0 && box.height > 0;
  if (screens.length === 0 || !screens.every(positive) || !positive(display))
    throw new RangeError("a plan needs a screen and a display, both with pixels");
  const whole = arranged(screens, layout);
  const native = pixelsAt(screens, 1);
  const firstPlace = whole.places[0];
  const rows = Array.from({ length: most }, (_, index): ScaleRow => {
    const scale = index + 1;
    const [first] = screens;
    const width = first.width * scale,
      height = first.height * scale;
    // The whole is measured in lines of the first screen, so that whole multiples are whole multiples of its
    // lines.
    const wholeHeight = first.height / firstPlace.height;
    const shown = filled(
      { width: wholeHeight * whole.aspect, height: wholeHeight, aspect: whole.aspect },
      display,
      filling,
    );
    const covered = whole.places.reduce((sum, place) => sum + place.width * place.height, 0);
    const lines = shown.height * firstPlace.height;
    const pixels = pixelsAt(screens, scale);
    return {
      scale,
      width,
      height,
      screens: screens.map((screen) => ({ width: screen.width * scale, height: screen.height * scale })),
      pixels,
      costOfNative: pixels / native,
      displayShare: pixels / (display.width * display.height),
      coverage: coverage(shown, display) * covered,
      linesShown: lines,
      pastScreen: Math.max(0, height / lines - 1),
      isWithin: height <= lines + 1e-6,
    };
  });
  return {
    scales: rows,
    usefulScale: rows.find(({ height, linesShown }) => height >= linesShown - 1e-6)?.scale ?? null,
  };
}
