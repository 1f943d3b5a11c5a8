import { seeded } from "@/core/stats";
import { calibrate, chanceOf, fitWorld, predict, type Observation } from ".";
import { frameTimeOf } from "./model";

/**
 * Rigs and titles of known work and pace, some pairs measured at one to three scales; slower than a cap, or
 * held by it.
 */
function madeUp(
  seed: number,
  { titles = 24, rigs = 6, share = 0.5, off = 0.05, cap = 60 } = {},
): Observation[] {
  const random = seeded(seed);
  const work = Array.from({ length: titles }, () => ({
    c: Math.log(9) + 0.5 * random.normal(),
    a: Math.log(6) + 0.5 * random.normal(),
    b: Math.log(3) + 0.5 * random.normal(),
  }));
  const pace = Array.from({ length: rigs }, () => ({ u: 0.4 * random.normal(), v: 0.5 * random.normal() }));
  return work.flatMap((own, t) =>
    pace.flatMap((rig, r) => {
      if (random.uniform() > share) return [];
      return [1, 2, 3].slice(0, 1 + random.whole(3)).map((scale): Observation => {
        const pixels = 0.17 * scale ** 2;
        const ms = Math.exp(frameTimeOf(own, rig, pixels).value + off * random.normal());
        const held = ms < 1000 / cap;
        return { title: `t${t}`, rig: `r${r}`, pixels, frameMs: held ? 1000 / cap : ms, held };
      });
    }),
  );
}

describe("the model", () => {
  it("has the slopes that small steps have", () => {
    const at = (d: number[]) =>
      frameTimeOf(
        { c: 2 + (d[0] ?? 0), a: 1.7 + (d[1] ?? 0), b: 1.2 + (d[2] ?? 0) },
        { u: 0.1 + (d[3] ?? 0), v: -0.2 + (d[4] ?? 0) },
        1.3,
      );
    at([]).slopes.forEach((slope, k) => {
      const step = Array.from({ length: 5 }, (_, j) => (j === k ? 1e-6 : 0));
      expect((at(step).value - at([]).value) / 1e-6).toBeCloseTo(slope, 4);
    });
  });
  it("is the larger of the two, nearly, where they lie apart", () => {
    expect(frameTimeOf({ c: 3, a: 0, b: 0 }, { u: 0.5, v: 0 }, 1).value).toBeCloseTo(3.5, 3);
    expect(frameTimeOf({ c: 0, a: 2, b: 2 }, { u: 0, v: 0 }, 1).value).toBeCloseTo(2 + Math.log(2), 3);
  });
});

describe("predictions", () => {
  it.each([
    ["half of the pairs, a cap at 60", {}],
    ["a third of the pairs, no cap", { share: 0.3, cap: 1e6 }],
    ["three rigs, eight titles", { titles: 8, rigs: 3, share: 0.7, cap: 1e6 }],
  ])("hold in 85 to 99 of 100 what was left out, over made-up rigs and titles: %s", (_, world) => {
    const all = Array.from({ length: 8 }, (__, k) => calibrate(madeUp(11 + k, world), 20));
    const held = all.reduce((sum, one) => sum + one.held, 0),
      of = all.reduce((sum, one) => sum + one.of, 0);
    expect(of).toBeGreaterThan(100);
    expect(held / of).toBeGreaterThan(0.85);
    expect(held / of).toBeLessThan(0.99);
  });
  it("are nearer for a pair whose title and rig are known than for one of which nothing is", () => {
    const seen = madeUp(3, { share: 0.8 });
    const world = fitWorld(seen);
    const width = (title: string, rig: string) => {
      const { low, high } = predict(world, title, rig, 0.6);
      return Math.log(high / low);
    };
    expect(width("t1", "r1")).toBeLessThan(0.7 * width("nobody's", "nobody's"));
    expect(width("t1", "r1")).toBeLessThan(width("t1", "nobody's"));
  });
  it("a title that caps held everywhere is taken for quicker than one of which nothing is known", () => {
    const slow = madeUp(5, { share: 0.8 });
    const held: Observation[] = ["r0", "r1", "r2"].map((rig) => ({
      title: "quick",
      rig,
      pixels: 0.17,
      frameMs: 4,
      held: true,
    }));
    const world = fitWorld([...slow, ...held]);
    const chance = (title: string) => chanceOf(predict(world, title, "r3", 0.17), 180);
    expect(chance("quick")).toBeGreaterThan(chance("nobody's") + 0.1);
    expect(predict(world, "quick", "r3", 0.17).frameMs).toBeLessThan(1000 / 60);
  });
  it("where a cap hides the quick titles their chance of its rate is what comes true, within fifteen points", () => {
    let [said, came, count] = [0, 0, 0];
    for (let seed = 0; seed < 4; seed++) {
      const all = madeUp(40 + seed, { cap: 1e6, share: 1, titles: 16 });
      const random = seeded(70 + seed);
      const isLeft = new Set(
        all.map(({ title, rig }) => `${title} ${rig}`).filter(() => random.uniform() < 0.5),
      );
      const key = ({ title, rig }: Observation) => `${title} ${rig}`;
      const behindCap = (one: Observation) =>
        one.frameMs < 1000 / 60 ? { ...one, frameMs: 1000 / 60, held: true } : one;
      const world = fitWorld(all.filter((one) => !isLeft.has(key(one))).map(behindCap));
      for (const { title, rig, pixels, frameMs } of all.filter((one) => isLeft.has(key(one))).slice(0, 40)) {
        said += chanceOf(predict(world, title, rig, pixels), 60);
        came += frameMs <= (1000 / 60) * 1.01 ? 1 : 0;
        count++;
      }
    }
    expect(Math.abs(said - came) / count).toBeLessThan(0.15);
  });
  it("a rig of which little is known is no less sure of a title than of any", () => {
    const seen = madeUp(9, { share: 0.25, cap: 1e6 });
    const world = fitWorld(seen);
    const logs = seen.filter(({ rig }) => rig === "r1").map(({ frameMs }) => Math.log(frameMs));
    const spread = Math.max(...logs) - Math.min(...logs);
    const { low, high } = predict(world, "nobody's", "r1", 0.6);
    expect(Math.log(high / low)).toBeLessThan(4 * Math.max(spread, 0.5));
  });
  it("a heavier picture is never likelier to hold", () => {
    const world = fitWorld(madeUp(8));
    const chances = [1, 2, 3, 4, 6].map((scale) => chanceOf(predict(world, "t2", "r4", 0.17 * scale ** 2), 60));
    chances.slice(1).forEach((chance, k) => expect(chance).toBeLessThanOrEqual((chances[k] ?? 0) + 1e-9));
  });
  it("nothing measured gives a wide guess, and no error", () => {
    const { low, high } = predict(fitWorld([]), "x", "y", 1);
    expect(high / low).toBeGreaterThan(5);
  });
});
