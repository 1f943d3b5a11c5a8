import { cellCount, cellsHigh, cellsWide } from "./cells";

/** Tiles that a picture's change is kept by until it is known which of them hold a counter. */
const tileWide = 8,
  tileHigh = 6;
const tilesWide = cellsWide / tileWide,
  tilesHigh = cellsHigh / tileHigh;
export const tileCount = tilesWide * tilesHigh;

/** How much one captured picture differs from the one before. */
export interface PictureChange {
  /**
   * Fourth root of the mean fourth power of the cells' change: what a small thing moving in a still scene does
   * shows in it, and even noise hardly.
   */
  level: number;
  /**
   * The same without the tiles that change most: what most of the picture does, whatever a counter does
   * meanwhile.
   */
  broad: number;
  /**
   * Its ratio to the root mean square: 1.32 where all cells change alike by chance (a normal law's), more where
   * few do.
   */
  peaked: number;
  /** Correlation of neighbouring cells' changes: near nothing for noise. */
  smooth: number;
  /** Whether the picture was coded by itself: then it differs from the one before even where nothing moved. */
  key: boolean;
}

/** Tiles that may hold something of their own, a counter among them. */
const ownTiles = 18;

/** Seconds that are looked at for a counter before anything is said. */
const guessSeconds = 30;
/** A tile has changed from so much on, in steps of brightness. */
const activeLevel = 5;
/** Changes of a counter lie so far apart, s. */
const apartSeconds = 0.18;

/**
 * The middle of all cells' changes, to a quarter of a step: what a drift of the whole picture's brightness
 * does.
 */
function middle(change: Float32Array, mask: Uint8Array, counts: Uint32Array): number {
  counts.fill(0);
  let total = 0;
  for (let k = 0; k < cellCount; k++) {
    if (mask[k]) continue;
    counts[Math.max(0, Math.min(2047, Math.round(change[k] * 4) + 1024))]++;
    total++;
  }
  let below = 0;
  for (let bin = 0; bin < 2048; bin++) {
    below += counts[bin];
    if (2 * below >= total) {
      // Within the bin the exact middle isn't known; a drift under an eighth of a step is none.
      return (bin - 1024) / 4;
    }
  }
  return 0;
}

/** What a picture's change comes to, as sums that can still leave tiles out. */
interface Sums {
  fourth: Float32Array;
  second: Float32Array;
  product: Float32Array;
  key: boolean;
}

/**
 * Measures how every captured picture differs from the one before. The first seconds are held back until it is
 * known where a counter is: what it does is no new picture.
 */
export class ChangeMeter {
  private readonly last = new Float32Array(cellCount);
  private readonly change = new Float32Array(cellCount);
  private readonly counts = new Uint32Array(2048);
  private readonly order = new Float32Array(tileCount);
  private readonly held: Sums[] = [];
  private readonly heldTimes: number[] = [];
  private begun = false;
  private open = true;
  private readonly tileCells = new Float32Array(tileCount);
  /** Tiles that hold a counter, as far as can be guessed; 1 for each. */
  readonly counterTiles = new Uint8Array(tileCount);
  /** One for every picture but the first. */
  readonly changes: PictureChange[] = [];

  /**
   * @param mask cells left out, 1 for each
   * @param guesses whether to look for a counter
   */
  constructor(
    private readonly mask: Uint8Array,
    private readonly guesses = true,
  ) {
    for (let k = 0; k < cellCount; k++) if (!mask[k]) this.tileCells[tileOf(k)]++;
  }

  /**
   * @param cells of the next picture @param seconds its time stamp @param key whether it was coded by itself
   */
  add(cells: Float32Array, seconds: number, key = false): void {
    if (!this.begun) {
      this.begun = true;
      this.last.set(cells);
      return;
    }
    const { change, last, mask } = this;
    for (let k = 0; k < cellCount; k++) change[k] = cells[k] - last[k];
    last.set(cells);
    const shift = middle(change, mask, this.counts);
    const sums: Sums = {
      fourth: new Float32Array(tileCount),
      second: new Float32Array(tileCount),
      product: new Float32Array(tileCount),
      key,
    };
    for (let row = 0; row < cellsHigh; row++) {
      const tileRow = Math.floor(row / tileHigh) * tilesWide;
      let before = 0;
      for (let column = 0; column < cellsWide; column++) {
        const k = row * cellsWide + column;
        if (mask[k]) {
          before = 0;
          continue;
        }
        const d = change[k] - shift;
        const square = d * d;
        const tile = tileRow + Math.floor(column / tileWide);
        sums.second[tile] += square;
        sums.fourth[tile] += square * square;
        sums.product[tile] += d * before;
        before = d;
      }
    }
    if (!this.open) {
      this.changes.push(this.summed(sums));
      return;
    }
    this.held.push(sums);
    this.heldTimes.push(seconds);
    if (seconds - (this.heldTimes[0] ?? 0) >= guessSeconds) this.settle();
  }

  /** No more pictures come. */
  end(): PictureChange[] {
    if (this.open) this.settle();
    return this.changes;
  }

  private settle(): void {
    this.open = false;
    if (this.guesses) this.guessCounter();
    for (const sums of this.held) this.changes.push(this.summed(sums));
    this.held.length = 0;
  }

  private summed({ fourth, second, product, key }: Sums): PictureChange {
    let [four, two, by, cells] = [0, 0, 0, 0];
    for (let tile = 0; tile < tileCount; tile++) {
      if (this.counterTiles[tile]) continue;
      four += fourth[tile];
      two += second[tile];
      by += product[tile];
      cells += this.tileCells[tile];
    }
    if (cells === 0) return { level: 0, broad: 0, peaked: 1, smooth: 0, key };
    for (let tile = 0; tile < tileCount; tile++) this.order[tile] = this.counterTiles[tile] ? 0 : fourth[tile];
    this.order.sort();
    let rest = four;
    for (let k = tileCount - ownTiles; k < tileCount; k++) rest -= this.order[k];
    const share = 1 - ownTiles / tileCount;
    const broad = Math.max(0, rest / (cells * share)) ** 0.25;
    const level = (four / cells) ** 0.25,
      root = Math.sqrt(two / cells);
    return { level, broad, peaked: root > 0 ? level / root : 1, smooth: two > 0 ? by / two : 0, key };
  }

  /**
   * Finds tiles that change now and then, by themselves, all the time: a counter is renewed once or a few times
   * a second, and stands still between.
   */
  private guessCounter(): void {
    const { held, heldTimes } = this;
    const first = heldTimes[0] ?? 0,
      seconds = (heldTimes.at(-1) ?? 0) - first;
    if (seconds < 3) return;
    const found: number[] = [];
    let moving = 0;
    for (let tile = 0; tile < tileCount; tile++) {
      const cells = this.tileCells[tile];
      if (cells === 0) continue;
      const times: number[] = [];
      held.forEach(({ fourth }, k) => {
        if ((fourth[tile] / cells) ** 0.25 > activeLevel) times.push(heldTimes[k]);
      });
      if (times.length > 4 * seconds) moving++;
      if (times.length < Math.max(4, 0.35 * seconds) || times.length > 4.5 * seconds) continue;
      const alone = times.filter(
        (at, k) =>
          (k === 0 || at - times[k - 1] > apartSeconds) &&
          (k === times.length - 1 || times[k + 1] - at > apartSeconds),
      ).length;
      const inSeconds = new Set(times.map((at) => Math.floor(at - first))).size;
      if (alone >= 0.75 * times.length && inSeconds >= 0.5 * Math.min(seconds, times.length)) found.push(tile);
    }
    // Where a large part of the picture does so, it is the title's own; so it is where nothing else moves.
    if (found.length > 0.08 * tileCount) return;
    const rest = held.filter(({ fourth }) =>
      fourth.some(
        (sum, tile) => !found.includes(tile) && (sum / Math.max(1, this.tileCells[tile])) ** 0.25 > activeLevel,
      ),
    ).length;
    if (moving === 0 && rest < 2 * seconds) return;
    for (const tile of found) this.counterTiles[tile] = 1;
  }
}

const tileOf = (cell: number) =>
  Math.floor(Math.floor(cell / cellsWide) / tileHigh) * tilesWide + Math.floor((cell % cellsWide) / tileWide);

/** Tiles as a region of the picture; null for none. */
export function regionOfTiles(tiles: Uint8Array, area: { x: number; y: number; w: number; h: number }) {
  const found = [...tiles.keys()].filter((tile) => tiles[tile]);
  if (found.length === 0) return null;
  const columns = found.map((tile) => tile % tilesWide),
    rows = found.map((tile) => Math.floor(tile / tilesWide));
  const [left, right] = [Math.min(...columns), Math.max(...columns) + 1];
  const [top, bottom] = [Math.min(...rows), Math.max(...rows) + 1];
  return {
    x: Math.round(area.x + (left * area.w) / tilesWide),
    y: Math.round(area.y + (top * area.h) / tilesHigh),
    w: Math.round(((right - left) * area.w) / tilesWide),
    h: Math.round(((bottom - top) * area.h) / tilesHigh),
  };
}
