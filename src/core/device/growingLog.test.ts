import fc from "fast-check";
import { durationOf, readLog, type Trace } from "@/core/trace";
import { GrowingLog, joinedMarks, type Grown } from "./growingLog";

/** Logs of the shapes that loggers write, with the same frames in each. */
const shapes: Record<string, (frames: number[]) => string> = {
  "a frame time a row": (frames) => `frame time ms\n${frames.join("\n")}\n`,
  "no head": (frames) => `${frames.join("\n")}\n`,
  "seconds since the start": (frames) => {
    let at = 0;
    return `time s,scene\n${frames.map((ms, k) => `${((at += ms) / 1000).toFixed(6)},${k < 40 ? "yard" : "stair"}`).join("\n")}\n`;
  },
  "decimal commas, semicolons": (frames) =>
    `frame time ms;temperature C\n${frames.map((ms, k) => `${String(ms).replace(".", ",")};${50 + (k % 7)}`).join("\n")}\n`,
  "a head of comments, carriage returns": (frames) =>
    `# made by hand\r\n# twice\r\nframe time ms,watts\r\n${frames.map((ms) => `${ms},5.5`).join("\r\n")}\r\n`,
  "a counter every second": (frames) =>
    `time s,fps\n${frames.map((ms, k) => `${k},${Math.round(1000 / ms)}`).join("\n")}\n`,
};

/** A log pushed in pieces that end anywhere. */
function grownOf(text: string, cuts: number[]): { log: GrowingLog; grown: Grown[] } {
  const bytes = new TextEncoder().encode(text);
  const ends = [...new Set(cuts.map((cut) => Math.floor(cut * bytes.length)))].sort((a, b) => a - b);
  const log = new GrowingLog();
  const grown: Grown[] = [];
  let at = 0;
  for (const end of [...ends, bytes.length]) {
    const each = log.push(bytes.subarray(at, end));
    if (each) grown.push(each);
    at = end;
  }
  const rest = log.end();
  if (rest) grown.push(rest);
  return { log, grown };
}

const figures = (trace: Trace) =>
  trace.form === "frames"
    ? [...trace.frameTimes]
    : [...trace.durations].flatMap((duration, at) => [duration, trace.rates[at] ?? 0]);
const near = (one: readonly number[], other: readonly number[]) =>
  one.length === other.length && one.every((value, at) => Math.abs(value - (other[at] ?? Number.NaN)) < 1e-3);

describe("a log that is read while it is written", () => {
  it.each(Object.keys(shapes))("comes to what the whole log comes to, however it is cut: %s", (name) =>
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 15_000, max: 19_000 }), { minLength: 25, maxLength: 120 }),
        fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { maxLength: 12 }),
        (microseconds, cuts) => {
          const frames = microseconds.map((us) => us / 1000);
          const text = shapes[name]?.(frames) ?? "";
          const whole = readLog(text);
          if (!whole.ok) throw new Error(whole.problem.code);
          const { trace } = whole.reading;
          const { log, grown } = grownOf(text, cuts);
          expect(log.refusal).toBeNull();
          expect(grown.every(({ form }) => form === trace.form)).toBe(true);
          expect(
            near(
              grown.flatMap(({ values }) => values),
              figures(trace),
            ),
          ).toBe(true);
          expect(log.duration).toBeCloseTo(durationOf(trace), 3);
          for (const { role, times, values } of trace.channels) {
            // A value that stays is kept at its first and its last time: looked up, not counted.
            const came = grown.flatMap(({ channels }) => channels[role] ?? []);
            const valueAt = (ms: number) =>
              came.reduce(
                (value, time, at) => (at % 2 === 0 && time < ms + 1e-3 ? came[at + 1] : value),
                undefined as number | undefined,
              );
            expect([...times].map(valueAt)).toEqual([...values]);
          }
          const marks = joinedMarks(grown.flatMap((each) => each.marks));
          expect(marks.map(({ label }) => label)).toEqual(trace.marks.map(({ label }) => label));
          expect(
            near(
              marks.map(({ endMs }) => endMs),
              trace.marks.map(({ endMs }) => endMs),
            ),
          ).toBe(true);
        },
      ),
      { numRuns: 60 },
    ),
  );
  it("what is no log is said to be none, and a last line that was cut off isn't read as a whole one", () => {
    const none = grownOf("hello\nthere\n", []);
    expect([none.grown, none.log.refusal !== null]).toEqual([[], true]);
    const { grown } = grownOf(`frame time ms\n${"20\n".repeat(30)}1`, [0.5]);
    const values = grown.flatMap((each) => each.values);
    expect(values.slice(0, 30)).toEqual(Array.from({ length: 30 }, () => 20));
  });
});
