// Draws the capture that ships with the demo, with its truth beside it: a title's moving shapes at about 41
// fps, and a counter that says 60 throughout.
import { writeFileSync } from "node:fs";
import { join } from "node:path";
import { root } from "../lib/run.mjs";
import { drawn, shownAt, truthOf } from "./draw";
import type { Drawing } from "./page";

const seconds = 12;
const drawing: Drawing = {
  width: 480,
  height: 270,
  captureFps: 60,
  codec: "vp8",
  shown: shownAt(42, 60, seconds, 5),
  scene: "still",
  noise: 0,
  drift: 0,
  varies: false,
  counter: { colour: "#f2f2f2", ground: null, size: 16, x: 12, y: 10, unit: " FPS" },
  readings: Array.from({ length: 2 * seconds }, (_, k): [number, number] => [(k + 1) / 2, 60]),
  seed: 5,
};
const [bytes] = await drawn([drawing]);
const folder = join(root, "samples", "captures");
writeFileSync(join(folder, "lamp-room.webm"), bytes!);
writeFileSync(join(folder, "lamp-room.webm.json"), `${JSON.stringify(truthOf(drawing))}\n`);
console.log(`lamp-room.webm, ${bytes!.length} bytes, ${truthOf(drawing).averageFps} fps`);
