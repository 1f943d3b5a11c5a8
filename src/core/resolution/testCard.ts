/** A colour, 0 to 255 each. */
export type Colour = readonly [red: number, green: number, blue: number];

/** The stretch of a native picture that the card fills, in native pixels. */
export const cardSize = { width: 64, height: 40 } as const;

const ground: Colour = [62, 44, 74],
  line: Colour = [240, 231, 216],
  ring: Colour = [242, 182, 76],
  skin: Colour = [240, 144, 122],
  hair: Colour = [95, 56, 60],
  dark: Colour = [28, 20, 34],
  ink: Colour = [95, 201, 184];

/** Small lettering, three dots wide and five high; what is lit of each row. */
const letters: Record<string, readonly string[]> = {
  L: ["X..", "X..", "X..", "X..", "XXX"],
  A: [".X.", "X.X", "XXX", "X.X", "X.X"],
  M: ["X.X", "XXX", "X.X", "X.X", "X.X"],
  P: ["XX.", "X.X", "XX.", "X..", "X.."],
  "6": ["XXX", "X..", "XXX", "X.X", "XXX"],
  "0": ["XXX", "X.X", "X.X", "X.X", "XXX"],
};
const lettering = "LAMP 60";
/** Native pixels a dot of the lettering is wide: small enough that ×1 loses some of it. */
const dot = 0.8;

const distance = (x: number, y: number, cx: number, cy: number) => Math.hypot(x - cx, y - cy);

function letterAt(x: number, y: number): boolean {
  const column = Math.floor(x / dot),
    row = Math.floor(y / dot);
  if (row < 0 || row > 4 || column < 0) return false;
  const glyph = letters[lettering[Math.floor(column / 4)] ?? " "];
  return glyph?.[row]?.[column % 4] === "X";
}

/** Thin diagonals that fan out from a corner; each `thin` native pixels wide. */
const thin = 0.55;
function onFan(x: number, y: number): boolean {
  for (let k = 1; k <= 6; k++) {
    const angle = (k * Math.PI) / 15;
    const off = Math.abs(x * Math.sin(angle) - y * Math.cos(angle));
    if (off < thin / 2 && Math.hypot(x, y) > 5) return true;
  }
  return false;
}

/**
 * The test card's colour at a place: thin diagonals, a circle, small lettering, and a face of flat colours.
 * @param x native pixels from the left, 0 to 64; @param y from the top, 0 to 40
 */
export function cardAt(x: number, y: number): Colour {
  const face = distance(x, y, 44.5, 20);
  if (face < 9) {
    if (distance(x, y, 41.5, 18.5) < 1.1 || distance(x, y, 47.5, 18.5) < 1.1) return dark;
    const mouth = distance(x, y, 44.5, 20.5);
    if (mouth > 3.7 && mouth < 4.5 && y > 22) return dark;
    return y < 14.5 - 0.25 * Math.sin(x) ? hair : skin;
  }
  if (Math.abs(face - 11.5) < 0.45) return ring;
  if (letterAt(x - 8, y - 32)) return ink;
  if (x < 32 && y < 29 && onFan(x - 5, y - 2)) return line;
  return ground;
}

/** Between two samples by how far one lies from either, as a display's own scaling does. */
function between(
  samples: Float64Array,
  width: number,
  height: number,
  x: number,
  y: number,
  at: number,
): number {
  const left = Math.min(width - 1, Math.max(0, Math.floor(x))),
    top = Math.min(height - 1, Math.max(0, Math.floor(y)));
  const right = Math.min(width - 1, left + 1),
    foot = Math.min(height - 1, top + 1);
  const [across, down] = [Math.min(1, Math.max(0, x - left)), Math.min(1, Math.max(0, y - top))];
  const of = (column: number, row: number) => samples[3 * (row * width + column) + at];
  return (
    (of(left, top) * (1 - across) + of(right, top) * across) * (1 - down) +
    (of(left, foot) * (1 - across) + of(right, foot) * across) * down
  );
}

/**
 * The card as a screen shows it at an internal scale: sampled once a rendered pixel, stretched to the display's
 * own pixels.
 *
 * @param scale internal scale: rendered pixels a native pixel
 * @param shown display pixels a native pixel
 * @returns RGBA, `cardSize` times `shown` rounded to whole pixels
 */
export function shownCard(
  scale: number,
  shown: number,
): { width: number; height: number; rgba: Uint8ClampedArray } {
  const rendered = { width: Math.round(cardSize.width * scale), height: Math.round(cardSize.height * scale) };
  const samples = new Float64Array(3 * rendered.width * rendered.height);
  for (let row = 0; row < rendered.height; row++)
    for (let column = 0; column < rendered.width; column++) {
      const colour = cardAt((column + 0.5) / scale, (row + 0.5) / scale);
      samples.set(colour, 3 * (row * rendered.width + column));
    }
  const width = Math.max(1, Math.round(cardSize.width * shown)),
    height = Math.max(1, Math.round(cardSize.height * shown));
  const rgba = new Uint8ClampedArray(4 * width * height).fill(255);
  for (let row = 0; row < height; row++)
    for (let column = 0; column < width; column++) {
      const x = ((column + 0.5) / width) * rendered.width - 0.5,
        y = ((row + 0.5) / height) * rendered.height - 0.5;
      for (let at = 0; at < 3; at++)
        rgba[4 * (row * width + column) + at] = between(samples, rendered.width, rendered.height, x, y, at);
    }
  return { width, height, rgba };
}
