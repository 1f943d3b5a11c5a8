import { durationOf, type FrameTrace } from "@/core/trace";
import { hitches, segmentsOf, summarise } from ".";

const trace = (frameTimes: number[], more: Partial<FrameTrace> = {}): FrameTrace => ({
  form: "frames",
  frameTimes: Float64Array.from(frameTimes),
  channels: [],
  marks: [],
  ...more,
});
const of = (made: FrameTrace) => segmentsOf(made, durationOf(made), hitches(made.frameTimes), 60);

describe("a run scene by scene", () => {
  const frames = [...new Array(300).fill(20), ...new Array(300).fill(10)];
  const marks = [
    { label: "hall", startMs: 0, endMs: 6000 },
    { label: "field", startMs: 6000, endMs: 9000 },
  ];
  it("each scene has its own rate, and no frame is lost between them", () => {
    const made = of(trace(frames, { marks }));
    expect(
      made.map(({ label, averageFps, medianFrameTimeMs }) => [label, averageFps, medianFrameTimeMs]),
    ).toEqual([
      ["hall", 50, 20],
      ["field", 100, 10],
    ]);
  });
  it("visits to one scene are counted", () =>
    expect(
      of(trace(frames, { marks: [marks[0], { ...marks[1], label: "hall" }] })).map(({ visit }) => visit),
    ).toEqual([1, 2]));
  it("unmarked runs fall into equal parts of 8 s and more, eight at most", () => {
    expect(of(trace(new Array(2000).fill(20)))).toHaveLength(5);
    expect(of(trace(new Array(200).fill(20)))).toHaveLength(1);
    expect(of(trace(new Array(20_000).fill(20)))).toHaveLength(8);
  });
  it("a reading holds until the next: a load logged once counts in every part", () => {
    const channels = [
      { role: "gpu" as const, times: Float64Array.of(10), values: Float64Array.of(97) },
      { role: "watts" as const, times: Float64Array.of(0, 3000), values: Float64Array.of(10, 20) },
    ];
    const made = of(trace(frames, { marks, channels }));
    expect(made.map(({ means }) => means.gpu)).toEqual([97, 97]);
    expect(made[0].means.watts).toBeCloseTo(15, 9);
    expect(made[1].means.watts).toBe(20);
  });
  it("hitches belong to the scene they begin in; what entering costs is apart", () => {
    const rough = [...frames];
    rough[20] = 120;
    rough[250] = 120;
    const [hall] = of(trace(rough, { marks: [{ ...marks[0], endMs: 6200 }] }));
    expect([hall.hitches, hall.lostMs, hall.entryLostMs]).toEqual([2, 200, 100]);
  });
  it("a summary holds them; a counter's readings have rates, and say nothing of frames", () => {
    const yardstick = { nativeFps: 60, tied: true, targetFps: 60, refreshHz: 60 };
    expect(summarise(trace(frames, { marks }), yardstick).segments).toHaveLength(2);
    expect(
      summarise(
        {
          form: "interval",
          durations: Float64Array.of(1000),
          rates: Float64Array.of(50),
          channels: [],
          marks: [],
        },
        yardstick,
      ).segments,
    ).toEqual([
      expect.objectContaining({ averageFps: 50, cadenceShare: 0, hitches: 0, startMs: 0, endMs: 1000 }),
    ]);
  });
});
