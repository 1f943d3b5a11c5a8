import type { Decision } from "@/core/compare";
import {
  answerCampaign,
  benjaminiHochberg,
  dayAfter,
  isWholeOrder,
  lookShare,
  mayTakeMore,
  newCampaignSchema,
  orderOf,
  roundStates,
  scheduleOf,
  slotsOf,
  type CampaignFacts,
  type CampaignPair,
  type CellFacts,
  type ScheduleFacts,
} from ".";
import { liveCampaign } from "../../testing/livedCampaigns";

const cell = (more: Partial<CellFacts> = {}): CellFacts => ({ runs: [], notes: [], lacks: [], ...more });
const ran = (averageFps: number, times: number, more: Partial<CellFacts["runs"][number]> = {}): CellFacts =>
  cell({
    runs: Array.from({ length: times }, (_, k) => ({
      id: `${averageFps} ${k}`,
      jobId: "job",
      number: k + 1,
      grade: "dims",
      averageFps,
      crashed: false,
      faults: [],
      durationMs: 60_000,
      between: null,
      places: null,
      ...more,
    })),
  });
const pair = (a: number, b: number, decision: Decision, p = 1e-9, chanceSettled = 1): CampaignPair => ({
  ...{ a, b, decision, p, moreRunsPerSide: decision === "undecided" ? 8 : 0, chanceSettled },
  ratio: decision === "better" ? 1.2 : decision === "worse" ? 0.8 : 1,
  low: 0.9,
  high: 1.3,
});
const note = (answer: CellFacts["notes"][number]["answer"], round = 1) => ({
  round,
  answer,
  note: "",
  actor: "us",
});
const facts = (
  titles: { cells: CellFacts[]; pairs: CampaignPair[] | null; extra?: number }[],
  more: Partial<CampaignFacts> = {},
): CampaignFacts => ({
  question: "which is best",
  arms: (titles[0]?.cells ?? []).map((_, k) => ({ name: `arm ${k}`, rigId: "rig" })),
  rounds: 3,
  extraRounds: 1,
  ...more,
  titles: titles.map((title, at) => ({ titleId: String(at), name: `title ${at}`, extra: 0, ...title })),
});

describe("a cell of readings", () => {
  it("says both lights that its runs leave open, and how many of the newest run's places hold", () => {
    const readings = ran(50, 2, { between: ["gutters", "dims"], places: { hold: 5, of: 7 } });
    const [title] = answerCampaign({
      question: "which is best",
      arms: [{ name: "one", rigId: "rig" }],
      rounds: 2,
      extraRounds: 0,
      titles: [{ titleId: "title", name: "title", extra: 0, cells: [readings], pairs: [] }],
    }).titles;
    expect(title!.cells[0]).toMatchObject({
      grade: "dims",
      between: ["gutters", "dims"],
      places: { hold: 5, of: 7 },
    });
  });
});

describe("the correction over titles", () => {
  it("is Benjamini & Hochberg's (1995), by the fifteen p of their worked example: four stand at 0.05, the first three by Bonferroni", () => {
    const p = [
      0.0001, 0.0004, 0.0019, 0.0095, 0.0201, 0.0278, 0.0298, 0.0344, 0.0459, 0.324, 0.4262, 0.5719, 0.6528,
      0.759, 1,
    ];
    expect(benjaminiHochberg(p)).toEqual({ selected: 4, bound: (4 * 0.05) / 15 });
    expect(benjaminiHochberg([...p].reverse()).selected).toBe(4);
  });
  it("counts families that have no p yet", () => {
    expect(benjaminiHochberg([0.01, null, null, null, null, null]).selected).toBe(0);
    expect(benjaminiHochberg([0.01, null]).selected).toBe(1);
    expect(benjaminiHochberg([])).toEqual({ selected: 0, bound: 0 });
  });
  it.each([1, 2, 4, 7])("spends the whole level over %i looks, more of it later", (looks) => {
    const shares = Array.from({ length: looks }, (_, k) => lookShare(k + 1, looks));
    expect(shares.reduce((sum, share) => sum + share, 0)).toBeCloseTo(1, 12);
    expect([...shares].sort((a, b) => a - b)).toEqual(shares);
  });
  it("a difference that doesn't outlast it is undecided, and one of many that does stands", () => {
    const titles = Array.from({ length: 10 }, (_, k) => ({
      cells: [ran(50, 3), ran(60, 3)],
      pairs: [pair(0, 1, "better", k === 0 ? 1e-6 : 0.03)],
    }));
    const { titles: answers } = answerCampaign(facts(titles));
    expect(answers.map(({ outcome }) => outcome)).toEqual(["winner", ...Array<string>(9).fill("open")]);
  });
});

describe("simulated campaigns", () => {
  const truth = {
    titles: 8,
    arms: 3,
    rounds: 3,
    extraRounds: 1,
    spread: 0.02,
    noise: { sd: 0.02, freedom: 12 },
    ratio: 1,
    differsIn: 0,
    sequential: true,
  };
  it("of ties seldom have any false winner, and spare runs; the whole table is in docs/method.md", () => {
    const lived = Array.from({ length: 40 }, (_, k) => liveCampaign({ ...truth, seed: 31 + 17 * k }));
    // 40 campaigns at 5 % have more than 6 with less than 1 chance in 200.
    expect(lived.filter(({ falseWinner }) => falseWinner).length).toBeLessThanOrEqual(6);
    expect(lived.every(({ runs, planned }) => runs < planned)).toBe(true);
  });
  it("with two titles that differ by a tenth have those found", () => {
    const lived = Array.from({ length: 10 }, (_, k) =>
      liveCampaign({ ...truth, ratio: 1.1, differsIn: 2, seed: 5 + k }),
    );
    expect(lived.reduce((sum, { found }) => sum + found, 0)).toBeGreaterThanOrEqual(18);
    expect(lived.reduce((sum, { missed }) => sum + missed, 0)).toBe(0);
  });
});

describe("a title's answer", () => {
  const only = (cells: CellFacts[], pairs: CampaignPair[] | null, more: Partial<CampaignFacts> = {}) =>
    answerCampaign(facts([{ cells, pairs }], more)).titles[0]!;
  it("names the one that no other beats", () => {
    const { outcome, best } = only([ran(50, 3), ran(60, 3)], [pair(0, 1, "better")]);
    expect([outcome, best]).toEqual(["winner", [1]]);
  });
  it("is a tie where the best are no different, and open where that isn't known", () => {
    expect(only([ran(60, 3), ran(60, 3)], [pair(0, 1, "no difference", 1)]).outcome).toBe("tie");
    expect(only([ran(60, 3), ran(60, 3)], [pair(0, 1, "undecided", 1, 0.9)]).outcome).toBe("open");
    expect(only([ran(60, 3), ran(60, 3)], null).outcome).toBe("open");
  });
  it("a fault outweighs speed: the faster arm wins nothing, and that is said", () => {
    const { outcome, best, fasterButFaulted } = only(
      [ran(50, 3), ran(60, 3, { faults: ["severe"] })],
      [pair(0, 1, "better")],
    );
    expect([outcome, best, fasterButFaulted]).toEqual(["winner", [0], [1]]);
    expect(only([ran(50, 3), ran(60, 3, { faults: ["slight"] })], [pair(0, 1, "better")]).best).toEqual([1]);
    expect(only([ran(50, 3, { crashed: true }), ran(60, 3, { faults: ["severe"] })], []).outcome).toBe(
      "faults",
    );
  });
  it("an arm that won't start is Dark, not missing, and counts among the verdicts", () => {
    const { titles, arms } = answerCampaign(
      facts([{ cells: [ran(50, 2), cell({ notes: [note("won't start")] })], pairs: [] }]),
    );
    expect(titles[0]!.cells[1]).toMatchObject({ state: "dark", grade: "dark" });
    expect(titles[0]!.outcome).toBe("winner");
    expect(arms[1]!.shares.dark).toMatchObject({ hits: 1, of: 1 });
  });
  it("an engine known to lack what is needed is marked before any run, and isn't judged", () => {
    const { titles, arms } = answerCampaign(
      facts([{ cells: [cell(), cell({ lacks: ["own drivers"] })], pairs: [] }]),
    );
    expect(titles[0]!.cells[1]).toMatchObject({ state: "not for it", grade: null });
    expect(arms[1]!.notForIt).toBe(1);
    expect(roundStates(cell({ lacks: ["own drivers"] }), 2)).toEqual(["lacking", "lacking"]);
  });
  it("shares have Wilson's interval: 20 of 22, 72.2 % to 97.5 % (Newcombe 1998's method 3, computed from its formula)", () => {
    const titles = Array.from({ length: 22 }, (_, k) => ({
      cells: [ran(60, 1, { grade: k < 20 ? "steady" : "dims" })],
      pairs: [],
    }));
    const { steady } = answerCampaign(facts(titles, { question: "what it manages" })).arms[0]!.shares;
    expect([steady.hits, steady.of]).toEqual([20, 22]);
    expect(100 * steady.low).toBeCloseTo(72.2, 1);
    expect(100 * steady.high).toBeCloseTo(97.5, 1);
  });
  it.each([
    ["better", ran(50, 3), ran(60, 3), "better"],
    ["worse", ran(60, 3), ran(50, 3), "worse"],
    ["no difference", ran(60, 3), ran(60, 3), "unchanged"],
    ["undecided", ran(60, 3), ran(61, 3), "open"],
    ["undecided", cell({ notes: [note("won't start")] }), ran(60, 3), "fixed"],
    ["no difference", ran(60, 3), ran(60, 3, { faults: ["blocking"] }), "newly broken"],
    ["no difference", ran(60, 3), cell(), "open"],
  ] as const)("from one version to the next: %s", (decision, before, after, change) => {
    expect(
      only([before, after], [pair(0, 1, decision, decision === "undecided" ? 1 : 1e-9)], {
        question: "what changed",
      }).change,
    ).toBe(change);
  });
});

describe("runs that give their time away", () => {
  it("a settled title spares its runs; one that can't be settled is given up after two rounds, not after one", () => {
    const states = (cells: CellFacts[], pairs: CampaignPair[]) => {
      const made = facts([{ cells, pairs }]);
      return slotsOf(made, answerCampaign(made), order(1, 2, 3)).map(({ state }) => state);
    };
    const order = (titles: number, arms: number, rounds: number) =>
      Array.from({ length: rounds }, (_, r) =>
        Array.from({ length: titles }, (_, title) =>
          Array.from({ length: arms }, (_, arm) => ({ title, arm, round: r + 1 })),
        ).flat(),
      ).flat();
    expect(states([ran(50, 1), ran(60, 1)], [pair(0, 1, "better")])).toEqual([
      "ran",
      "ran",
      "spared",
      "spared",
      "spared",
      "spared",
    ]);
    expect(states([ran(50, 1), ran(50, 1)], [pair(0, 1, "undecided", 1, 0.2)])).not.toContain("spared");
    expect(states([ran(50, 2), ran(50, 2)], [pair(0, 1, "undecided", 1, 0.2)])).toContain("spared");
    expect(states([ran(50, 2), ran(50, 2)], [pair(0, 1, "undecided", 1, 0.95)])).not.toContain("spared");
  });
  it("a title still open after all its runs may take more only where others gave enough, and only so often", () => {
    const titles = [
      { cells: [ran(50, 1), ran(60, 1)], pairs: [pair(0, 1, "better")] },
      { cells: [ran(50, 3), ran(51, 3)], pairs: [pair(0, 1, "undecided", 1, 0.95)] },
    ];
    const may = (of: CampaignFacts) => {
      const slots = [0, 1].flatMap((title) =>
        [1, 2, 3].flatMap((round) => [0, 1].map((arm) => ({ title, arm, round }))),
      );
      const answer = answerCampaign(of);
      return mayTakeMore(of, answer, slotsOf(of, answer, slots));
    };
    expect(may(facts(titles))).toEqual([1]);
    expect(may(facts(titles, { extraRounds: 0 }))).toEqual([]);
    expect(may(facts([titles[1]!, titles[1]!]))).toEqual([]);
  });
});

describe("evenings", () => {
  const plan = newCampaignSchema.parse({
    name: "evenings",
    question: "which is best",
    houseRulesId: "00000000-0000-4000-8000-000000000001",
    titles: [{ titleId: "00000000-0000-4000-8000-000000000002" }],
    arms: [
      { name: "a", rigId: "00000000-0000-4000-8000-000000000003", buildId: null },
      {
        name: "b",
        rigId: "00000000-0000-4000-8000-000000000003",
        buildId: null,
        conditions: { powerMode: "Full" },
      },
    ],
    rounds: 2,
    loadingMin: 1,
    eveningMin: 20,
    firstEvening: "2026-02-27",
    startsAt: "20:00",
  });
  const rig = "00000000-0000-4000-8000-000000000003";
  const made = (more: Partial<ScheduleFacts["plan"]> = {}, rigs = {}): ScheduleFacts => ({
    plan: { ...plan, ...more },
    arms: plan.arms.map((arm) => ({ ...arm, engineId: "e", pluggedIn: false })),
    titles: [0, 1, 2].map((k) => ({ titleId: String(k), passMin: 4 })),
    rigs: { [rig]: { batteryWh: null, watts: {}, coolDownMin: null, ...rigs } },
  });
  const now = { date: "2026-02-20", clock: "12:00" };
  it("hold whole runs: the next begins on the next day, over the end of a month too", () => {
    const facted = made();
    const slots = orderOf(facted);
    expect(isWholeOrder(slots, { titles: 3, arms: 2, rounds: 2 })).toBe(true);
    const { runs, evenings } = scheduleOf(facted, slots, now);
    expect(runs).toHaveLength(12);
    expect(evenings.map(({ date }) => date).slice(0, 3)).toEqual(["2026-02-27", "2026-02-28", "2026-03-01"]);
    for (const { minutes } of evenings) expect(minutes).toBeLessThanOrEqual(20);
    for (const { startMin, minutes } of runs) expect(startMin + minutes).toBeLessThanOrEqual(20 + 1e-9);
    expect(dayAfter("2028-02-28", 1)).toBe("2028-02-29");
  });
  it("one that slipped is made up for from today on, and one under way begins now", () => {
    const slots = orderOf(made());
    expect(scheduleOf(made(), slots, { date: "2026-03-05", clock: "12:00" }).evenings[0]).toMatchObject({
      date: "2026-03-05",
      startsAt: "20:00",
    });
    expect(scheduleOf(made(), slots, { date: "2026-03-05", clock: "20:06" }).evenings[0]).toMatchObject({
      date: "2026-03-05",
      startsAt: "20:06",
    });
    expect(scheduleOf(made(), slots, { date: "2026-03-05", clock: "20:18" }).evenings[0]!.date).toBe(
      "2026-03-06",
    );
  });
  it("hold charges by watts and battery, and cool-downs as measured", () => {
    const facted = made(
      { eveningMin: null, chargeWatts: 30 },
      { batteryWh: 4, watts: { Full: 28 }, coolDownMin: 3 },
    );
    const { runs } = scheduleOf(facted, orderOf(facted), now);
    // A run of 5 min at 28 W takes 2.33 Wh of 4: before the second in that mode stands a charge of them at 30
    // W.
    const charges = runs.filter(({ chargeMin }) => chargeMin > 0);
    expect(charges.length).toBeGreaterThan(0);
    expect(charges[0]!.chargeMin).toBeCloseTo(((28 * 5) / 60 / 30) * 60, 6);
    expect(
      runs.slice(1).every(({ coolMin, changeMin, chargeMin }) => coolMin + changeMin + chargeMin >= 3 - 1e-9),
    ).toBe(true);
  });
  it("an order that leaves a run out, or runs ahead, is none", () => {
    const slots = orderOf(made());
    const size = { titles: 3, arms: 2, rounds: 2 };
    expect(isWholeOrder(slots.slice(1), size)).toBe(false);
    expect(isWholeOrder([slots[0]!, ...slots.slice(0, -1)], size)).toBe(false);
    const ahead = [...slots].sort((a, b) => a.title - b.title || a.arm - b.arm || a.round - b.round);
    expect(isWholeOrder(ahead, size)).toBe(false);
  });
});

describe("a plan", () => {
  const good = {
    name: "x",
    question: "what changed",
    houseRulesId: "00000000-0000-4000-8000-000000000001",
    titles: [{ titleId: "00000000-0000-4000-8000-000000000002" }],
    arms: ["before", "after"].map((name) => ({
      name,
      rigId: "00000000-0000-4000-8000-000000000003",
      buildId: null,
    })),
    rounds: 3,
  };
  it.each([
    [{ titles: [] }],
    [{ arms: [] }],
    [{ arms: [good.arms[0], good.arms[0]] }],
    [{ arms: [good.arms[0]] }],
    [{ titles: [good.titles[0], good.titles[0]] }],
    [{ rounds: 0 }],
    [{ startsAt: "25:00" }],
    [{ firstEvening: "2026-13-01" }],
    [{ eveningMin: 5 }],
  ])("that can't be is refused: %j", (wrong) => {
    expect(newCampaignSchema.safeParse(good).success).toBe(true);
    expect(newCampaignSchema.safeParse({ ...good, ...wrong }).success).toBe(false);
  });
});
