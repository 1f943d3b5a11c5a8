// Comparing and fitting, in one process.
import { compare } from "@/core/compare";
import { defaultMeasuring } from "@/core/metrics";
import { seeded } from "@/core/stats";
import { understand } from "@/core/trial";
import { exampleTrial, type ExampleRun } from "@/testing/exampleTrial";
import type { FrameTrace } from "@/core/trace";
import { line, ms, timed } from "./timing";

const random = seeded(1);
const run = (fps: number, frames: number): FrameTrace => ({
  form: "frames",
  frameTimes: Float64Array.from({ length: frames }, () => (1000 / fps) * Math.exp(0.06 * random.normal())),
  channels: [],
  marks: [],
});
const arm = (fps: number) =>
  Array.from({ length: 10 }, () => run(fps * Math.exp(0.01 * random.normal()), 20_000));
const [a, b] = [arm(55), arm(57)];
console.log("Comparing and fitting");
line(
  "Two arms of ten runs of 20,000 frames, 2,000 resamples (under 1.5 s)",
  ms(await timed(5, () => compare(a, b, { targetFps: 60, resamples: 2000, rules: defaultMeasuring }))),
);

const seconds = 900;
const telemetry = (tau: number) => {
  const times = Float64Array.from({ length: seconds * 2 }, (_, i) => 500 * (i + 1));
  return [
    {
      role: "temperature" as const,
      times,
      values: times.map((t) => 80 - 40 * Math.exp(-t / 1000 / tau) + 0.2 * random.normal()),
    },
    { role: "memory" as const, times, values: times.map((t) => 3000 + t / 500 + 4 * random.normal()) },
    { role: "cpuClock" as const, times, values: times.map(() => 3000 + 5 * random.normal()) },
    { role: "cpuBusiest" as const, times, values: times.map(() => 95 + random.normal()) },
    { role: "watts" as const, times, values: times.map(() => 14 + 0.2 * random.normal()) },
  ];
};
const runs: ExampleRun[] = Array.from({ length: 50 }, (_, k) => ({
  arm: k % 10,
  trace: { ...run(60 - 4 * (k % 10), seconds * 50), channels: telemetry(90 + k) },
}));
const arms = Array.from({ length: 10 }, (_, k) => ({ name: `level ${k + 1}`, level: k + 1 }));
for (const kind of ["resolution", "power", "heat", "clocks", "memory"]) {
  const { facts, traces } = exampleTrial(kind, arms, runs, { noise: { sd: 0.01, freedom: 20 } });
  line(
    `${kind}: 50 runs understood${kind === "resolution" || kind === "power" ? "" : ", of 15 min with telemetry"} (under 100 ms)`,
    ms(await timed(5, () => understand(facts, traces))),
  );
}
