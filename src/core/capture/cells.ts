/** A captured picture is looked at in so many cells. */
export const cellsWide = 160,
  cellsHigh = 90;
export const cellCount = cellsWide * cellsHigh;

/** A part of the picture, in its own pixels. */
export interface Region {
  x: number;
  y: number;
  w: number;
  h: number;
}

/** The brightness of a captured picture as its decoder holds it: one byte a pixel, row by row. */
export interface LumaPlane {
  bytes: Uint8Array;
  /** Of the first pixel. */
  offset: number;
  /** Bytes from a row to the next. */
  stride: number;
  width: number;
  height: number;
}

/** Rows read of a cell at most: what is skipped is like what is read. */
const mostRows = 4;

/**
 * Mean brightness of every cell of an area, 0 … 255.
 * @param into `cellCount` long
 */
export function cellsOf(
  { bytes, offset, stride, width, height }: LumaPlane,
  area: Region | null,
  into: Float32Array,
): void {
  const { x, y, w, h } = area ?? { x: 0, y: 0, w: width, h: height };
  for (let row = 0; row < cellsHigh; row++) {
    const top = y + Math.floor((row * h) / cellsHigh),
      bottom = Math.max(top + 1, y + Math.floor(((row + 1) * h) / cellsHigh));
    const step = Math.max(1, Math.floor((bottom - top) / mostRows));
    for (let column = 0; column < cellsWide; column++) {
      const left = x + Math.floor((column * w) / cellsWide),
        right = Math.max(left + 1, x + Math.floor(((column + 1) * w) / cellsWide));
      let sum = 0,
        count = 0;
      for (let at = top; at < bottom && at < height; at += step) {
        const start = offset + at * stride;
        for (let pixel = left; pixel < right && pixel < width; pixel++) sum += bytes[start + pixel];
        count += Math.min(right, width) - left;
      }
      into[row * cellsWide + column] = count > 0 ? sum / count : 0;
    }
  }
}

/** Cells that lie in any of some regions of the picture, 1 for each. */
export function cellsIn(regions: readonly Region[], area: Region): Uint8Array {
  const found = new Uint8Array(cellCount);
  for (const { x, y, w, h } of regions) {
    const from = (place: number, size: number, cells: number) => Math.floor((place * cells) / size);
    const [left, right] = [
      from(x - area.x, area.w, cellsWide),
      Math.ceil(((x + w - area.x) * cellsWide) / area.w),
    ];
    const [top, bottom] = [
      from(y - area.y, area.h, cellsHigh),
      Math.ceil(((y + h - area.y) * cellsHigh) / area.h),
    ];
    for (let row = Math.max(0, top); row < Math.min(cellsHigh, bottom); row++)
      for (let column = Math.max(0, left); column < Math.min(cellsWide, right); column++)
        found[row * cellsWide + column] = 1;
  }
  return found;
}
