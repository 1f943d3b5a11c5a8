// How right a capture is told, on made-up captures whose truth is known: sizes, codecs, rates, noise, small
// things that move, counters. And how fast.
import { spawnSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { drawn, honest, shownAt, truthOf } from "../capture/draw";
import type { Drawing } from "../capture/page";
import { root } from "../lib/run.mjs";

const plain: Drawing = {
  width: 640,
  height: 360,
  captureFps: 60,
  codec: "vp8",
  shown: [],
  scene: "moving",
  noise: 0,
  drift: 0,
  varies: false,
  counter: null,
  readings: [],
  seed: 11,
};
const white = { colour: "white", ground: null, size: 18, x: 12, y: 10, unit: " FPS" };
const at = (fps: number, seconds: number, more: Partial<Drawing> = {}): Drawing => {
  const drawing = { ...plain, ...more };
  const shown = more.shown ?? shownAt(fps, drawing.captureFps, seconds, drawing.seed);
  return { ...drawing, shown, readings: drawing.counter ? honest(shown, drawing.captureFps) : [] };
};
const cases: Record<string, Drawing> = {
  "moving, 45": at(45, 12, { counter: white }),
  "moving, 24 of 30": at(24, 12, { captureFps: 30 }),
  "moving, 50 of 120": at(50, 8, { captureFps: 120, counter: { ...white, colour: "#40ff40" } }),
  "moving, noise": at(40, 12, { noise: 6 }),
  "slow pan": at(50, 12, { scene: "pan" }),
  "still scene, small thing": at(40, 12, { scene: "still", counter: { ...white, size: 14, x: 580, unit: "" } }),
  "the same, noise": at(40, 12, { scene: "still", noise: 3 }),
  "the same, exposure drifts": at(45, 12, { scene: "still", drift: 2 }),
  "varying rate": at(40, 12, {
    varies: true,
    counter: { ...white, colour: "#ffd000", ground: "black", size: 13 },
  }),
  "320 × 180": at(38, 12, { width: 320, height: 180, counter: { ...white, size: 11, x: 6, y: 4, unit: "" } }),
  "1920 × 1080": at(45, 8, {
    width: 1920,
    height: 1080,
    counter: { ...white, colour: "#ff5050", size: 30, x: 40, y: 30 },
  }),
  "turned by 90°": at(40, 10, { codec: "vp9", turned: 90, counter: white }),
  "turned by 270°": at(40, 10, { codec: "vp9", turned: 270, counter: white }),
  "turned by 180°": at(40, 10, { codec: "vp9", turned: 180, scene: "still", counter: white }),
  "between black bars": at(40, 10, { inset: 0.75, scene: "still" }),
  VP9: at(33, 10, {
    codec: "vp9",
    scene: "still",
    counter: { ...white, colour: "#80c0ff", ground: "#101010", size: 16 },
  }),
};

const folder = mkdtempSync(join(tmpdir(), "lamp-captures-"));
const lamp = (file: string, more: string[] = []) => {
  const begun = performance.now();
  const told = spawnSync("npm", ["run", "-s", "lamp", "--", "capture", file, "--json", ...more], {
    cwd: root,
    encoding: "utf8",
    maxBuffer: 64 << 20,
  });
  if (told.status !== 0) throw new Error(told.stderr);
  return { made: JSON.parse(told.stdout), seconds: (performance.now() - begun) / 1000 };
};
const begins = (times: number[], unit: number) => {
  let sum = 0;
  return new Set(times.map((time) => Math.round((sum += time) / unit) - Math.round(time / unit)));
};

try {
  const files = await drawn([...Object.values(cases), at(30, 1), at(30, 1, { width: 1920, height: 1080 })]);
  files.forEach((bytes, k) => writeFileSync(join(folder, `${k}.webm`), bytes));
  let [right, kept, there] = [0, 0, 0];
  for (const [k, [name, drawing]] of Object.entries(cases).entries()) {
    const truth = truthOf(drawing);
    const { counter } = drawing;
    const box = counter
      ? [
          "--box",
          [
            counter.x - 6,
            counter.y - 4,
            counter.size * 0.62 * (3 + counter.unit.length) + 10,
            counter.size * 1.2 + 8,
          ]
            .map((part) => Math.max(0, Math.round(part)))
            .join(","),
        ]
      : [];
    const { made } = lamp(join(folder, `${k}.webm`), box);
    const unit = 1000 / truth.captureFps;
    const [seen, shown] = [begins(made.frameTimes, unit), begins(truth.shown, 1)];
    const wrong =
      [...seen].filter((frame) => !shown.has(frame)).length +
      [...shown].filter((frame) => !seen.has(frame)).length;
    const says = (ms: number) => truth.counter.filter(([from]) => 1000 * from <= ms + 1e-6).at(-1)?.[1];
    const readings: { atMs: number; fps: number }[] = made.counter?.readings ?? [];
    const ok = readings.filter(({ atMs, fps }) => says(atMs) === fps).length;
    if (counter) {
      right += ok;
      kept += readings.length;
      there += Math.floor(truth.durationMs / 500) - 1;
    }
    const captured = truth.shown.reduce((sum, frames) => sum + frames, 0);
    console.log(
      `${name.padEnd(26)} wrong ${((100 * wrong) / captured).toFixed(2)} %, average ${(100 * (made.averageFps / truth.averageFps - 1)).toFixed(2)} % off, unsure ${made.unsureFrames}${counter ? `, readings ${ok} of ${readings.length} right` : ""}`,
    );
  }
  console.log(
    `readings: ${((100 * right) / kept).toFixed(1)} % of those kept are right; ${((100 * kept) / there).toFixed(1)} % kept`,
  );
  const n = Object.keys(cases).length;
  for (const [name, long, short] of [
    ["640 × 360", 0, n],
    ["1920 × 1080", Object.keys(cases).indexOf("1920 × 1080"), n + 1],
  ] as const) {
    // What starting costs goes out by a second's capture measured in the same way.
    const [whole, bare] = [
      lamp(join(folder, `${long}.webm`)).seconds,
      lamp(join(folder, `${short}.webm`)).seconds,
    ];
    const seconds = truthOf(Object.values(cases)[long]!).durationMs / 1000 - 1;
    console.log(
      `${name}: ${(seconds / Math.max(0.01, whole - bare)).toFixed(1)} times playing speed, without reading a counter`,
    );
  }
} finally {
  rmSync(folder, { recursive: true, force: true });
}
