import { windowRates } from "@/core/metrics";
import type { Floats } from "@/core/trace";

/** How an engine works behind a cap: one frame ahead of the display, or waiting for it after every frame. */
export type Pipelining = "one ahead" | "strict";

/** A frame that ends this share of a refresh late is still shown on it. */
const slack = 0.02;

/**
 * Frames of a free run as they would have been shown behind a cap. What a long frame loses, a capped engine
 * can't win back; one that works ahead has a frame in hand for it.
 *
 * @param workMs time that every frame took, free; length N ≥ 1
 * @param capFps the cap; frames are shown on refreshes of the display where it is a whole number of them,
 *   else when the limiter lets them
 */
export function replay(workMs: Floats, capFps: number, refreshHz: number, working: Pipelining): Float64Array {
  const tick = 1000 / refreshHz,
    period = 1000 / capFps;
  const refreshes = Math.round(period / tick);
  const isEven = refreshes >= 1 && Math.abs(period / tick - refreshes) < 0.01;
  const least = isEven ? refreshes * tick : period;
  const shown = new Float64Array(workMs.length);
  let before = 0,
    beforeThat = 0,
    finished = 0;
  for (let i = 0; i < workMs.length; i++) {
    const start = Math.max(finished, working === "strict" ? before : beforeThat);
    finished = start + workMs[i];
    const ready = isEven ? Math.ceil(finished / tick - slack) * tick : finished;
    const at = Math.max(ready, before + least);
    shown[i] = at - before;
    beforeThat = before;
    before = at;
  }
  return shown;
}

/** Running time of every block of a replay, and how much of it lies in windows that hold a rate; ms. */
export function heldBlocks(
  frameTimes: Floats,
  leastFps: number,
  windowMs: number,
  blockMs: number,
): { held: number[]; all: number[] } {
  const rates = windowRates(frameTimes, windowMs);
  const held: number[] = [],
    all: number[] = [];
  let now = 0;
  for (let i = 0; i < frameTimes.length; i++) {
    const block = Math.floor(now / blockMs);
    now += frameTimes[i];
    if (rates[i] !== rates[i]) continue;
    all[block] = (all[block] ?? 0) + frameTimes[i];
    held[block] = (held[block] ?? 0) + (rates[i] >= leastFps ? frameTimes[i] : 0);
  }
  const there = all.flatMap((ms, block) => (ms > 0 ? [block] : []));
  return { held: there.map((block) => held[block] ?? 0), all: there.map((block) => all[block] ?? 0) };
}
