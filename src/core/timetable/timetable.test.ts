import { seeded } from "@/core/stats";
import { PlanProblem, timetable, timetablePlanSchema, type TimetablePlan } from ".";

/** A plan drawn at random. */
function drawn(seed: number, most: { titles: number; arms: number; rounds: number }): TimetablePlan {
  const random = seeded(seed);
  const of = (n: number) => random.whole(n);
  return {
    titles: Array.from({ length: 1 + of(most.titles) }, (_, k) => ({
      name: `t${k}`,
      loadingMin: of(3),
      passMin: 1 + of(4),
    })),
    arms: Array.from({ length: 1 + of(most.arms) }, (_, k) => ({
      name: `a${k}`,
      engine: `e${of(2)}`,
      driver: `d${of(2)}`,
      powerMode: `p${of(2)}`,
      rig: `r${of(2)}`,
    })),
    rounds: 1 + of(most.rounds),
    costs: {
      title: 5 * random.uniform(),
      engine: 5 * random.uniform(),
      driver: 9 * random.uniform(),
      powerMode: 2 * random.uniform(),
      rig: 3 * random.uniform(),
    },
    pauses: { r1: 8 * random.uniform() },
  };
}

const change = (
  { costs, arms, pauses = {} }: TimetablePlan,
  a: { title: string; arm: string },
  b: { title: string; arm: string },
) => {
  const [one, other] = [a, b].map(({ arm }) => arms.find(({ name }) => name === arm)!);
  const keys = ["engine", "driver", "powerMode", "rig"];
  return Math.max(
    (a.title === b.title ? 0 : costs.title!) +
      keys.reduce((sum, key) => sum + (one![key] === other![key] ? 0 : (costs[key] ?? 0)), 0),
    one!.rig === other!.rig ? (pauses[String(one!.rig)] ?? 0) : 0,
  );
};

/**
 * The least minutes of change that any balanced order has, by dynamic programming over all of them (Bellman,
 * 1962).
 */
function leastChange(plan: TimetablePlan): number {
  const { titles, arms, rounds } = plan;
  const whole = 2 ** arms.length - 1;
  const seen = new Map<string, number>();
  const from = (
    state: { round: number; done: number }[],
    last: { title: string; arm: string } | null,
  ): number => {
    if (state.every(({ round }) => round === rounds)) return 0;
    const key = JSON.stringify([state, last]);
    const known = seen.get(key);
    if (known !== undefined) return known;
    let least = Infinity;
    titles.forEach(({ name: title }, t) => {
      const { round, done } = state[t]!;
      if (round === rounds) return;
      arms.forEach(({ name: arm }, a) => {
        if (done & (1 << a)) return;
        const now = done | (1 << a);
        const next = state.with(t, now === whole ? { round: round + 1, done: 0 } : { round, done: now });
        const own = last ? change(plan, last, { title, arm }) : 0;
        least = Math.min(least, own + from(next, { title, arm }));
      });
    });
    seen.set(key, least);
    return least;
  };
  return from(
    titles.map(() => ({ round: 0, done: 0 })),
    null,
  );
}

describe("a timetable", () => {
  it.each(Array.from({ length: 40 }, (_, seed) => seed))(
    "plan %i: every run once, balanced inside its title, its minutes add up",
    (seed) => {
      const plan = drawn(seed, { titles: 12, arms: 5, rounds: 4 });
      const { order, minutes } = timetable(plan, 0.2);
      expect(new Set(order.map(({ title, arm, round }) => `${title} ${arm} ${round}`)).size).toBe(
        plan.titles.length * plan.arms.length * plan.rounds,
      );
      for (const { name } of plan.titles) {
        const counts = new Map(plan.arms.map((arm) => [arm.name, 0]));
        for (const run of order.filter(({ title }) => title === name)) {
          expect(counts.get(run.arm)).toBe(Math.min(...counts.values()));
          expect(run.round).toBe(counts.get(run.arm)! + 1);
          counts.set(run.arm, run.round);
        }
      }
      const own = (title: string) => {
        const { loadingMin, passMin } = plan.titles.find(({ name }) => name === title)!;
        return loadingMin + passMin;
      };
      let clock = 0;
      order.forEach((run, k) => {
        clock += k === 0 ? 0 : own(order[k - 1]!.title) + change(plan, order[k - 1]!, run);
        expect(run.startMin).toBeCloseTo(clock, 4);
      });
      expect(minutes).toBeCloseTo(clock + own(order.at(-1)!.title), 4);
    },
  );
  it.each(Array.from({ length: 25 }, (_, seed) => seed + 100))(
    "small plan %i: within 5 %% of the least that any order has",
    (seed) => {
      const plan = drawn(seed, { titles: 3, arms: 3, rounds: 2 });
      const fixed =
        plan.titles.reduce((sum, { loadingMin, passMin }) => sum + loadingMin + passMin, 0) *
        plan.arms.length *
        plan.rounds;
      const { minutes } = timetable(plan);
      expect(minutes).toBeGreaterThanOrEqual(fixed + leastChange(plan) - 1e-3);
      expect(minutes).toBeLessThanOrEqual(1.05 * (fixed + leastChange(plan)) + 1e-3);
    },
  );
  it("what is dear to change is changed least: a driver once a round, a title there and back", () => {
    const arms = [
      { name: "a", driver: "old" },
      { name: "b", driver: "new" },
    ];
    const titles = ["x", "y", "z"].map((name) => ({ name, loadingMin: 0, passMin: 1 }));
    const dear = timetable({ titles, arms, rounds: 2, costs: { title: 1, driver: 100 } });
    expect(dear.order.map(({ title, arm }) => title + arm).join(" ")).toBe(
      "xa ya za zb zb yb yb xb xb xa ya za",
    );
    expect(dear.minutes).toBe(12 + 200 + 6);
    const cheap = timetable({ titles, arms, rounds: 2, costs: { title: 100, driver: 1 } });
    expect(cheap.minutes).toBe(12 + 200 + 6);
  });
  it("a device that has to cool down makes way for another where that is quicker", () => {
    const arms = [
      { name: "a", rig: "hot", engine: "one" },
      { name: "b", rig: "cool", engine: "one" },
    ];
    const plan = { titles: [{ name: "x", loadingMin: 0, passMin: 1 }], arms, rounds: 3, costs: { rig: 4 } };
    const told = (pauses: Record<string, number>) => {
      const { order, minutes } = timetable({ ...plan, pauses });
      return { order: order.map(({ arm }) => arm).join(""), minutes };
    };
    // By changes alone the end of one round is the beginning of the next: three changes of rig.
    expect(told({})).toEqual({ order: expect.stringMatching(/^(abbaab|baabba)$/), minutes: 6 + 3 * 4 });
    // With 20 minutes of rest, five changes are quicker than two rests of one rig.
    expect(told({ hot: 20, cool: 20 })).toEqual({
      order: expect.stringMatching(/^(ababab|bababa)$/),
      minutes: 6 + 5 * 4,
    });
    // Where only one is hot, only it makes way.
    expect(told({ hot: 20 })).toEqual({ order: expect.not.stringContaining("aa"), minutes: 6 + 4 * 4 });
  });
  it("is spread over evenings of their length, and a run that fits none is refused", () => {
    const titles = ["x", "y", "z"].map((name) => ({ name, loadingMin: 5, passMin: 20 }));
    const plan = {
      titles,
      arms: [{ name: "a" }, { name: "b" }],
      rounds: 1,
      costs: { title: 5 },
      eveningMin: 60,
    };
    const { order, evenings } = timetable(plan);
    expect(order.map(({ evening }) => evening)).toEqual([1, 1, 2, 2, 3, 3]);
    expect(evenings).toBe(3);
    expect(() => timetable({ ...plan, eveningMin: 24 })).toThrow(PlanProblem);
    expect(timetable({ ...plan, eveningMin: undefined }).evenings).toBeNull();
  });
  it("the same plan has the same order", () => {
    const plan = drawn(7, { titles: 12, arms: 5, rounds: 3 });
    expect(timetable(plan)).toEqual(timetable(plan));
  });
  it.each([
    [{ titles: [], arms: [{ name: "a" }], rounds: 1 }],
    [
      {
        titles: [
          { name: "x", passMin: 1 },
          { name: "x", passMin: 1 },
        ],
        arms: [{ name: "a" }],
        rounds: 1,
      },
    ],
    [{ titles: [{ name: "x", passMin: -1 }], arms: [{ name: "a" }], rounds: 1 }],
    [{ titles: [{ name: "x", passMin: 1 }], arms: [{ name: "a" }], rounds: 1.5 }],
    [{ titles: [{ name: "x", passMin: 1 }], arms: [{ name: "a", engine: {} }], rounds: 1 }],
    [
      {
        titles: Array.from({ length: 5000 }, (_, k) => ({ name: `t${k}`, passMin: 1 })),
        arms: [{ name: "a" }],
        rounds: 5,
      },
    ],
    [null],
  ])("what is no plan is refused: %#", (given) =>
    expect(timetablePlanSchema.safeParse(given).success).toBe(false),
  );
});
