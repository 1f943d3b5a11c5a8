import fc from "fast-check";
import {
  durationOf,
  endsOf,
  frameColumns,
  mostLogBytes,
  packTrace,
  readLog,
  readLogBytes,
  sliceTrace,
  tooLarge,
  traceCsv,
  unpackTrace,
  type FrameTrace,
  type LogReading,
  type ReadOptions,
  type Role,
} from ".";
import { readingOf } from "@/testing/readingOf";
import { averageFps } from "@/core/metrics";
import { logWords } from "@/core/words";

const read = (text: string, options?: ReadOptions): LogReading => readingOf(readLog(text, options));
const noted = ({ notes }: LogReading) => notes.map(logWords).join(" ");
function refused(text: string, options?: ReadOptions) {
  const result = readLog(text, options);
  if (result.ok) throw new Error("it was read");
  return result.problem;
}
const framesOf = (reading: LogReading) => [...(reading.trace as FrameTrace).frameTimes];
const rows = (n: number, row: (i: number) => string) => Array.from({ length: n }, (_, i) => row(i)).join("\n");

describe("ways a log is written", () => {
  it.each<[string, string, string]>([
    ["commas", "frame time (ms),cpu %\n16.7,40\n33.3,50\n", "comma"],
    ["semicolons and decimal commas", "Frame Time [ms];CPU %\n16,7;40\n33,3;50\n", "semicolon"],
    ["tabs", "frame_time_ms\tcpu\n16.7\t40\n33.3\t50\n", "tab"],
    ["bars", "frametime ms|cpu load\n16.7|40\n33.3|50\n", "bar"],
    ["runs of blanks", "  frametime_ms   cpu\n  16.7    40\n  33.3   50\n", "blank"],
    ["quotes", '"frame time, ms","cpu"\n"16.7","40"\n"33.3","50"\n', "comma"],
    ["a byte-order mark and CRLF", "\uFEFFframe time ms,cpu\r\n16.7,40\r\n33.3,50\r\n", "comma"],
    ["lone carriage returns", "frame time ms,cpu\r16.7,40\r33.3,50\r", "comma"],
  ])("reads %s", (_, text, delimiter) => {
    const reading = read(text);
    expect(framesOf(reading)).toEqual([16.7, 33.3]);
    expect(reading.delimiter).toBe(delimiter);
    expect(reading.trace.channels.map(({ role }) => role)).toEqual(["cpu"]);
  });
  it("a file of text lines is not said to have no rows; a header alone is", () => {
    const why = (text: string) => {
      const read = readLog(text);
      return read.ok ? "read" : logWords(read.problem.reason);
    };
    expect(why("speed,notes\n".repeat(50))).not.toMatch(/no rows/);
    expect(why("abc,def\n".repeat(50))).toBe("None of its 50 lines is a row of figures.");
    expect(why("frametime\n")).toBe("The log has a header and no rows.");
  });
  it("reads one column with decimal commas", () =>
    expect(framesOf(read("frame time (ms)\n16,7\n33,3\n"))).toEqual([16.7, 33.3]));
  it("reads comments, a preamble and a repeated header, and counts what is no number", () => {
    const reading = read(
      "# capture of the lock gates\nSession: evening\nelapsed s,frame time ms\n0.02,16.7\n# a remark\n0.05,33.3\nelapsed s,frame time ms\n0.07,16.7\nEND OF LOG\n",
    );
    expect(framesOf(reading)).toEqual([16.7, 33.3, 16.7]);
    expect(reading.skipped).toEqual([
      { line: 7, text: "elapsed s,frame time ms" },
      { line: 9, text: "END OF LOG" },
    ]);
    expect(reading.skippedRows).toBe(2);
  });
  it.each([
    ["s", 0.0167],
    ["ms", 16.7],
    ["us", 16700],
    ["µs", 16700],
    ["ns", 16_700_000],
  ])("takes the unit %s from the header", (unit, value) =>
    expect(framesOf(read(`Frame Duration (${unit})\n${value}\n${value}\n`))[0]).toBeCloseTo(16.7, 9),
  );
  it.each([
    ["s", 0.0167],
    ["ms", 16.7],
    ["us", 16700],
    ["ns", 16_700_000],
  ])("judges the unit %s from plausibility, and asks", (unit, value) => {
    const reading = read(`frametime\n${value}\n${value}\n`);
    expect(framesOf(reading)[0]).toBeCloseTo(16.7, 9);
    expect(reading.columns[0]).toMatchObject({ unit, unitFrom: "values" });
    expect(reading.needsConfirming).toBe(true);
  });
  it("reads numbers without a header: one that isn't growing is frame times, one that grows a clock", () => {
    expect(framesOf(read(rows(20, () => "16.7") + "\n"))).toHaveLength(20);
    expect(framesOf(read(rows(21, (i) => String(i * 20)) + "\n"))).toEqual(new Array(20).fill(20));
  });
  it("finds frame times beside a clock by its steps", () =>
    expect(framesOf(read(rows(30, (i) => `${i},${(i + 1) * 20},20,${i % 7}`) + "\n"))).toEqual(
      new Array(30).fill(20),
    ));
});

describe("what columns are, from words and units in any order", () => {
  const guess = (header: string): Role => read(`frame_time_ms,${header}\n16.7,1\n16.7,1\n`).columns[1].role;
  it.each<[string, Role]>([
    ["CPU Usage (%)", "cpu"],
    ["load of the processor [%]", "cpu"],
    ["busiest core %", "cpuBusiest"],
    ["core 3 %", "ignore"],
    ["gpu_load_pct", "gpu"],
    ["Graphics busy %", "gpu"],
    ["clock CPU MHz", "cpuClock"],
    ["GPU frequency [GHz]", "gpuClock"],
    ["Power draw (W)", "watts"],
    ["battery mW", "ignore"],
    ["Package mW", "watts"],
    ["Temp °C", "temperature"],
    ["GPU temperature (C)", "gpuTemperature"],
    ["RAM used MB", "memory"],
    ["memory GB", "memory"],
    ["emulation speed %", "speed"],
    ["fan speed rpm", "ignore"],
    ["room", "scene"],
    ["Section", "scene"],
    ["frame number", "ignore"],
    ["render_ms", "ignore"],
    ["gpu busy ms", "ignore"],
    ["elapsed (s)", "presentTime"],
    ["Timestamp", "presentTime"],
    ["refresh rate Hz", "ignore"],
    ["frames per second", "rate"],
    ["target fps", "rate"],
    ["audio underruns", "dropouts"],
    ["sound gaps", "dropouts"],
    ["dropouts (since the start)", "dropouts"],
    ["frame dropouts", "ignore"],
  ])("%s is %s", (header, role) => expect(guess(header)).toBe(role));
  it("takes the best-worded of several", () => {
    const reading = read("gpu frame time ms,frame time ms,render frame ms\n5,16.7,3\n5,16.7,3\n");
    expect(reading.columns.map(({ role }) => role)).toEqual(["ignore", "frameTime", "ignore"]);
  });
  it("lets the user say otherwise, and takes the role from the column that had it", () => {
    const reading = read("a ms,frame time ms\n20,16.7\n20,16.7\n", {
      map: { "a ms": { role: "frameTime", unit: "ms" } },
    });
    expect(framesOf(reading)).toEqual([20, 20]);
    expect(reading.columns[1].role).toBe("ignore");
  });
  it("refuses a map that names no column, and a log without any time", () => {
    expect(refused("frame time ms\n16\n", { map: { nothing: { role: "frameTime" } } }).code).toBe("badMap");
    expect(refused("apples,pears\n1,2\n3,4\n")).toMatchObject({
      code: "noTiming",
      columns: [{ name: "apples" }, { name: "pears" }],
    });
  });
  it("a header in another language is none: the values tell, and are marked as judged", () => {
    const comma = (value: number) => value.toFixed(3).replace(".", ",");
    const german = read(`Zeit;Bildzeit\n${rows(30, (i) => `${comma(i * 0.02)};${comma(20)}`)}\n`);
    expect(german.columns.map(({ role }) => role)).toEqual(["ignore", "frameTime"]);
    expect(framesOf(german)[0]).toBe(20);
    const counter = read(`время,кадры\n${rows(30, (i) => `${i},${59 + (i % 2)}`)}\n`);
    expect(counter.columns).toMatchObject([
      { role: "presentTime", unit: "s", unitFrom: "values" },
      { role: "rate", unitFrom: "values" },
    ]);
    expect(counter.trace.form).toBe("interval");
    // One word that is known is enough to trust the rest of the header.
    expect(refused(`Zeit;gpu load %\n${rows(30, (i) => `${i};90`)}\n`).code).toBe("noTiming");
  });
  it("a hundred columns are no trouble", () => {
    const wide = (cell: (i: number) => string) => Array.from({ length: 100 }, (_, i) => cell(i)).join(",");
    const reading = read(
      `${wide((i) => (i === 73 ? "frame time (ms)" : `thing ${i}`))}\n${rows(3, () => wide((i) => (i === 73 ? "16.7" : "x")))}\n`,
    );
    expect(framesOf(reading)).toEqual([16.7, 16.7, 16.7]);
    expect(reading.columns).toHaveLength(100);
  });
});

describe("clocks and counters", () => {
  it("takes differences of present times", () =>
    expect(framesOf(read("present time (ms)\n0\n16\n66\n"))).toEqual([16, 50]));
  it("joins rows of the same instant and says so", () => {
    const reading = read("timestamp ms\n0\n16\n16\n32\n");
    expect(framesOf(reading)).toEqual([16, 16]);
    expect(noted(reading)).toMatch(/1 row has the same time/);
  });
  it("reads a clock written as hours, minutes and seconds", () =>
    expect(framesOf(read("time,cpu %\n10:00:00.000,1\n10:00:00.020,2\n10:00:00.060,3\n"))).toEqual([20, 40]));
  it("a counter logged once a second is readings, with no frames invented", () => {
    const reading = read(`time s,fps,gpu %\n${rows(10, (i) => `${i},${i === 4 ? 30 : 60},90`)}\n`);
    expect(reading.trace).toMatchObject({ form: "interval", channels: [{ role: "gpu" }] });
    expect(durationOf(reading.trace)).toBe(10_000);
    expect(noted(reading)).toMatch(/not frames/);
  });
  it("a clock that covers more or less than the frame times add up to is said; one that agrees isn't", () => {
    const rows = (step: number) =>
      ["time (ms),frame time (ms)", ...Array.from({ length: 200 }, (_, k) => `${k * step},16.7`)].join("\n");
    expect(noted(read(rows(16.7)))).not.toContain("clock covers");
    const missing = read(rows(33.4));
    expect(noted(missing)).toContain("clock covers 6.6 s, its frame times add up to 3.3 s: frames are missing");
    expect(missing.needsConfirming).toBe(true);
    expect(noted(read(rows(8.35)))).toContain("clock covers 1.7 s, its frame times add up to 3.3 s: the clock");
  });

  it("a rate beside every frame's time stays a channel", () => {
    const reading = read(`time ms,fps\n${rows(50, (i) => `${i * 20},50`)}\n`);
    expect(reading.trace.form).toBe("frames");
    expect(reading.trace.channels[0].role).toBe("rate");
  });
  it("a mean frame time once a second is a counter too", () =>
    expect(read(`elapsed s,frame time ms\n${rows(10, (i) => `${i},20`)}\n`).trace).toMatchObject({
      form: "interval",
    }));
  it("readings without a clock are taken a second apart, and it asks", () =>
    expect(read("fps\n60\n58\n60\n")).toMatchObject({ needsConfirming: true, trace: { form: "interval" } }));
  it("names scenes where a column changes, at the frames' own time", () =>
    expect(read("frame time ms,room\n10,hall\n10,hall\n20,stairs\n").trace.marks).toEqual([
      { label: "hall", startMs: 0, endMs: 20 },
      { label: "stairs", startMs: 20, endMs: 40 },
    ]));
  it("counts dropouts from the first reading on, as a counter or a row at a time; saved and read again alike", () => {
    const dropouts = (cells: (number | string)[]) => {
      const { trace } = read(
        `frame time ms,audio underruns\n${rows(cells.length, (i) => `20,${cells[i] ?? ""}`)}`,
      );
      const again = read(traceCsv(trace)).trace;
      const values = [trace, again].map(({ channels }) => channels.map(({ values: each }) => each.at(-1)));
      expect(values[1]).toEqual(values[0]);
      return values[0];
    };
    expect(dropouts([4, 4, 5, 5, 5, 7])).toEqual([3]);
    expect(dropouts([0, 2, 0, 0, 1, 0])).toEqual([3]);
    expect(dropouts([0, "", 0, 0])).toEqual([0]);
  });
  it("keeps a reading once, however many frames repeat it", () => {
    const [gpu] = read(`frame time ms,gpu %\n${rows(100, (i) => `10,${i < 50 ? 80 : 90}`)}\n`).trace.channels;
    expect([...gpu.values]).toEqual([80, 80, 90, 90]);
  });
});

describe("bad input, nothing lost", () => {
  it("an empty file, and one with blank lines", () => {
    expect(refused("").code).toBe("empty");
    expect(refused("\n\n  \n").code).toBe("empty");
  });
  it("a header only", () => expect(refused("frame time ms,cpu\n").code).toBe("headerOnly"));
  it.each([
    ["negative", "-3"],
    ["zero", "0"],
    ["not a number", "NaN"],
    ["without end", "inf"],
  ])("times %s: refused with the line, left out when asked", (_, bad) => {
    const text = `frame time ms\n16\n16\n${bad}\n16\n`;
    expect(refused(text)).toMatchObject({ code: "badTimes", lines: [4], count: 1 });
    expect(framesOf(read(text, { leaveOutBad: true }))).toEqual([16, 16, 16]);
    expect(read(text, { leaveOutBad: true }).skippedRows).toBe(1);
  });
  it("a zero in the first row alone is left out, and said", () => {
    const reading = read("frame time ms\n0\n16\n17\n");
    expect(framesOf(reading)).toEqual([16, 17]);
    expect(noted(reading)).toMatch(/first row's frame time is zero/);
  });
  it("time going backwards", () => {
    const text = `time ms\n${rows(20, (i) => String(i === 10 ? 150 : i * 20))}\n`;
    expect(refused(text)).toMatchObject({ code: "backwards", lines: [12] });
    expect(durationOf(read(text, { leaveOutBad: true }).trace)).toBe(380);
  });
  it("two logs glued together: either, or both", () => {
    const log = (step: number) => `elapsed ms,frame time ms\n${rows(20, (i) => `${(i + 1) * step},${step}`)}\n`;
    const text = log(20) + log(10);
    expect(refused(text)).toMatchObject({ code: "glued", lines: [23], count: 1 });
    expect(framesOf(read(text, { part: 1 }))).toEqual(new Array(20).fill(20));
    expect(framesOf(read(text, { part: 2 }))).toEqual(new Array(20).fill(10));
    expect(durationOf(read(text, { part: "all" }).trace)).toBe(600);
  });
  it("a last line cut short is left out and said; a whole one without a line end is read", () => {
    const cut = read("frame time ms,cpu %\n16,40\n17,41\n1");
    expect(framesOf(cut)).toEqual([16, 17]);
    expect(noted(cut)).toMatch(/line \(4\) is cut short/);
    expect(framesOf(read("frame time ms,cpu %\n16,40\n17,41"))).toEqual([16, 17]);
  });
  it("binary is refused, and other encodings are read", () => {
    expect(readLogBytes(Uint8Array.from({ length: 4000 }, (_, i) => (i * 37) % 256))).toMatchObject({
      ok: false,
      problem: { code: "binary" },
    });
    const wide = Buffer.from("\uFEFFframe time ms,scène\n16,été\n17,été\n", "utf16le");
    expect(readLogBytes(wide)).toMatchObject({ ok: true, reading: { rows: 2 } });
    const latin = readLogBytes(Buffer.from("frame time ms,temp °C\n16,40\n17,41\n", "latin1"));
    expect(latin).toMatchObject({ ok: true, reading: { columns: [{}, { role: "temperature" }] } });
    expect(noted(readingOf(latin))).toMatch(/WINDOWS-1252/);
  });
  it("two gigabytes are refused by size, with the limit said", () => {
    expect(tooLarge(2 * 1024 ** 3)).toMatchObject({
      code: "tooLarge",
      reason: { figures: { bytes: 2 * 1024 ** 3, most: 512 * 1024 ** 2 } },
    });
    expect(tooLarge(mostLogBytes)).toBeNull();
  });
  it("never throws, whatever the text", () => {
    fc.assert(fc.property(fc.string({ unit: "binary", maxLength: 400 }), (text) => void readLog(text)));
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom("frame time ms", "16", ",", ";", "\n", "-1", "nan", '"', "0", "time", "\t"), {
          maxLength: 60,
        }),
        (parts) => void readLog(parts.join("")),
      ),
    );
  });
});

const anyFrames = fc
  .array(fc.double({ min: 0.1, max: 400, noNaN: true }), { minLength: 2, maxLength: 200 })
  .map((list): FrameTrace => ({
    form: "frames",
    frameTimes: Float64Array.from(list),
    channels: [],
    marks: [],
  }));

describe("a trace kept and cut", () => {
  it("packs and unpacks to Float32 precision, with channels, marks and particulars", () => {
    const trace: FrameTrace = {
      form: "frames",
      frameTimes: Float64Array.of(16.7, 33.3),
      channels: [{ role: "watts", times: Float64Array.of(16.7), values: Float64Array.of(9.5) }],
      marks: [{ label: "häll", startMs: 0, endMs: 50 }],
    };
    const { trace: back, meta } = unpackTrace(packTrace(trace, { label: "é" }));
    expect(meta).toEqual({ label: "é" });
    expect(back.marks).toEqual(trace.marks);
    expect((back as FrameTrace).frameTimes[0]).toBeCloseTo(16.7, 5);
    expect(back.channels[0].values[0]).toBeCloseTo(9.5, 6);
  });
  it("refuses packs that are cut off or hold what can't be", () => {
    const good = packTrace(
      { form: "frames", frameTimes: Float64Array.of(16, 17), channels: [], marks: [] },
      {},
    );
    expect(() => unpackTrace(good.subarray(0, good.length - 4))).toThrow(/cut off/);
    expect(() => unpackTrace(new Uint8Array(4))).toThrow(/too short/);
    expect(() =>
      unpackTrace(
        packTrace({ form: "frames", frameTimes: Float64Array.of(16, -1), channels: [], marks: [] }, {}),
      ),
    ).toThrow(/value 2 is -1/);
    expect(() =>
      unpackTrace(packTrace({ form: "frames", frameTimes: Float64Array.of(NaN), channels: [], marks: [] }, {})),
    ).toThrow(/value 1/);
    const noise = good.slice();
    noise[6] = 0xff;
    expect(() => unpackTrace(noise)).toThrow(/header/);
  });
  it("splitting a trace and joining it changes nothing", () => {
    fc.assert(
      fc.property(anyFrames, fc.double({ min: 0, max: 1, noNaN: true }), (trace, share) => {
        const ends = endsOf(trace);
        const cut = ends[Math.floor(share * (ends.length - 1))];
        const a = sliceTrace(trace, 0, cut) as FrameTrace,
          b = sliceTrace(trace, cut, Infinity) as FrameTrace;
        const joined = Float64Array.from([...a.frameTimes, ...b.frameTimes]);
        expect([...joined]).toEqual([...trace.frameTimes]);
        expect(averageFps(joined)).toBeCloseTo(averageFps(trace.frameTimes), 9);
      }),
    );
  });
  it("columns of pixels lose no spike", () => {
    fc.assert(
      fc.property(anyFrames, fc.integer({ min: 1, max: 50 }), (trace, columns) => {
        const ends = endsOf(trace);
        const made = frameColumns(trace, ends, 0, ends[ends.length - 1], columns);
        expect(Math.max(...[...made.high].filter(Number.isFinite))).toBeCloseTo(
          Math.max(...trace.frameTimes),
          3,
        );
        expect(Math.min(...[...made.low].filter(Number.isFinite))).toBeCloseTo(
          Math.min(...trace.frameTimes),
          3,
        );
        made.mean.forEach(
          (mean, i) => Number.isFinite(mean) && expect(mean).toBeLessThanOrEqual(made.high[i] + 1e-3),
        );
      }),
    );
  });
});

describe("a quote left open", () => {
  const slow = (extra: string) =>
    readLog(
      `frame time (ms),scene\n${Array.from({ length: 200 }, (_, i) => `${i % 2 === 0 ? 16.7 : 50},${i === 20 ? extra : "hall"}`).join("\n")}\n`,
    );

  it.each(['"the bell hall', 'the bell "hall', '"bell" hall"', '""'])("%s drops no row", (scene) => {
    const result = slow(scene);
    expect(result.ok && result.reading.rows).toBe(200);
    expect(result.ok && result.reading.skippedRows).toBe(0);
  });

  it("is said with its line", () => {
    const result = slow('"the bell hall');
    expect(noted(readingOf(result))).toMatch(/quote isn't closed on its own line: line 22\./);
  });

  it("in the time's own cell makes that one row a skipped one, counted and shown", () => {
    const result = readLog(`frame time (ms),scene\n16.7,a\n"16.8,a\n16.9,a\n17,a\n`);
    expect(result.ok && [result.reading.rows, result.reading.skippedRows]).toEqual([3, 1]);
  });

  it("never changes the rows of the rest, wherever it stands (property)", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 99 }), fc.constantFrom('"', '"x', 'x"', '"x"y'), (at, cell) => {
        const lines = Array.from({ length: 100 }, (_, i) => `${10 + (i % 7)},${i === at ? cell : "s"},${i}`);
        const result = readLog(`frame time (ms),scene,number\n${lines.join("\n")}\n`);
        expect(result.ok && result.reading.rows + result.reading.skippedRows).toBe(100);
      }),
    );
  });
});
