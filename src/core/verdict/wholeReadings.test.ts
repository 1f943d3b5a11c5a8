import { summarise, type Yardstick } from "@/core/metrics";
import { seeded } from "@/core/stats";
import type { Trace } from "@/core/trace";
import { words } from "@/core/words";
import { judge } from ".";

const read = (rates: number[]): Trace => ({
  form: "interval",
  durations: Float64Array.from(rates, () => 1000),
  rates: Float64Array.from(rates),
  channels: [],
  marks: [],
});
const judged = (rates: number[], native: number) => {
  const yardstick: Yardstick = { nativeFps: native, targetFps: native, tied: true, refreshHz: 60 };
  const { grade, remarks, between } = judge(summarise(read(rates), yardstick));
  return { grade, between, said: remarks.map(words).join(" ") };
};

/** Facts of the trade (common practice): a counter without decimals shows 59 or 60 for 59.94, 29 or 30 for 29.97. */
describe("a light from whole numbers", () => {
  it.each([
    [[59, 60, 60, 59, 60], 59.94],
    [[59, 59, 59, 59, 60], 59.94],
    [[60, 60, 59, 60, 60], 60],
    [[60, 60, 59, 60], 60],
    [[59, 60, 60, 59], 59.94],
    [[29, 30, 30, 29, 29], 29.97],
  ])("%j on a title of %d is full speed as far as whole numbers tell", (rates, native) => {
    const { grade, said } = judged(rates, native);
    expect(grade).toBe("steady");
    expect(said).toContain("Full speed as far as whole numbers tell");
  });
  it("58 throughout on 59.94 is just under full speed", () => {
    const { grade, said } = judged([58, 58, 58, 58, 58, 58], 59.94);
    expect(grade).toBe("dims");
    expect(said).toContain("Just under");
    expect(said).not.toContain("as far as whole numbers tell");
  });
  it("readings on both sides of a light say both, with what they leave open", () => {
    const { grade, said, between } = judged([48, 49, 48, 49, 48, 49], 60);
    expect(grade).toBe("dims");
    expect(between).toEqual(["gutters", "dims"]);
    expect(judged([54, 54, 55, 54, 55], 60).between).toBeUndefined();
    expect(said).toMatch(/Dims or Gutters: these readings leave the speed open from 7\d to 8\d %\./);
  });
  it("more readings short by over a unit than may be are never full speed", () => {
    expect(judged([...Array.from({ length: 19 }, () => 60), 50], 60).grade).not.toBe("steady");
  });
  it("readings with decimals are judged as they stand", () => {
    expect(judged([59.2, 59.3, 59.1, 59.2, 59.3], 59.94).grade).not.toBe("steady");
    expect(judged([59.9, 59.9, 60, 59.9, 59.9], 59.94).grade).toBe("steady");
  });
  it("a title at its own rate is full speed whatever the counter's phase, one 3 % slow never is", () => {
    const random = seeded(41);
    /** Frames that end in each second of a steady rate, from some phase; some counters cut off, some round. */
    const counted = (fps: number, seconds: number) => {
      const phase = random.uniform();
      return Array.from(
        { length: seconds },
        (_, second) => Math.floor(fps * (second + 1) + phase) - Math.floor(fps * second + phase),
      );
    };
    for (const native of [60, 59.94, 50, 29.97, 30])
      for (let run = 0; run < 100; run++) {
        expect(judged(counted(native, 8), native).grade).toBe("steady");
        if (native > 40) expect(judged(counted(0.97 * native, 20), native).grade).not.toBe("steady");
      }
  });
});
