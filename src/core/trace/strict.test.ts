import { parse } from "csv-parse/sync";
import fc from "fast-check";
import { said } from "@/core/words";
import { ByteLogReader, readLog, readLogBytes, type LinesSaid, type LogResult } from ".";
import { readingOf } from "@/testing/readingOf";
import { LineCutter, mostLineLength } from "./lines";
import { LogReader } from "./reader";

/** Rows by a strict reader of RFC 4180 that isn't ours; null where it refuses the text. */
function strictRows(text: string, delimiter: string): string[][] | null {
  try {
    return parse(text, {
      delimiter,
      bom: true,
      skip_empty_lines: true,
      record_delimiter: ["\r\n", "\n", "\r"],
    });
  } catch {
    return null;
  }
}

const quoted = (cell: string) => `"${cell.replaceAll('"', '""')}"`;
const timesOf = (result: LogResult) =>
  result.ok && result.reading.trace.form === "frames" ? [...result.reading.trace.frameTimes] : null;
const labelsOf = (result: LogResult) =>
  result.ok ? result.reading.trace.marks.map(({ label }) => label) : null;

/** Frame times in hundredths of a millisecond, with the scene of each; in most rows a scene is one line. */
const frames = fc
  .array(
    fc.record({
      hundredths: fc.integer({ min: 101, max: 9_999 }),
      scene: fc.constantFrom("hall", "the, bell", 'say "go"', "lower\nyard", "; gate", "é", "a\r\nb"),
    }),
    { minLength: 6, maxLength: 60 },
  )
  .filter((made) => made.filter(({ scene }) => scene.includes("\n")).length * 3 < made.length);
const manner = fc.record({
  delimiter: fc.constantFrom(",", ";", "\t"),
  decimal: fc.constantFrom(".", ","),
  allQuoted: fc.boolean(),
  lineEnd: fc.constantFrom("\n", "\r\n"),
  mark: fc.boolean(),
  wrapped: fc.boolean(),
  last: fc.boolean(),
});

describe("held against a strict independent reader (RFC 4180, by the package csv-parse)", () => {
  it("any well-formed log: the same rows, times and scenes, wherever its bytes are cut", () =>
    fc.assert(
      fc.property(frames, manner, fc.integer({ min: 1, max: 300 }), (made, how, piece) => {
        const { delimiter, decimal, allQuoted, lineEnd, wrapped } = how;
        const cell = (text: string) =>
          allQuoted || text.includes(delimiter) || /["\r\n]/.test(text) ? quoted(text) : text;
        const number = (hundredths: number) =>
          `${Math.floor(hundredths / 100)}${decimal}${String(hundredths % 100).padStart(2, "0")}`;
        const lines = [
          [wrapped ? "frame time\n(ms)" : "frame time (ms)", "scene"],
          ...made.map(({ hundredths, scene }) => [number(hundredths), scene]),
        ].map((row) => row.map(cell).join(delimiter));
        const text = `${how.mark ? "\uFEFF" : ""}${lines.join(lineEnd)}${how.last ? lineEnd : ""}`;

        const theirs = strictRows(text, delimiter);
        const bytes = new TextEncoder().encode(text);
        const reader = new ByteLogReader();
        for (let at = 0; at < bytes.length; at += piece) reader.push(bytes.subarray(at, at + piece));
        const ours = reader.finish();

        expect(theirs).toHaveLength(made.length + 1);
        expect(timesOf(ours)).toEqual(theirs?.slice(1).map(([time]) => Number(time.replace(",", "."))));
        const scenes = made.map(({ scene }) => scene.replace("\r\n", "\n"));
        expect(labelsOf(ours)).toEqual(scenes.filter((scene, at) => scene !== scenes[at - 1]));
        expect(ours.ok && ours.reading.skippedRows).toBe(0);
      }),
      { numRuns: 5000 },
    ));

  it("any damaged one: the rows that both read are the same, and whatever else is said", () =>
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 101, max: 9_999 }), { minLength: 20, maxLength: 80 }),
        fc.array(
          fc.record({
            at: fc.nat(),
            what: fc.constantFrom('"', '""', "\0", "\n", "x", '\n"', ',"', "0x10"),
          }),
          { minLength: 1, maxLength: 3 },
        ),
        (made, damage) => {
          let text = `frame time (ms),scene\n${made.map((time, at) => `${time / 100},room ${at >> 3}`).join("\n")}\n`;
          for (const { at, what } of damage) {
            const place = 22 + (at % (text.length - 22));
            text = text.slice(0, place) + what + text.slice(place);
          }
          const ours = readLog(text);
          if (!ours.ok) return;
          const { rows, skippedRows, notes } = ours.reading;
          const theirs = strictRows(text, ",")
            ?.slice(1)
            .map(([time]) => Number(time))
            .filter((time) => time > 0);
          const isSame = JSON.stringify(theirs) === JSON.stringify(timesOf(ours));
          // A quote amid a cell is refused by the strict one; here it is a character.
          expect(theirs === undefined || isSame || skippedRows > 0 || notes.length > 0).toBe(true);
          // Nothing swallowed: every line that is a row of figures by itself is one here, whatever quote stands
          // open above it.
          const whole = text.split("\n").filter((line) => /^\d+(\.\d+)?,[^"\0]*$/.test(line));
          expect(rows).toBeGreaterThanOrEqual(whole.length - 1);
        },
      ),
      { numRuns: 500 },
    ));
});

describe("a quote left open where commas are decimal marks", () => {
  it.each([
    ["decimal commas", ["16,7", "16,8", "16,9", "17,1"]],
    ["readings with units", ["16.7 ms", "16.8 ms", "16.9 ms", "17.1 ms"]],
    ["a clock", ["10:00:01.1", "10:00:01.2", "10:00:01.3", "10:00:01.4"]],
  ])("swallows no row of %s, though a later line closes it", (_, cells) => {
    const rows = [...cells, ...cells.map((cell) => cell.replace("16", "18").replace(":00:", ":01:"))];
    const scenes = rows.map((_cell, at) => (at === 1 ? '"hall' : at === 3 ? 'yard"' : "hall"));
    const name = cells[0]!.includes(":") ? "time" : "frame time (ms)";
    const read = readLog(`${name};scene\n${rows.map((cell, at) => `${cell};${scenes[at]}`).join("\n")}\n`);
    expect(read).toMatchObject({ ok: true, reading: { rows: rows.length, skippedRows: 0 } });
    expect(read).toMatchObject({
      reading: { notes: [{ code: "log.openQuotes", figures: { lines: [3], count: 1 } }] },
    });
  });
});

describe("where a piece ends", () => {
  const text = `frame time ms,cpu\r\n${Array.from({ length: 700 }, (_, i) => `${10 + (i % 9)},${i % 90}`).join("\r\n")}\r\nno,row\r\n`;
  const whole = readLog(text);

  it("between a carriage return and its line feed or anywhere else, nothing changes", () =>
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: text.length - 1 }),
        fc.integer({ min: 1, max: 40 }),
        (cut, step) => {
          const reader = new LogReader();
          reader.push(text.slice(0, cut));
          for (let at = cut; at < text.length; at += step) reader.push(text.slice(at, at + step));
          expect(reader.finish()).toEqual(whole);
        },
      ),
      { numRuns: 40 },
    ));

  it("the row that is none keeps its line number", () =>
    expect(whole.ok && whole.reading.skipped).toEqual([{ line: 702, text: "no,row" }]));

  it("a line of 400 MB is held no longer than a row can be, and is left out and said", () => {
    const cutter = new LineCutter();
    const piece = "1".repeat(1 << 20);
    cutter.push("16.7\n");
    for (let n = 0; n < 400; n++) expect(cutter.push(piece)).toEqual([]);
    expect(cutter.rest()).toHaveLength(mostLineLength + 1);
    expect(cutter.push("\n16.8\n").map(({ length }) => length)).toEqual([mostLineLength + 1, 4]);

    const read = readLog(`frame time (ms)\n16.7\n${piece}1\n16.8\n`);
    expect(timesOf(read)).toEqual([16.7, 16.8]);
    expect(read.ok && read.reading.notes).toEqual([
      { code: "log.tooLong", figures: { lines: [3], count: 1, most: 1_048_576 } },
    ]);
  });
});

describe("decimal commas where a comma parts the cells", () => {
  const log = (header: string, row: string) => readLog(`${header}\n${`${row}\n`.repeat(30)}`);

  it("two cells a value are read as one, and it asks", () => {
    const read = log("frame time (ms),gpu (%)", "16,75,50,5");
    expect(read).toMatchObject({ ok: true, reading: { rows: 30, needsConfirming: true } });
    expect(timesOf(read)?.[0]).toBe(16.75);
    expect(read.ok && read.reading.trace.channels[0]?.values[0]).toBe(50.5);
  });
  it("within quotes they are read, and it asks", () => {
    const read = log('"frame time (ms)","gpu (%)"', '"16,75","50,5"');
    expect(read).toMatchObject({ ok: true, reading: { needsConfirming: true } });
    expect(timesOf(read)?.[0]).toBe(16.75);
  });
  it("a row of another width among them is left out and counted", () => {
    const read = readLog(`frame time (ms),gpu (%)\n${"16,75,50,5\n".repeat(30)}17,50,5\n`);
    expect(read).toMatchObject({
      ok: true,
      reading: { rows: 30, skippedRows: 1, skipped: [{ line: 32, text: "17,50,5" }] },
    });
  });
  it("where it can't be told which value has a fraction, the log is refused", () =>
    expect(log("frame time (ms),gpu (%)", "16,75,50")).toMatchObject({
      ok: false,
      problem: { code: "decimalCommas", reason: { figures: { columns: 2, cells: 3 } } },
    }));
  it("an empty cell at the end, and columns without a name whose numbers have points, are no sign of it", () => {
    expect(timesOf(log("frame time (us),gpu (%)", "16700,50,"))?.[0]).toBe(16.7);
    expect(timesOf(log("frame time (ms),gpu (%)", "16.7,50,3"))?.[0]).toBe(16.7);
  });
});

describe("an encoding that shows late", () => {
  const head = new TextEncoder().encode(`frame time (ms),temp (C)\n${"16.7,40 C\n".repeat(20_000)}`);
  const later = (bytes: Uint8Array) => readLogBytes(new Uint8Array(Buffer.concat([head, bytes])));
  const temperatures = (result: LogResult) =>
    result.ok ? [...(result.reading.trace.channels[0]?.values ?? [])] : null;

  it("readings in another one are read, and it is said", () => {
    const read = later(Buffer.from("16.7,55 °C\n".repeat(100), "latin1"));
    expect(temperatures(read)).toEqual([40, 40, 55, 55]);
    expect(read.ok && read.reading.notes).toEqual([said("log.encoding", { encoding: "windows-1252" })]);
  });
  it("UTF-8 that comes late is UTF-8", () => {
    const read = later(Buffer.from("16.7,55 °C\n".repeat(100), "utf8"));
    expect(temperatures(read)).toEqual([40, 40, 55, 55]);
    expect(read.ok && read.reading.notes).toEqual([]);
  });
  it("text of two bytes a character glued on is left out, counted and said", () => {
    const read = later(Buffer.from("16.7,55\n".repeat(100), "utf16le"));
    expect(read).toMatchObject({ ok: true, reading: { rows: 20_000, skippedRows: 101 } });
    expect(readingOf(read).notes[0]).toMatchObject({ code: "log.zeros", figures: { count: 101 } });
    expect((readingOf(read).notes[0]?.figures as LinesSaid).lines[0]).toBe(20_002);
  });
  it("zeros where a device lost power are left out and said, in a short log and in a long one", () => {
    for (const rows of [50, 20_000]) {
      const read = readLogBytes(
        new TextEncoder().encode(`frame time (ms)\n${"16.7\n".repeat(rows)}${"\0".repeat(70_000)}`),
      );
      expect(read).toMatchObject({ ok: true, reading: { rows, skippedRows: 1 } });
    }
  });
});

describe("wide", () => {
  it("thousands of columns are refused with their number", () => {
    const names = Array.from({ length: 2_001 }, (_, at) => (at === 0 ? "frame time (ms)" : `c${at}`));
    expect(readLog(`${names.join(",")}\n${names.map(() => "16").join(",")}\n`)).toMatchObject({
      ok: false,
      problem: { reason: said("refused.columns", { columns: 2001, most: 2000 }) },
    });
  });
});
