import { packedMeta, packTrace, PackRefusal, strayMark, traceCsv, readLog, unpackKept } from ".";

/** Bytes as somebody might send them, with a header of their own. */
function bytesOf(header: unknown, values: number[]): Uint8Array<ArrayBuffer> {
  const json = new TextEncoder().encode(typeof header === "string" ? header : JSON.stringify(header));
  const start = Math.ceil((4 + json.length) / 4) * 4;
  const bytes = new Uint8Array(start + 4 * values.length);
  new DataView(bytes.buffer).setUint32(0, json.length, true);
  bytes.set(json, 4);
  new Float32Array(bytes.buffer, start).set(values);
  return bytes;
}
const whole = { form: "frames", length: 2, channels: [], marks: [], meta: { jobId: "7" } };
const refusal = (header: unknown, values = [16, 17]): [string, string] => {
  try {
    unpackKept(bytesOf(header, values));
  } catch (error) {
    if (error instanceof PackRefusal) return [error.field, error.message];
    throw error;
  }
  return ["", "was taken"];
};
const mark = { label: "a", startMs: 0, endMs: 10 };

describe("a packed trace's header", () => {
  it("is taken as it should be", () => expect(refusal(whole)).toEqual(["", "was taken"]));
  it.each([
    ["null", null, ""],
    ["a list", [], ""],
    ["a text", '"x"', ""],
    ["no form", { ...whole, form: undefined }, "form"],
    ["a channel that is null", { ...whole, channels: [null] }, "channels.0"],
    ["a mark that is null", { ...whole, marks: [null] }, "marks.0"],
    ["what a video saw as null", { ...whole, seenBy: null }, "seenBy"],
    ["an unknown channel", { ...whole, channels: [{ role: "toString", length: 0 }] }, "channels.0.role"],
    ["a length below 0", { ...whole, length: -1 }, "length"],
    ["half a pair of readings", { ...whole, form: "interval", length: 1 }, "length"],
    ["half a pair of a channel", { ...whole, channels: [{ role: "watts", length: 1 }] }, "channels.0.length"],
    [
      "one channel twice",
      {
        ...whole,
        channels: [
          { role: "watts", length: 2 },
          { role: "cpu", length: 2 },
          { role: "watts", length: 2 },
        ],
      },
      "channels.2.role",
    ],
    ["a mark that ends before it begins", { ...whole, marks: [{ ...mark, startMs: 20 }] }, "marks.0"],
    ["a mark before the run", { ...whole, marks: [{ ...mark, startMs: -1 }] }, "marks.0.startMs"],
  ])("is refused with its field and in words where it holds %s", (_what, header, field) => {
    const [at, message] = refusal(header, header === null ? [] : [16, 17]);
    expect(at).toBe(field);
    expect(message).toMatch(/^The trace can't be read: /);
    expect(message).not.toMatch(/undefined|of null|Cannot|is not a function/);
  });
  it("says what is meant without the trace being read, where it can", () => {
    expect(packedMeta(bytesOf(whole, [16, 17]))).toEqual({ jobId: "7" });
    for (const bytes of [
      new Uint8Array(3),
      new Uint8Array(12),
      bytesOf("null", []),
      bytesOf("{", []),
      bytesOf("1", []),
    ])
      expect(packedMeta(bytes)).toBeNull();
  });
});

describe("a mark and its run", () => {
  it("ends with it, a second and a hundredth aside", () => {
    const { kept } = unpackKept(bytesOf({ ...whole, length: 100 }, new Array<number>(100).fill(100)));
    expect(strayMark([{ ...mark, endMs: 11_000 }], kept)).toBe(-1);
    expect(strayMark([mark, { ...mark, endMs: 11_200 }], kept)).toBe(1);
    // 31 years, as a clock's epoch in ms taken for a moment of the run.
    expect(strayMark([{ ...mark, startMs: 9.8e11, endMs: 9.8e11 }], kept)).toBe(0);
  });
});

describe("a run as CSV", () => {
  it("makes scenes that a spreadsheet would run text, and the reader takes them back as they were", () => {
    const labels = ["=1+1", "@SUM(A1)", "-2+3", "plain, with comma"];
    const marks = labels.map((label, at) => ({ label, startMs: at * 1000, endMs: (at + 1) * 1000 }));
    const frameTimes = new Float64Array(400).fill(10);
    const text = traceCsv({ form: "frames", frameTimes, channels: [], marks });
    expect(text.split("\n").filter((line) => /,"?[=@-]/.test(line))).toEqual([]);
    const read = readLog(text);
    expect(read.ok && read.reading.trace.marks.map(({ label }) => label)).toEqual(labels);
    expect(packTrace({ form: "frames", frameTimes, channels: [], marks }, {}).length).toBeGreaterThan(1600);
  });
});
