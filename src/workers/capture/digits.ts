import type { VideoSample } from "mediabunny";
import type { Region } from "@/core/capture";

/** A counter's digits cut out of a captured picture: dark on light, whatever their colours were. */
export interface DigitPicture {
  width: number;
  height: number;
  /** 0 for ground, 255 for ink. */
  ink: Uint8Array;
  /** Drawn for reading, its digits so many pixels high. */
  drawn: (digitHeight: number) => OffscreenCanvas;
}

/** Room round the digits, in shares of their height. */
const margin = 0.45;

const contextOf = (canvas: OffscreenCanvas) => {
  const context = canvas.getContext("2d", { willReadFrequently: true });
  if (!context) throw new Error("no canvas");
  return context;
};

/** Cuts the digits out of a box: how far every pixel is from the box's ground, which most of its rim is. */
export function digitsIn(sample: VideoSample, { x, y, w, h }: Region): DigitPicture {
  const width = Math.max(1, Math.round(w)),
    height = Math.max(1, Math.round(h));
  const canvas = new OffscreenCanvas(width, height);
  const context = contextOf(canvas);
  sample.draw(context, x, y, w, h, 0, 0, width, height);
  const { data } = context.getImageData(0, 0, width, height);
  const ground = [0, 1, 2].map((channel) => {
    const rim: number[] = [];
    for (let row = 0; row < height; row++)
      for (let column = 0; column < width; column++)
        if (row === 0 || column === 0 || row === height - 1 || column === width - 1)
          rim.push(data[4 * (row * width + column) + channel] ?? 0);
    return rim.sort((a, b) => a - b)[Math.floor(rim.length / 2)] ?? 0;
  });
  const away = new Float32Array(width * height);
  let most = 0;
  for (let k = 0; k < away.length; k++) {
    const distance = Math.hypot(...ground.map((of, channel) => (data[4 * k + channel] ?? 0) - of));
    away[k] = distance;
    most = Math.max(most, distance);
  }
  // The farthest few pixels are the ink; noise of the ground is none.
  const sorted = Float32Array.from(away).sort();
  const full = Math.max(40, Math.min(most, (sorted[Math.floor(sorted.length * 0.985)] ?? most) * 1.02));
  const ink = Uint8Array.from(away, (distance) =>
    Math.max(0, Math.min(255, ((distance / full - 0.12) / 0.88) * 255)),
  );
  return { width, height, ink, drawn: (digitHeight) => drawn(ink, width, height, digitHeight) };
}

/** Where the ink is, by rows and columns that hold some. */
function inkBox(ink: Uint8Array, width: number, height: number): Region {
  let [left, right, top, bottom] = [width, -1, height, -1];
  for (let row = 0; row < height; row++)
    for (let column = 0; column < width; column++)
      if ((ink[row * width + column] ?? 0) > 120) {
        left = Math.min(left, column);
        right = Math.max(right, column);
        top = Math.min(top, row);
        bottom = Math.max(bottom, row);
      }
  return right < 0
    ? { x: 0, y: 0, w: width, h: height }
    : { x: left, y: top, w: right - left + 1, h: bottom - top + 1 };
}

/** The digits alone, black on white with room round them. */
function drawn(ink: Uint8Array, width: number, height: number, digitHeight: number): OffscreenCanvas {
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
  const made = new OffscreenCanvas(Math.ceil(box.w * scale) + 2 * room, digitHeight + 2 * room);
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

/** Whether two cuts of one box hold the same digits: no block of ink differs much. */
export function digitsLike(a: DigitPicture, b: DigitPicture): boolean {
  if (a.width !== b.width || a.height !== b.height) return false;
  let differing = 0;
  for (let k = 0; k < a.ink.length; k++) if (Math.abs((a.ink[k] ?? 0) - (b.ink[k] ?? 0)) > 90) differing++;
  return differing <= Math.max(1, 0.004 * a.ink.length);
}
