import { logWords } from "@/core/words";
import { packTrace, readLog, unpackTrace, type Channel, type Mark } from ".";

const pack = (frameTimes: number[], channels: Channel[] = [], marks: Mark[] = [], meta: unknown = {}) =>
  packTrace({ form: "frames", frameTimes: Float64Array.from(frameTimes), channels, marks }, meta);

describe("what a frame, and a run, can be", () => {
  it.each([
    ["a frame of 3e38 ms", () => pack([16, 3e38])],
    ["a frame of 1e-40 ms", () => pack([16, 1e-40])],
    ["a frame of two hours", () => pack([16, 7.2e6])],
    ["a hundred days of frames", () => pack(Array.from({ length: 2400 }, () => 3.6e6))],
    [
      "more marks than anybody sets",
      () =>
        pack(
          [16],
          [],
          Array.from({ length: 10_001 }, (_, k) => ({ label: "", startMs: k, endMs: k })),
        ),
    ],
    ["a header of 5 MB", () => pack([16], [], [], { note: "x".repeat(5 * 1024 * 1024) })],
  ])("%s is refused with its reason", (_, made) => {
    expect(() => unpackTrace(made())).toThrow(/^The trace can't be read: /);
  });
  it("a channel of odd length is refused", () => {
    const header = JSON.stringify({
      form: "frames",
      length: 2,
      channels: [{ role: "watts", length: 3 }],
      marks: [],
      meta: {},
    });
    const start = Math.ceil((4 + header.length) / 4) * 4;
    const odd = new Uint8Array(start + 20);
    new DataView(odd.buffer).setUint32(0, header.length, true);
    odd.set(new TextEncoder().encode(header), 4);
    new Float32Array(odd.buffer, start).set([16, 17, 1, 2, 3]);
    expect(() => unpackTrace(odd)).toThrow("at channels.0.length: half a pair");
  });
  it("an hour's freeze and a microsecond's frame are kept", () => {
    const { trace } = unpackTrace(pack([1e-3, 3.6e6]));
    expect(trace.form === "frames" && trace.frameTimes.length).toBe(2);
  });
});

describe("a log whose frames can't be", () => {
  const log = (...times: string[]) =>
    readLog(`frame_time_ms\n${[...times, "16.7", "16.7", "16.7"].join("\n")}\n`);
  it.each([
    ["1e308", /Frame 1 lasts 1e\+308 ms/],
    ["3e38", /Frame 1 lasts 3e\+38 ms/],
    ["3600001", /Frame 1 lasts 3600000 ms|Frame 1 lasts 3600001 ms/],
    ["1e-44", /Frame 1 lasts 1e-44 ms/],
  ])("%s ms is refused with the frame's number", (time, said) => {
    const read = log(time);
    expect(read.ok ? "was read" : logWords(read.problem.reason)).toMatch(said);
  });
  it.each(["3600000", "0.001"])("%s ms is the edge, and is read", (time) => expect(log(time).ok).toBe(true));
  it("more than a week is refused", () => {
    const read = log(...Array.from({ length: 169 }, () => "3600000"));
    expect(read.ok ? "was read" : logWords(read.problem.reason)).toBe("The log lasts longer than a week.");
  });
});
