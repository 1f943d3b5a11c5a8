import { blocksOf, nearReadings, type TallyReading } from "./blocks";

const reading = (fps: number, second: number, arm: number, scene = ""): TallyReading => ({
  fps,
  second,
  arm,
  scene,
});

describe("a tally of arms in turns", () => {
  it("is a run for every stretch with one arm, in order", () => {
    const made = blocksOf([
      reading(60, 0, 0),
      reading(59, 5, 0),
      reading(50, 10, 1),
      reading(51, 15, 1),
      reading(60, 20, 0),
    ]);
    expect(made.map(({ arm, readings }) => [arm, readings.map(({ fps }) => fps)])).toEqual([
      [0, [60, 59]],
      [1, [50, 51]],
      [0, [60]],
    ]);
  });

  it("every run begins at its own second 0", () => {
    const made = blocksOf([reading(60, 0, 0), reading(50, 12, 1), reading(51, 17, 1)]);
    expect(made[1].readings.map(({ second }) => second)).toEqual([0, 5]);
  });

  it("scenes stay with their readings", () => {
    const [block] = blocksOf([reading(60, 0, 0, "ford"), reading(58, 5, 0, "hill")]);
    expect(block.readings.map(({ scene }) => scene)).toEqual(["ford", "hill"]);
  });

  it("one arm throughout is one run, and nothing is none", () => {
    expect(blocksOf([reading(60, 0, 0), reading(60, 5, 0)])).toHaveLength(1);
    expect(blocksOf([])).toEqual([]);
  });

  it("no reading is lost or made up", () => {
    const all = Array.from({ length: 30 }, (_, k) => reading(40 + k, 5 * k, Math.floor(k / 4) % 3));
    expect(blocksOf(all).flatMap(({ readings }) => readings.map(({ fps }) => fps))).toEqual(
      all.map(({ fps }) => fps),
    );
  });
});

describe("numbers offered to be tapped", () => {
  it("lie about the last look, or about the aim before one; none above what a cap can show", () => {
    expect(nearReadings(null, 60)).toEqual([52, 53, 54, 55, 56, 57, 58, 59, 60, 61]);
    expect(nearReadings(60, 60)).toEqual([52, 53, 54, 55, 56, 57, 58, 59, 60, 61]);
    expect(nearReadings(41, 59.94)).toEqual([36, 37, 38, 39, 40, 41, 42, 43, 44, 45]);
    expect(nearReadings(118, 60)).toContain(118);
    expect(nearReadings(2, 60)).toEqual([0, 1, 2, 3, 4, 5, 6, 7, 8, 9]);
  });
});
