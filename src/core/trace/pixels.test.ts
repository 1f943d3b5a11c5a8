import { coarseTrace, drawnColumns, frameColumns, endsOf, type FrameTrace } from ".";

const trace: FrameTrace = {
  form: "frames",
  frameTimes: Float64Array.from({ length: 5000 }, (_, k) => (k === 2500 ? 123.456 : 16 + (k % 5))),
  channels: [
    {
      role: "watts",
      unit: null,
      label: "watts",
      times: Float64Array.from([0, 20_000, 40_000]),
      values: Float64Array.from([8, 11.5, 9]),
    } as unknown as FrameTrace["channels"][number],
  ],
  marks: [{ label: "the gate", startMs: 0, endMs: 9000 }],
};

describe("a trace in few columns", () => {
  it("is the same after its way as JSON as what the whole trace draws, to a hundredth", () => {
    const made = JSON.parse(JSON.stringify(coarseTrace(trace, 100))) as ReturnType<typeof coarseTrace>;
    const { low, high, mean } = frameColumns(trace, endsOf(trace), 0, made.durationMs, 100);
    const drawn = drawnColumns(made.frames);
    for (let at = 0; at < 100; at++) {
      expect(drawn.low[at]).toBeCloseTo(low[at]!, 2);
      expect(drawn.high[at]).toBeCloseTo(high[at]!, 2);
      expect(drawn.mean[at]).toBeCloseTo(mean[at]!, 2);
    }
    expect(Math.max(...drawn.high)).toBeCloseTo(123.46, 2);
    expect(made.most).toEqual({ watts: 11.5 });
    expect(made.channels[0]!.columns.mean).toHaveLength(50);
    expect(made.marks).toEqual(trace.marks);
  });
  it("columns that nothing falls in stay empty", () => {
    const [watts] = trace.channels;
    const late = {
      ...watts!,
      times: Float64Array.from([1500]),
      values: Float64Array.from([5]),
    } as typeof watts;
    const { channels } = coarseTrace(
      { form: "frames", frameTimes: Float64Array.from([1000, 1000]), channels: [late!], marks: [] },
      16,
    );
    // Eight columns over 2 s: the reading at 1.5 s ends the sixth.
    expect(channels[0]!.columns.mean).toEqual([null, null, null, null, null, 5, 5, 5]);
    expect(Number.isNaN(drawnColumns(channels[0]!.columns).low[0])).toBe(true);
  });
});
