import { eachWindow, leastFullSpeed, leastOfReadings, Stretches } from "./fullSpeed";
import { hitches } from "./hitches";
import { unitOf } from "./looks";
import { defaultMeasuring, type MeasuringRules } from "./rules";

/** What a run comes to so far, or its last stretch. */
export interface FiguresSoFar {
  durationMs: number;
  /** Null before the first frame or reading. */
  averageFps: number | null;
  /** Share of running time at full speed, 0…1; null before the first window is over. */
  fullSpeedShare: number | null;
  dips: number;
  /** Frames that stick out; null for readings. */
  hitches: number | null;
  /** The longest frame, ms; null for readings. */
  longestMs: number | null;
}

/**
 * The figures of a run while it grows: those of `averageFps`, `fullSpeed` and `hitches` over what has come, where a
 * frame counts among the hitches once those after it are there. A batch costs as much at the end of an hour as at its
 * beginning: only frames whose window or neighbours aren't there yet are looked at again.
 */
export class GrowingFigures {
  private time = 0;
  private weight = 0;
  private longest = 0;
  private stretches = new Stretches();
  /** Frames whose window isn't over, and when the first of them began. */
  private pending: number[] = [];
  private pendingAt = 0;
  /** The last frames, and how many of them have been held against their neighbours. */
  private around: number[] = [];
  private held = 0;
  private hitchCount = 0;
  private readings: { durations: number[]; rates: number[]; unit: number } = {
    durations: [],
    rates: [],
    unit: 1,
  };

  /** @param target fps */
  constructor(
    private readonly form: "frames" | "interval",
    private readonly target: number,
    private readonly rules: MeasuringRules = defaultMeasuring,
  ) {}

  /** @param values frame times in ms, or pairs of a reading's duration in ms and its rate in fps */
  add(values: readonly number[]): void {
    if (this.form === "frames") this.addFrames(values);
    else this.addReadings(values);
  }

  private addFrames(frames: readonly number[]): void {
    for (const ms of frames) {
      this.time += ms;
      this.longest = Math.max(this.longest, ms);
      this.pending.push(ms);
      this.around.push(ms);
    }
    this.weight += frames.length;
    const least = leastFullSpeed(this.target, this.rules);
    const { pending, pendingAt } = this;
    let judged = 0;
    eachWindow(Float64Array.from(pending), this.rules.windowMs, (rate, index, startMs) => {
      this.stretches.add(pendingAt + startMs, pending[index] ?? 0, rate, rate < least);
      judged = index + 1;
    });
    for (const ms of pending.splice(0, judged)) this.pendingAt += ms;
    this.countHitches();
  }

  private countHitches(): void {
    const reach = this.rules.hitchNeighbours >> 1;
    const until = this.around.length - reach;
    if (until <= this.held) return;
    const found = hitches(Float64Array.from(this.around), this.rules);
    this.hitchCount += found.filter(({ index }) => index >= this.held && index < until).length;
    const gone = Math.max(0, until - reach);
    this.around.splice(0, gone);
    this.held = until - gone;
  }

  private addReadings(pairs: readonly number[]): void {
    const { durations, rates } = this.readings;
    const from = rates.length;
    for (let at = 0; at + 1 < pairs.length; at += 2) {
      const [ms, fps] = [pairs[at] ?? 0, pairs[at + 1] ?? 0];
      durations.push(ms);
      rates.push(fps);
      this.time += ms;
      this.weight += (ms * fps) / 1000;
    }
    // A counter that turns out to show a further decimal has what it showed before judged anew: that happens twice.
    const unit = Math.min(this.readings.unit, unitOf(rates.slice(from)));
    const anew = unit !== this.readings.unit;
    this.readings.unit = unit;
    if (anew) this.stretches = new Stretches();
    const least = leastOfReadings(unit, this.target, this.rules);
    let start = this.pendingAt;
    for (let at = anew ? 0 : from; at < rates.length; at++) {
      if (at === 0) start = 0;
      const [ms, fps] = [durations[at] ?? 0, rates[at] ?? 0];
      this.stretches.add(start, ms, fps, fps < least);
      start += ms;
    }
    this.pendingAt = start;
  }

  soFar(): FiguresSoFar {
    const { share, dips } = this.stretches.soFar();
    const frames = this.form === "frames";
    return {
      durationMs: this.time,
      averageFps: this.time > 0 ? (1000 * this.weight) / this.time : null,
      fullSpeedShare: share,
      dips,
      hitches: frames ? this.hitchCount : null,
      longestMs: frames && this.weight > 0 ? this.longest : null,
    };
  }
}
