import { momentsOf } from "./moments";

/** Pictures at 60 a second of a title at 30: each stands two captures, but for those named. */
function pictures(long: Record<number, number>) {
  const frameTimes = Float64Array.from({ length: 120 }, (_, at) => long[at] ?? 1000 / 30);
  const startsMs = new Float64Array(120);
  for (let at = 1; at < 120; at++) startsMs[at] = startsMs[at - 1]! + frameTimes[at - 1]!;
  return { frameTimes, startsMs };
}

describe("what stands out in a video", () => {
  const shown = pictures({ 10: 150, 60: 400 });
  const at = (place: number) => shown.startsMs[place]!;
  const made = momentsOf(
    {
      ...shown,
      unsure: [{ place: 30, atMs: at(30), beforeMs: at(29), takenFor: "new" }],
      counter: { dropped: [{ atMs: at(40), text: " -- ", confidence: 20 }] },
    },
    [{ label: "the lock gates", startMs: at(5), endMs: at(20) }],
  );
  it("comes in the order of time, each with its kind, its name and how long its picture stood", () => {
    expect(made.map(({ kind, label, lastsMs }) => [kind, label, Math.round(lastsMs)])).toEqual([
      ["marked", "the lock gates", 33],
      ["long", "", 150],
      ["doubtful", "", 33],
      ["lost", "--", 33],
      ["long", "", 400],
    ]);
  });
  it("an even video without marks has none", () => {
    expect(momentsOf({ ...pictures({}), unsure: [], counter: null }, [])).toEqual([]);
  });
  it("of a kind there are a hundred at most, the longest of those that stood", () => {
    const many = pictures(Object.fromEntries(Array.from({ length: 55 }, (_, k) => [2 * k, 200 + k])));
    const unsure = Array.from({ length: 300 }, (_, k) => ({
      place: k,
      atMs: k,
      beforeMs: 0,
      takenFor: "new" as const,
    }));
    const all = momentsOf({ ...many, unsure, counter: null }, []);
    expect(all.filter(({ kind }) => kind === "doubtful")).toHaveLength(100);
    expect(all.filter(({ kind }) => kind === "long")).toHaveLength(55);
  });
});
