/** How a picture is put on a display. */
export const fillings = ["contain", "cover", "integer", "stretch"] as const;
export type Filling = (typeof fillings)[number];

/** A rectangle in display pixels. */
export interface Box {
  width: number;
  height: number;
}

/**
 * The size at which a picture is shown.
 *
 * - `contain`: as large as fits, shape kept;
 * - `cover`: as small as fills, shape kept; what hangs over is cut;
 * - `integer`: the greatest whole multiple of the picture that fits, or contained where none does;
 * - `stretch`: the whole display, shape given up.
 *
 * @param picture pixels of the picture, and its shape: width over height as seen, pixel shape included
 * @param display pixels of the display, taken to be square
 * @returns display pixels, not rounded; for `cover` larger than the display in one direction
 */
export function filled(picture: Box & { aspect: number }, display: Box, filling: Filling): Box {
  if (filling === "stretch") return { width: display.width, height: display.height };
  const narrow = picture.aspect < display.width / display.height;
  if (filling === "integer") {
    const times = Math.floor(
      Math.min(display.height / picture.height, display.width / (picture.height * picture.aspect)),
    );
    if (times >= 1) return { width: times * picture.height * picture.aspect, height: times * picture.height };
  }
  const byHeight = filling === "cover" ? !narrow : narrow;
  return byHeight
    ? { width: display.height * picture.aspect, height: display.height }
    : { width: display.width, height: display.width / picture.aspect };
}

/**
 * Share of the display that a fitted picture covers.
 * @returns 0…1
 * @example coverage(fitted({ width: 4, height: 3, aspect: 4 / 3 }, { width: 16, height: 9 }, "contain"), { width: 16, height: 9 }) // → 0.75
 */
export function coverage(shown: Box, display: Box): number {
  return (
    (Math.min(shown.width, display.width) * Math.min(shown.height, display.height)) /
    (display.width * display.height)
  );
}
