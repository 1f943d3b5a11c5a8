import { said, words } from "@/core/words";
import { decisionsOf, inForce, overrides, type Decidable, type Decided, type Standing } from ".";

const base: Standing = {
  settings: { scale: 4, light: false, hold: true },
  conditions: {},
  buildId: "own",
  targetFps: null,
};
const before = (settings: Standing["settings"]) => ({ settings, conditions: {}, targetFps: null });
const decided = (from: Standing["settings"], kept: Decided["kept"], more: Partial<Decided> = {}): Decided => ({
  number: 1,
  before: before(from),
  kept,
  proof: null,
  ...more,
});
const kept = (
  settings: Standing["settings"],
  more: Partial<NonNullable<Decided["kept"]>> = {},
): Decided["kept"] => ({ settings, conditions: {}, buildId: null, ...more });

const trial = (number: number, decidedAt: string | null, more: Partial<Decidable> = {}): Decidable => ({
  number,
  kind: "compare",
  name: "",
  rounds: 1,
  cold: false,
  plan: { minutes: null, soakMinutes: null, elsewhereWatts: null, keys: [] },
  before: before(base.settings),
  arms: [
    { name: "a", role: "as it is", settings: base.settings, conditions: {}, buildId: null, level: null },
    {
      name: "b",
      role: "changed",
      settings: { ...base.settings, light: true },
      conditions: {},
      buildId: null,
      level: 30,
    },
  ],
  keptArm: 1,
  decidedAt,
  outcome: null,
  ...more,
});

describe("what holds after decisions", () => {
  it("each kept arm changes what it changed, and nothing else", () => {
    const first = decided(base.settings, kept({ ...base.settings, scale: 3 }));
    const second = decided({ ...base.settings, scale: 3 }, kept({ ...base.settings, scale: 3, light: true }));
    expect(inForce(base, [first, second]).settings).toEqual({ scale: 3, light: true, hold: true });
    // Taking back the first leaves the second standing.
    expect(inForce(base, [second]).settings).toEqual({ scale: 4, light: true, hold: true });
  });
  it("what was put back changes nothing; conditions and builds are kept too", () => {
    const held = inForce(base, [
      decided(base.settings, null),
      decided(base.settings, kept(base.settings, { conditions: { powerMode: "Brisk" }, buildId: "other" })),
    ]);
    expect(held).toEqual({ ...base, conditions: { powerMode: "Brisk" }, buildId: "other" });
  });
  it("a sweep's own settings for its own sake aren't kept", () => {
    const [sweep] = decisionsOf([
      trial(1, "2026-03-01T10:00:00.000Z", {
        kind: "resolution",
        before: before(base.settings),
        plan: { minutes: null, soakMinutes: null, elsewhereWatts: null, keys: ["scale"] },
        keptArm: 0,
        arms: [
          {
            name: "×2",
            role: "level",
            settings: { scale: 2, light: false, hold: false },
            conditions: {},
            buildId: null,
            level: 2,
          },
        ],
      }),
    ]);
    expect(inForce(base, [sweep!]).settings).toEqual({ scale: 2, light: false, hold: true });
  });
  it("undoing the first of two rate decisions leaves the second's rate standing", () => {
    const first = decided(base.settings, kept(base.settings, { targetFps: 30 }));
    const second = decided(base.settings, kept(base.settings, { targetFps: 20 }));
    expect(inForce(base, [first, second]).targetFps).toBe(20);
    expect(inForce(base, [second]).targetFps).toBe(20);
    expect(inForce(base, [first]).targetFps).toBe(30);
    expect(inForce(base, []).targetFps).toBeNull();
  });
  it("every override names the last trial that kept it, with its proof", () => {
    const proof = said("effect.pair", { pair: { ratio: 1.09, low: 1.05, high: 1.13 } });
    const one = decided(base.settings, kept({ ...base.settings, light: true }), { proof });
    const made = overrides({ scale: 2, light: false, hold: true }, inForce(base, [one]), [one]);
    expect(made).toEqual([
      { key: "scale", from: 2, to: 4, trial: null, proof: null },
      { key: "light", from: false, to: true, trial: 1, proof },
    ]);
    expect(words(proof)).toBe("+9.0 % (95 %: +5.0 % to +13.0 %)");
  });
});

describe("decisions among a job's trials", () => {
  it("come in the order they were made, undecided ones left out", () => {
    const made = decisionsOf([
      trial(1, "2026-01-02T00:00:00.000Z"),
      trial(2, null),
      trial(3, "2026-01-01T00:00:00.000Z"),
    ]);
    expect(made.map(({ number }) => number)).toEqual([3, 1]);
  });
  it("only a kind that is about the rate sets it, whatever its arms are called", () => {
    const [compare, rate] = decisionsOf([
      trial(1, "2026-01-01T00:00:00.000Z"),
      trial(2, "2026-01-02T00:00:00.000Z", { kind: "rate" }),
    ]);
    expect([compare?.kept?.targetFps, rate?.kept?.targetFps]).toEqual([undefined, 30]);
  });
});
