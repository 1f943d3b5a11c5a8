import type { VideoSample } from "mediabunny";
import type { Region } from "@/core/capture";

/** Ways to tell a counter's ink from what lies behind it. */
export const inks = ["bright", "vivid", "dark", "apart"] as const;
export type Ink = (typeof inks)[number];

/** A counter's box over a short while, in which it stood still: dark ink on light, cut out in several ways. */
export interface DigitPicture {
  width: number;
  height: number;
  /** 0 for ground, 255 for ink. */
  ink: (way: Ink) => Uint8Array;
}

const contextOf = (canvas: OffscreenCanvas) => {
  const context = canvas.getContext("2d", { willReadFrequently: true });
  if (!context) throw new Error("this browser gives no canvas to read pictures from");
  return context;
};

/** Captured pictures that one look is made of, at most: what moves behind the digits is gone by then. */
export const mostLooks = 8;

/**
 * Gathers a counter's box over a short while. Digits stand still; what moves behind them doesn't, so that the
 * darkest that a pixel ever was tells bright ink, and the brightest dark ink.
 */
export class DigitWindow {
  private readonly canvas: OffscreenCanvas;
  private readonly context: OffscreenCanvasRenderingContext2D;
  private looks = 0;
  private least = new Uint8Array(0);
  private vivid = new Uint8Array(0);
  private most = new Uint8Array(0);
  private sum = new Float32Array(0);

  constructor(private readonly box: Region) {
    this.canvas = new OffscreenCanvas(Math.max(1, Math.round(box.w)), Math.max(1, Math.round(box.h)));
    this.context = contextOf(this.canvas);
  }

  add(sample: VideoSample): void {
    const { width, height } = this.canvas;
    const { x, y, w, h } = this.box;
    sample.draw(this.context, x, y, w, h, 0, 0, width, height);
    const { data } = this.context.getImageData(0, 0, width, height);
    if (this.looks++ === 0) {
      this.least = new Uint8Array(width * height).fill(255);
      this.vivid = new Uint8Array(width * height).fill(255);
      this.most = new Uint8Array(width * height);
      this.sum = new Float32Array(3 * width * height);
    }
    for (let k = 0; k < width * height; k++) {
      const red = data[4 * k] ?? 0,
        green = data[4 * k + 1] ?? 0,
        blue = data[4 * k + 2] ?? 0;
      this.least[k] = Math.min(this.least[k] ?? 0, red, green, blue);
      this.vivid[k] = Math.min(this.vivid[k] ?? 0, Math.max(red, green, blue));
      this.most[k] = Math.max(this.most[k] ?? 0, red, green, blue);
      this.sum[3 * k] = (this.sum[3 * k] ?? 0) + red;
      this.sum[3 * k + 1] = (this.sum[3 * k + 1] ?? 0) + green;
      this.sum[3 * k + 2] = (this.sum[3 * k + 2] ?? 0) + blue;
    }
  }

  /** What was gathered, and a new beginning; null where nothing was. */
  take(): DigitPicture | null {
    if (this.looks === 0) return null;
    const { width, height } = this.canvas;
    const { least, vivid, most, sum, looks } = this;
    this.looks = 0;
    const made = new Map<Ink, Uint8Array>();
    const ways: Record<Ink, () => Uint8Array> = {
      bright: () => stretched(Float32Array.from(least)),
      vivid: () => stretched(Float32Array.from(vivid)),
      dark: () => stretched(Float32Array.from(most, (value) => 255 - value)),
      apart: () => stretched(fromGround(sum, looks, width, height)),
    };
    return {
      width,
      height,
      ink: (way) => {
        const known = made.get(way) ?? ways[way]();
        made.set(way, known);
        return known;
      },
    };
  }
}

/** How far every pixel's mean colour is from the box's ground, which most of its rim is. */
function fromGround(sum: Float32Array, looks: number, width: number, height: number): Float32Array {
  const at = (k: number, channel: number) => (sum[3 * k + channel] ?? 0) / looks;
  const rim: number[] = [];
  for (let row = 0; row < height; row++)
    for (let column = 0; column < width; column++)
      if (row === 0 || column === 0 || row === height - 1 || column === width - 1)
        rim.push(row * width + column);
  const ground = [0, 1, 2].map((channel) => {
    const values = rim.map((k) => at(k, channel)).sort((a, b) => a - b);
    return values[Math.floor(values.length / 2)] ?? 0;
  });
  return Float32Array.from({ length: width * height }, (_, k) =>
    Math.hypot(...ground.map((of, channel) => at(k, channel) - of)),
  );
}

/** Brings ink to 255 and ground to 0: the brightest few hundredths are ink, the darker half ground. */
function stretched(values: Float32Array): Uint8Array {
  const sorted = Float32Array.from(values).sort();
  const full = sorted[Math.floor(0.985 * (sorted.length - 1))] ?? 0,
    none = sorted[Math.floor(0.4 * (sorted.length - 1))] ?? 0;
  const span = Math.max(30, full - none);
  return Uint8Array.from(values, (value) => Math.max(0, Math.min(255, ((value - none) / span - 0.08) * 277)));
}

/** Room round the digits, in shares of their height. */
const margin = 0.5;

/** Where the ink is, by rows and columns that hold some. */
function inkBox(ink: Uint8Array, width: number, height: number): Region {
  let [left, right, top, bottom] = [width, -1, height, -1];
  for (let row = 0; row < height; row++)
    for (let column = 0; column < width; column++)
      if ((ink[row * width + column] ?? 0) > 140) {
        left = Math.min(left, column);
        right = Math.max(right, column);
        top = Math.min(top, row);
        bottom = Math.max(bottom, row);
      }
  return right < 0
    ? { x: 0, y: 0, w: width, h: height }
    : { x: left, y: top, w: right - left + 1, h: bottom - top + 1 };
}

/** The digits alone, black on white with room round them, so many pixels high. */
export function drawnDigits(
  { width, height, ink: inkOf }: DigitPicture,
  way: Ink,
  digitHeight: number,
): OffscreenCanvas {
  const ink = inkOf(way);
  const box = inkBox(ink, width, height);
  const whole = new OffscreenCanvas(width, height);
  const picture = new ImageData(width, height);
  for (let k = 0; k < ink.length; k++) {
    const shade = 255 - (ink[k] ?? 0);
    picture.data.set([shade, shade, shade, 255], 4 * k);
  }
  contextOf(whole).putImageData(picture, 0, 0);
  const scale = digitHeight / box.h;
  const room = Math.round(margin * digitHeight);
  const made = new OffscreenCanvas(Math.min(4000, Math.ceil(box.w * scale) + 2 * room), digitHeight + 2 * room);
  const context = contextOf(made);
  context.fillStyle = "white";
  context.fillRect(0, 0, made.width, made.height);
  context.imageSmoothingQuality = "high";
  // A pixel of the rim comes along: its half tones belong to the digits.
  const [x, y] = [Math.max(0, box.x - 1), Math.max(0, box.y - 1)];
  const [w, h] = [Math.min(width - x, box.w + 2), Math.min(height - y, box.h + 2)];
  context.drawImage(whole, x, y, w, h, room - scale, room - scale, w * scale, h * scale);
  return made;
}

/** Whether two looks at one box hold the same digits, by one way to see their ink. */
export function digitsLike(a: DigitPicture, b: DigitPicture, way: Ink): boolean {
  if (a.width !== b.width || a.height !== b.height) return false;
  const [one, other] = [a.ink(way), b.ink(way)];
  let differing = 0,
    inked = 0;
  for (let k = 0; k < one.length; k++) {
    if ((one[k] ?? 0) > 140) inked++;
    if (Math.abs((one[k] ?? 0) - (other[k] ?? 0)) > 110) differing++;
  }
  return inked > 8 && differing <= 0.04 * inked;
}
