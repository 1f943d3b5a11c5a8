import type { ThreadRun } from "@/contract";
import { runsLike } from "@/views/compare";
import { stretchIn, stretchText } from "./useAddress";

jest.mock("@/workers", () => ({ startComparer: () => ({}), callback: (run: unknown) => run }));
jest.mock("@/ui", () => ({ Button: () => null, say: {} }));

describe("stretches in an address", () => {
  it.each<[string | null, [number, number] | null]>([
    ["1200-5400", [1200, 5400]],
    ["0-1", [0, 1]],
    ["12.5-13", [12.5, 13]],
    ["5400-1200", null],
    ["7-7", null],
    ["-5-10", null],
    ["a-b", null],
    ["", null],
    [null, null],
  ])("%s", (text, stretch) => {
    expect(stretchIn(text)).toEqual(stretch);
  });

  it("come back as they were written", () => {
    expect(stretchIn(stretchText([1200, 5400]))).toEqual([1200, 5400]);
    expect(stretchText(null)).toBeNull();
  });
});

describe("the arm a run stands for", () => {
  const run = (id: string, changes: Partial<ThreadRun> = {}) =>
    ({ id, settings: { scale: 2 }, cacheState: "warm", crashed: false, ...changes }) as ThreadRun;
  const runs = [
    run("a"),
    run("b"),
    run("other", { settings: { scale: 3 } }),
    run("cold", { cacheState: "cold" }),
    run("dead", { crashed: true }),
  ];

  it("is all whole runs with its settings and its cache", () => {
    expect(runsLike(runs, runs[0]).map(({ id }) => id)).toEqual(["a", "b"]);
  });

  it("never mixes cold passes with warm ones", () => {
    expect(runsLike(runs, runs[3]).map(({ id }) => id)).toEqual(["cold"]);
  });
});
