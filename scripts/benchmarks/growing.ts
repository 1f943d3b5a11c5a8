import { defaultMeasuring } from "@/core/metrics";
import { WatchedRun } from "@/views/watch/watched";

/*
 * What a page pays for a second of a run that it watches, in its first minutes and in its sixtieth: the pieces taken and
 * the figures and drawings made. The promise is a ratio of one.
 */

const fps = 120;
const roles = ["temperature", "watts", "cpu", "gpu", "cpuClock", "battery"] as const;
let seed = 7;
const chance = () => (seed = (seed * 16807) % 2147483647) / 2147483647;

const run = new WatchedRun("frames", fps, defaultMeasuring);
const secondsAt = new Map<number, number[]>();
for (let second = 0; second < 62 * 60; second++) {
  const values = Array.from({ length: fps }, () => (1000 / fps) * (0.8 + 0.4 * chance()));
  const pieces = roles.map((role) => ({
    role,
    sequence: second,
    values: [0, 250, 500, 750].flatMap((ms) => [1000 * second + ms, 50 + 10 * chance()]),
  }));
  const begun = performance.now();
  run.take({ role: "trace", sequence: second, values });
  for (const piece of pieces) run.take(piece);
  run.now();
  const minute = Math.floor(second / 60);
  secondsAt.set(minute, [...(secondsAt.get(minute) ?? []), performance.now() - begun]);
}
const median = (minutes: number[]) => {
  const all = minutes.flatMap((minute) => secondsAt.get(minute) ?? []).sort((a, b) => a - b);
  return all[all.length >> 1] ?? NaN;
};
// The first minutes warm the compiler up.
const [early, late] = [median([3, 4]), median([60, 61])];
console.log(
  `A second of a watched run, ${fps} frames and ${roles.length} channels at four readings: ` +
    `${early.toFixed(2)} ms in minutes 3 and 4, ${late.toFixed(2)} ms in minutes 60 and 61, ${(late / early).toFixed(2)} times as long.`,
);
