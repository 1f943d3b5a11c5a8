import type { Box } from "./filling";

/** One of a system's screens: pixels and their shape (width over height, 1 for square). */
export interface ScreenShape extends Box {
  pixelAspect: number;
}

/** How several screens share a display. */
export const screenLayouts = ["stacked", "side by side", "one large"] as const;
export type ScreenLayout = (typeof screenLayouts)[number];

/** Size as seen, in units of the screen's own lines. */
const seen = ({ width, height, pixelAspect }: ScreenShape) => ({ width: width * pixelAspect, height });

/** Share of the width left to the smaller screens beside one large. */
const besideShare = 0.25;

export interface PlacedScreen {
  /** Index of the screen. */
  screen: number;
  /** Place within the whole, each 0…1 of its width or height. */
  left: number;
  top: number;
  width: number;
  height: number;
}

/**
 * The shape of all screens together, and where each lies in it.
 *
 * Stacked and side by side keep every screen at the same line height; one large gives the first three quarters
 * of the width and puts the others in a column beside it.
 *
 * @param screens one or more
 * @returns aspect of the whole (width over height as seen) and the screens' places
 */
export function arranged(
  screens: ScreenShape[],
  layout: ScreenLayout,
): { aspect: number; places: PlacedScreen[] } {
  const sizes = screens.map(seen);
  if (screens.length === 1)
    return {
      aspect: sizes[0].width / sizes[0].height,
      places: [{ screen: 0, left: 0, top: 0, width: 1, height: 1 }],
    };
  if (layout === "stacked") {
    const width = Math.max(...sizes.map((size) => size.width)),
      height = sizes.reduce((sum, size) => sum + size.height, 0);
    let top = 0;
    const places = sizes.map((size, screen) => {
      const place = {
        screen,
        left: (1 - size.width / width) / 2,
        top: top / height,
        width: size.width / width,
        height: size.height / height,
      };
      top += size.height;
      return place;
    });
    return { aspect: width / height, places };
  }
  if (layout === "side by side") {
    const width = sizes.reduce((sum, size) => sum + size.width, 0),
      height = Math.max(...sizes.map((size) => size.height));
    let left = 0;
    const places = sizes.map((size, screen) => {
      const place = {
        screen,
        left: left / width,
        top: (1 - size.height / height) / 2,
        width: size.width / width,
        height: size.height / height,
      };
      left += size.width;
      return place;
    });
    return { aspect: width / height, places };
  }
  const [first, ...others] = sizes;
  const width = first.width / (1 - besideShare);
  const beside = width * besideShare;
  const column = others.reduce((sum, size) => sum + (beside * size.height) / size.width, 0);
  const height = Math.max(first.height, column);
  let top = 0;
  const places = [
    {
      screen: 0,
      left: 0,
      top: (1 - first.height / height) / 2,
      width: first.width / width,
      height: first.height / height,
    },
  ];
  others.forEach((size, index) => {
    const own = (beside * size.height) / size.width;
    places.push({
      screen: index + 1,
      left: 1 - besideShare,
      top: top / height,
      width: besideShare,
      height: own / height,
    });
    top += own;
  });
  return { aspect: width / height, places };
}
