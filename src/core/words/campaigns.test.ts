import type { ArmAnswer, CampaignAnswer, TitleAnswer } from "@/core/campaign";
import { campaignWords, shareWords, titleWords } from ".";

const none = { hits: 0, of: 0, low: 0, high: 1 };
const arm = (more: Partial<ArmAnswer> = {}): ArmAnswer => ({
  ...{ wins: 0, ties: 0, beaten: 0, faulted: 0, notForIt: 0, untested: 0 },
  shares: { gutters: none, dims: none, flickers: none, steady: none, dark: none },
  ...more,
});
const cell = (runs: number) => ({
  ...({ state: "sound", grade: "steady", between: null, averageFps: 60 } as const),
  ...{ runs, crashes: 0, hours: 0, places: null },
});
const title = (more: Partial<TitleAnswer> = {}): TitleAnswer => ({
  ...{ titleId: "one", cells: [cell(2), cell(2)], pairs: [], best: [], fasterButFaulted: [] },
  ...{ outcome: "open", firstSteady: null, change: null, settled: false },
  ...more,
});
const noOutcome = { untested: 0, open: 0, winner: 0, tie: 0, faults: 0, dark: 0 };
const noChange = { better: 0, worse: 0, unchanged: 0, fixed: 0, "newly broken": 0, open: 0 };
const answer = (titles: number, more: Partial<CampaignAnswer> = {}): CampaignAnswer => ({
  titles: Array.from({ length: titles }, () => title()),
  arms: [arm(), arm()],
  outcomes: noOutcome,
  changes: null,
  ...more,
});
const names = ["Plait", "Plait Swift"];

describe("what a campaign comes to", () => {
  it("says nothing before a run", () =>
    expect(
      campaignWords(answer(3, { outcomes: { ...noOutcome, untested: 3 } }), names, "which is best"),
    ).toEqual(["No run yet: nothing can be said."]));
  it("names the winners, the one of more titles first, and what is left of the titles", () =>
    expect(
      campaignWords(
        answer(7, {
          arms: [arm({ wins: 1 }), arm({ wins: 2 })],
          outcomes: { untested: 1, open: 1, winner: 3, tie: 1, faults: 0, dark: 1 },
        }),
        names,
        "which is best",
      ),
    ).toEqual([
      "Plait Swift wins 2 and Plait wins 1 of 7 titles.",
      "1 is a tie, 1 can't be told yet, in 1 nothing runs, 1 has no run.",
    ]));
  it("says that no arm wins, and where the fastest is held down by its faults", () => {
    const held = answer(2, { outcomes: { ...noOutcome, tie: 2 } });
    held.titles[0] = title({ outcome: "tie", fasterButFaulted: [1] });
    expect(campaignWords(held, names, "which is best")).toEqual([
      "No arm wins any of 2 titles so far.",
      "2 are ties.",
      "In 1 title the fastest arm is held down by faults: they outweigh its speed.",
    ]);
  });
  it("of one arm says how many titles hold, with the interval of the share, and what is left", () => {
    const steady = { hits: 3, of: 4, low: 0.301, high: 0.954 };
    const shares = { ...arm().shares, steady };
    expect(
      campaignWords(
        answer(7, { arms: [arm({ shares, untested: 2, notForIt: 1 }), arm({ untested: 1 })] }),
        ["Even", "Hush"],
        "what it manages",
      ),
    ).toEqual([
      "Even: 3 of 4 titles judged are Steady (95 %: 30 % to 95 %); 2 titles are still to be run; 1 isn't for it.",
      "Hush: no title is judged yet; 1 title is still to be run.",
    ]);
    const one = { ...arm().shares, steady: { hits: 1, of: 1, low: 0.207, high: 1 } };
    expect(
      campaignWords(answer(1, { arms: [arm({ shares: one, notForIt: 2 })] }), ["Even"], "which scale and mode"),
    ).toEqual(["Even: 1 of 1 title judged is Steady; 2 aren't for it."]);
  });
  it("of two versions says what changed, one and several", () =>
    expect(
      campaignWords(
        answer(5, { changes: { ...noChange, better: 1, worse: 0, fixed: 2, "newly broken": 1, open: 1 } }),
        ["5.0", "5.1"],
        "what changed",
      ),
    ).toEqual([
      "From 5.0 to 5.1, of 5 titles: 1 is better, 2 are fixed, 1 is newly broken and 1 can't be told yet.",
    ]));
  it("a share without a title judged is none, and no percentage", () => {
    expect(shareWords({ hits: 0, of: 0, low: 0, high: 1 })).toBe("none judged yet");
    expect(shareWords({ hits: 20, of: 22, low: 0.722, high: 0.975 })).toBe("20 of 22 (95 %: 72 % to 98 %)");
  });
});

describe("what a title comes to, in a table's cell", () => {
  const best = (made: TitleAnswer) => titleWords(made, names, "which is best");
  it.each<[string, Partial<TitleAnswer>]>([
    ["no run yet", { outcome: "untested" }],
    ["none of them runs", { outcome: "dark" }],
    ["faults outweigh every one", { outcome: "faults" }],
    ["Plait Swift wins", { outcome: "winner", best: [1] }],
    ["Plait Swift alone runs", { outcome: "winner", best: [1], cells: [cell(0), cell(2)] }],
    ["Plait wins; Plait Swift is faster, but faulted", { outcome: "winner", best: [0], fasterButFaulted: [1] }],
    ["no difference: Plait and Plait Swift", { outcome: "tie", best: [0, 1] }],
    ["not to be told yet: Plait and Plait Swift", { outcome: "open", best: [0, 1] }],
  ])("%s", (said, made) => expect(best(title(made))).toBe(said));

  const pair = { a: 0, b: 1, ratio: 1.08, low: 1.03, high: 1.131 } as TitleAnswer["pairs"][number];
  it.each<[string, Partial<TitleAnswer>]>([
    ["better, +8.0 % (95 %: +3.0 % to +13.1 %)", { change: "better", pairs: [pair] }],
    ["better", { change: "better" }],
    ["unchanged", { change: "unchanged", pairs: [pair] }],
    ["fixed by Plait Swift", { change: "fixed" }],
    ["newly broken by Plait Swift", { change: "newly broken" }],
    ["not to be told yet", { change: "open" }],
  ])("of two versions: %s", (said, made) => expect(titleWords(title(made), names, "what changed")).toBe(said));

  it.each<[string, Partial<TitleAnswer>]>([
    ["Plait Swift holds", { firstSteady: 1 }],
    ["none holds so far", {}],
    ["no run yet", { outcome: "untested" }],
  ])("of scales and modes: %s", (said, made) =>
    expect(titleWords(title(made), names, "which scale and mode")).toBe(said),
  );
});
