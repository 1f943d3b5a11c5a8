import type { NewSystem, Screen } from "./titleSchema";

const shape = (screens: Screen[], hz: number): NewSystem => {
  const [screen = { width: 0, height: 0 }] = screens;
  const size = `${screen.width}×${screen.height}`;
  return {
    name: `${screens.length > 1 ? `${size} twice` : size}, ${hz} Hz`,
    screens,
    rates: [{ region: "", hz }],
    note: "",
  };
};
const square = (width: number, height: number): Screen => ({ width, height, pixelAspect: 1 });

/**
 * Six common shapes of a system's picture, called by size and rate, for whoever starts without the demo. Common
 * practice, from memory.
 */
export const commonShapes: NewSystem[] = [
  shape([{ width: 256, height: 224, pixelAspect: 8 / 7 }], 60),
  shape([square(320, 240)], 60),
  shape([square(480, 272)], 60),
  shape([square(640, 480)], 60),
  shape([square(256, 192), square(256, 192)], 60),
  shape([square(1280, 720)], 60),
];
