import { wilson } from "@/core/stats";
import type { BuildView, HowRunsWereMade } from "@/core/records";
import {
  beginWords,
  boardShareWords,
  buildWords,
  calibrationWords,
  foreseenWords,
  publishedWords,
  stillWords,
  sureWords,
  wayWords,
  workshopWords,
} from ".";

describe("what the log says", () => {
  const changed = (change: BuildView["titles"][number]["change"]) =>
    ({ change }) as BuildView["titles"][number];
  const build = (more: Partial<BuildView>) =>
    buildWords({
      version: "5.1",
      before: { id: "b", version: "5.0" },
      titles: [],
      stale: [],
      ...more,
    } as BuildView);

  it("of a fault: whether the newest run still has it, by the runs since", () =>
    expect([0, 1, 4].map(stillWords)).toEqual([
      "in the newest run",
      "not seen in 1 run since",
      "not seen in 4 runs since",
    ]));
  it("of a build nothing is known before: nothing but that", () =>
    expect(build({ before: null, titles: [changed("one side only")] })).toEqual([
      "Nothing is known of a build before 5.1.",
    ]));
  it("of titles that ran with one build only: that none ran with both", () =>
    expect(build({ titles: [changed("one side only"), changed("one side only")] })).toEqual([
      "No title was run with both 5.0 and 5.1 on one rig.",
    ]));
  it("of titles that ran with both: every kind of change with its number, and nothing of the others", () =>
    expect(
      build({
        titles: ["fixed", "fixed", "darker", "as before", "one side only"].map((each) =>
          changed(each as "fixed"),
        ),
      }),
    ).toEqual([
      "From 5.0 to 5.1, of 4 titles run with both: faults gone in 2, a darker light in 1 and no change in 1.",
    ]));
  it("of values that were measured with another build: how many, on all rigs", () => {
    const stale = (...values: number[]) => values.map((n) => ({ rigId: `${n}`, rig: "", values: n }));
    expect(build({ before: null, stale: stale(1) })[1]).toBe(
      "1 value in profiles was measured with another build.",
    );
    expect(build({ before: null, stale: stale(2, 3) })[1]).toBe(
      "5 values in profiles were measured with another build.",
    );
  });
});

describe("what the board says", () => {
  it("the interval of a share is Wilson's (10 of 20: 29.9 to 70.1 %, by the formula, worked by hand)", () => {
    // z = 1.96: centre (10 + z²/2) / (20 + z²) = 0.5; half z √(10·10/20 + z²/4) / (20 + z²) = 0.2007.
    expect(boardShareWords(wilson(10, 20), 10, 20, 20)).toBe("30 % to 70 % hold (95 %)");
    expect(boardShareWords(wilson(10, 20), 10, 20, 26)).toBe("30 % to 70 % hold (95 %), 6 not run");
    expect(boardShareWords(wilson(1, 1), 1, 1, 5)).toBe("1 of 1 holds, 4 not run");
    expect(boardShareWords(wilson(0, 2), 0, 2, 2)).toBe("0 of 2 hold");
  });
  it("one light is, several are", () => {
    expect(publishedWords(0, 0)).toEqual([]);
    expect(publishedWords(1, 1)).toEqual(["1 of 1 light is Steady."]);
    expect(publishedWords(2, 5)).toEqual(["2 of 5 lights are Steady."]);
  });
  it("a cell is confirmed, or says its runs", () =>
    expect([sureWords({ runs: 3, confirmed: true }), sureWords({ runs: 1, confirmed: false })]).toEqual([
      "confirmed",
      "1 run",
    ]));
  const ways = (more: Partial<HowRunsWereMade>): HowRunsWereMade => ({
    sources: [{ source: "log", runs: 3 }],
    paths: [],
    from: "2026-03-01T20:00:00.000Z",
    to: "2026-03-01T22:00:00.000Z",
    ...more,
  });
  it("how runs were made: from what, on which day or days, by which way", () => {
    expect(wayWords(ways({}))).toBe("3 runs (logs: 3) on 2026-03-01");
    expect(
      wayWords(
        ways({
          sources: [
            { source: "capture", runs: 1 },
            { source: "tally", runs: 2 },
            { source: "of another version", runs: 1 },
          ],
          to: "2026-03-04T00:00:00.000Z",
          paths: ["the engine's log", "a capture card"],
        }),
      ),
    ).toBe(
      "4 runs (videos of the screen: 1, readings by eye: 2, of another version: 1) from 2026-03-01 to 2026-03-04; captured by the engine's log and a capture card",
    );
    expect(wayWords(ways({ sources: [] }))).toBe("no run yet");
  });
  const foreseen = (chance: number, more = {}) => ({ scale: 2, chance, powerMode: "", clocks: "", ...more });
  it("a prediction is said to be one, in tenths, and never to be sure", () => {
    expect([0.01, 0.049, 0.05, 0.72, 0.94, 0.95, 1].map((chance) => foreseenWords(foreseen(chance)))).toEqual(
      ["under 1 in 10", "under 1 in 10", "1 in 10", "7 in 10", "9 in 10", "over 9 in 10", "over 9 in 10"].map(
        (tenths) => `×2: ${tenths}`,
      ),
    );
    const [begin, trust] = beginWords(foreseen(0.72, { powerMode: "Even", clocks: "Loud" }), {
      held: 9,
      of: 10,
    });
    expect(begin).toBe("Begin at ×2 in Even, Loud: a chance of 7 in 10 that it holds.");
    expect(trust).toMatch(/^A prediction .*nothing measured here; of 10 rates left out to try it, 9 lay in/);
    expect(beginWords(foreseen(0.5), { held: 1, of: 1 })[0]).toBe(
      "Begin at ×2: a chance of 5 in 10 that it holds.",
    );
    expect(calibrationWords({ held: 9, of: 10 })).toMatch(/Of 10 rates left out to try them, 9 lay in/);
  });
});

describe("what the workshop says", () => {
  type Fares = Parameters<typeof workshopWords>[0];
  const fares = (more: Partial<Fares>) =>
    workshopWords({
      ...{ slow: [], waiting: [], outdatedRuns: 0, memoryMb: 212.4, totalBytes: 52_428_800, aheadMinutes: 0 },
      ...more,
    });
  const endpoint = (asked: number, over: number) => ({ asked, over }) as Fares["slow"][number];
  const work = (waiting: number, active: number, failed: number) =>
    ({ waiting, active, failed }) as Fares["waiting"][number];

  it("of an application that just began: its sizes, and that nothing was asked and nothing waits", () =>
    expect(fares({})).toEqual([
      "The store takes 50 MB, this process 212 MB of memory.",
      "No endpoint of this process was called yet.",
      "No work waits.",
    ]));
  it("of answers: how many took more than a second, or that none did", () => {
    expect(fares({ slow: [endpoint(1, 0)] })[1]).toBe(
      "The one answer of the endpoints listed took no more than a second.",
    );
    expect(fares({ slow: [endpoint(2, 0)] })[1]).toBe(
      "None of the 2 answers of the endpoints listed took more than a second.",
    );
    expect(fares({ slow: [endpoint(900, 1), endpoint(400, 0)] })[1]).toBe(
      "1 answer of 1,300 at the endpoints listed took more than a second.",
    );
  });
  it("of work: what waits, what is to be measured anew, what failed", () => {
    expect(fares({ waiting: [work(1, 0, 0)] })[2]).toBe(
      "1 piece of work waits or is being done, 0 runs to be measured anew.",
    );
    expect(fares({ waiting: [work(3, 1, 2)], outdatedRuns: 1 }).slice(2)).toEqual([
      "4 pieces of work wait or are being done, 1 run to be measured anew.",
      "2 pieces of work failed for good: the journal says why.",
    ]);
  });
  it("of a clock that was set back: by how much, and what still holds", () => {
    expect(fares({ aheadMinutes: 0.9 })).toHaveLength(3);
    expect(fares({ aheadMinutes: 61 })[3]).toMatch(/^The newest thing kept is dated 61 min ahead/);
  });
});
