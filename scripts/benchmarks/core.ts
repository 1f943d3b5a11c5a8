// Reading and measuring a million frames, in one process.
import Papa from "papaparse";
import { defaultMeasuring, summarise } from "@/core/metrics";
import { frameColumns, endsOf, readLogBytes, type FrameTrace } from "@/core/trace";
import { readingOf } from "@/testing/readingOf";
import { line, longLog, ms, timed } from "./timing";

const rows = 1_000_000;
const text = longLog(rows);
const bytes = new TextEncoder().encode(text);
console.log(`Core, ${rows.toLocaleString("en-GB")} frames, ${(bytes.length / 1e6).toFixed(0)} MB of log`);

const ours = await timed(3, () => readLogBytes(bytes));
const packaged = await timed(3, () => Papa.parse(text, { fastMode: true, delimiter: "," }));
line("Reading, with columns, units and checks", ms(ours));
line("The CSV package alone, its fastest mode, whole text", ms(packaged));
line("Ratio of the two (package / ours)", (packaged.median / ours.median).toFixed(2));

const trace = readingOf(readLogBytes(bytes)).trace as FrameTrace;
// The channels' share is apart from what is promised of the metrics.
const bare: FrameTrace = { ...trace, channels: [], marks: [] };
const yardstick = { nativeFps: 60, tied: true, targetFps: 60, refreshHz: 60 };
const sorting = await timed(7, () => Float64Array.from(bare.frameTimes).sort());
const measuring = await timed(7, () => summarise(bare, yardstick, defaultMeasuring));
line("Sorting one copy", ms(sorting));
line("All metrics", ms(measuring));
line("Ratio (metrics / sort; at most 4 is wanted)", (measuring.median / sorting.median).toFixed(2));

const gc = (globalThis as { gc?: () => void }).gc!;
gc();
const memory = () => process.memoryUsage().arrayBuffers + process.memoryUsage().heapUsed;
const before = memory();
let peak = before;
const watch = setInterval(() => {}, 1000);
// Nothing yields inside: the buffers alive at the end and those dropped since the last collection bound the
// peak from above.
summarise(bare, yardstick, defaultMeasuring);
peak = Math.max(peak, memory());
clearInterval(watch);
line(
  "Extra memory, upper bound, in copies of the array (under 6)",
  ((peak - before) / bare.frameTimes.byteLength).toFixed(2),
);

const ends = endsOf(bare);
line(
  "Columns of pixels for the whole trace, 600 wide",
  ms(await timed(7, () => frameColumns(bare, ends, 0, ends[ends.length - 1], 600))),
);
