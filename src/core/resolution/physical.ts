import type { Box } from "./filling";

/**
 * Physical size of a display from its diagonal, mm; 25.4 mm an inch.
 * @example physicalSize({ width: 1440, height: 900 }, 7) // → { width: 150.8, height: 94.2 }
 */
export function physicalSize(display: Box, diagonalInch: number): Box {
  const diagonal = Math.hypot(display.width, display.height);
  const mmPerPixel = (diagonalInch * 25.4) / diagonal;
  return { width: display.width * mmPerPixel, height: display.height * mmPerPixel };
}
