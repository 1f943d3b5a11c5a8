import { defaultMeasuring, hitches, leastFullSpeed, windowRates, type MeasuringRules } from "@/core/metrics";
import type { Random } from "@/core/stats";
import type { Floats } from "@/core/trace";
import { blockLength } from "./blockLength";

/** What is compared of a run; null where its form can't say. */
export interface RunFigures {
  averageFps: number;
  worstTimeLow: number | null;
  /** 0…100 */
  fullSpeedTime: number | null;
  hitchesPerMinute: number | null;
}

/** Cells a run is cut into: fine enough for blocks, few enough for thousands of resamples. */
const mostCells = 320;
const low = 0.01;
/** Share of the frames that are kept for walking from the longest. */
const longestShare = 0.15;

/**
 * A run cut into short cells, ready to be resampled: every figure is made from cells drawn in blocks.
 *
 * The stationary bootstrap draws blocks of cells; sums serve rate, full-speed time and hitches, and the
 * worst-time low walks the frames from the longest, each as often as its cell was drawn. No frame is sorted
 * twice.
 */
export class RunCells {
  private readonly count: number;
  private readonly frames: Float64Array;
  private readonly time: Float64Array;
  private readonly windowTime: Float64Array;
  private readonly fullTime: Float64Array;
  private readonly hitchCount: Float64Array;
  /** Frames from the longest: cell and time. Only as many as a resample can come to. */
  private readonly longest: { cell: Uint16Array; ms: Float64Array };
  private readonly blockCells: number;
  private readonly draws: Uint16Array;

  /** @param frameTimes ms, all > 0; length N ≥ 1 */
  constructor(frameTimes: Floats, target: number, rules: MeasuringRules = defaultMeasuring) {
    const n = frameTimes.length;
    const size = Math.max(1, Math.ceil(n / mostCells));
    this.count = Math.ceil(n / size);
    const columns = () => new Float64Array(this.count);
    [this.frames, this.time, this.windowTime, this.fullTime, this.hitchCount] = [
      columns(),
      columns(),
      columns(),
      columns(),
      columns(),
    ];
    const rates = windowRates(frameTimes, rules.windowMs);
    const least = leastFullSpeed(target, rules);
    for (let i = 0; i < n; i++) {
      const cell = Math.floor(i / size);
      this.frames[cell]++;
      this.time[cell] += frameTimes[i];
      if (rates[i] === rates[i]) {
        this.windowTime[cell] += frameTimes[i];
        if (rates[i] >= least) this.fullTime[cell] += frameTimes[i];
      }
    }
    for (const { index } of hitches(frameTimes, rules)) this.hitchCount[Math.floor(index / size)]++;
    // No resample of blocks walks past the longest seventh of the frames to cover a hundredth of the time.
    const leastLong = Float64Array.from(frameTimes).sort()[Math.floor(n * (1 - longestShare))];
    const order: number[] = [];
    for (let i = 0; i < n; i++) if (frameTimes[i] >= leastLong) order.push(i);
    order.sort((a, b) => frameTimes[b] - frameTimes[a]);
    this.longest = {
      cell: Uint16Array.from(order, (i) => Math.floor(i / size)),
      ms: Float64Array.from(order, (i) => frameTimes[i]),
    };
    this.blockCells = Math.max(1, blockLength(frameTimes) / size);
    this.draws = new Uint16Array(this.count);
  }

  /** The run's own figures. */
  figures(): RunFigures {
    this.draws.fill(1);
    return this.fromDraws();
  }

  /**
   * The figures of one stationary-bootstrap resample (Politis & Romano 1994): blocks of geometric length,
   * wrapped round.
   */
  resampled(random: Random): RunFigures {
    this.draws.fill(0);
    const stay = 1 - 1 / this.blockCells;
    const single = stay <= 0,
      logStay = Math.log(stay);
    for (let drawn = 0; drawn < this.count;) {
      let at = random.whole(this.count);
      const length = single
        ? 1
        : Math.min(this.count - drawn, 1 + Math.floor(Math.log(1 - random.uniform()) / logStay));
      for (let k = 0; k < length; k++) {
        this.draws[at]++;
        if (++at === this.count) at = 0;
      }
      drawn += length;
    }
    return this.fromDraws();
  }

  private fromDraws(): RunFigures {
    let frames = 0,
      time = 0,
      windowTime = 0,
      fullTime = 0,
      hitched = 0;
    for (let cell = 0; cell < this.count; cell++) {
      const times = this.draws[cell];
      if (times === 0) continue;
      frames += times * this.frames[cell];
      time += times * this.time[cell];
      windowTime += times * this.windowTime[cell];
      fullTime += times * this.fullTime[cell];
      hitched += times * this.hitchCount[cell];
    }
    let covered = 0,
      i = 0,
      last = this.longest.ms[0];
    while (i < this.longest.ms.length && covered < low * time) {
      const times = this.draws[this.longest.cell[i]];
      if (times > 0) {
        last = this.longest.ms[i];
        covered += times * last;
      }
      i++;
    }
    return {
      averageFps: (1000 * frames) / time,
      worstTimeLow: 1000 / last,
      fullSpeedTime: windowTime > 0 ? (100 * fullTime) / windowTime : null,
      hitchesPerMinute: (60_000 * hitched) / time,
    };
  }
}
