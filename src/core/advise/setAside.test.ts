import type { Diagnosis } from "@/core/diagnose";
import { said, words } from "@/core/words";
import { plainSetting } from "@/core/kit";
import { leversFor, outlook, outOfReach, suggest, sweptIn, triedIn, type SuggestInput, type Tried } from ".";
import { afternoon, atRandom, bySuggestion } from "../../testing/afternoons";
import { likelyAfter } from "./priors";
import { problemOf } from "../../testing/problems";
import { severalAtOnce } from "./together";
import { whatBefore } from "./setAside";

type Found = Diagnosis["causes"][number];
const found = (cause: Found["cause"], chance: number): Found => ({
  cause,
  chance,
  weight: 3,
  evidence: [{ cause, weight: 3, sign: said("sign.clockNotWork") }],
});
const diagnosis = (...likely: Found[]): Diagnosis => ({
  causes: likely.filter(({ chance }) => chance >= 0.5),
  likely,
  segments: [],
  sentence: said("diagnosis.notEnough"),
  settle: null,
  pixelShare: null,
});
const tried = (key: string, to: Tried["to"], more: Partial<Tried> = {}): Tried => ({
  key,
  from: false,
  to,
  relieves: ["graphics"],
  helped: false,
  logGain: 0,
  ...more,
});
const lever = { key: "haze", to: true, relieves: ["graphics"] as Tried["relieves"] };
const graphics = diagnosis(found("graphics", 0.9));

describe("a lever that was tried", () => {
  it("and did nothing is left alone, in this job only", () => {
    expect(whatBefore(lever, [tried("haze", true)], graphics).aside).toBe(true);
    expect(whatBefore(lever, [tried("haze", true, { elsewhere: true })], graphics).aside).toBe(false);
    expect(whatBefore(lever, [tried("edges", true)], graphics)).toEqual({ aside: false, since: null });
  });
  it("undecided with a gain may be tried once more, and not a third time", () => {
    const gained = tried("haze", true, { logGain: 0.04 });
    expect(whatBefore(lever, [gained], graphics).aside).toBe(false);
    expect(whatBefore(lever, [gained, gained], graphics).aside).toBe(true);
  });
  it("comes back once another half was relieved and the diagnosis points to it, and says since what", () => {
    const lighter = tried("light_model", true, { relieves: ["processor"], helped: true, logGain: 0.2 });
    expect(whatBefore(lever, [tried("haze", true), lighter], graphics)).toEqual({
      aside: false,
      since: "light_model",
    });
    expect(whatBefore(lever, [lighter, tried("haze", true)], graphics).aside).toBe(true);
    expect(whatBefore(lever, [tried("haze", true), lighter], diagnosis(found("processor", 0.9))).aside).toBe(
      true,
    );
  });
  it("that cost 38 % never comes back", () => {
    const lighter = tried("light_model", true, { relieves: ["processor"], helped: true, logGain: 0.2 });
    expect(whatBefore(lever, [tried("haze", true, { logGain: -0.48 }), lighter], graphics).aside).toBe(true);
  });
  it("isn't undone where it helped", () =>
    expect(
      whatBefore({ ...lever, to: false }, [tried("haze", true, { helped: true, logGain: 0.1 })], graphics)
        .aside,
    ).toBe(true));
});

describe("a sweep of the job counts", () => {
  const arm = (scale: number, powerMode?: string) => ({ settings: { scale }, conditions: { powerMode } });
  const sweep = { kind: "resolution", arms: [arm(2), arm(3), arm(4)], plan: { keys: ["scale"] } };
  it("levels that were measured and not kept are tried; the kept one isn't", () => {
    expect(sweptIn({ ...sweep, choice: "keep", keptArm: 1 })).toEqual([
      { key: "scale", from: 3, to: 2, helped: false, logGain: 0 },
      { key: "scale", from: 3, to: 4, helped: false, logGain: 0 },
    ]);
    expect(sweptIn({ ...sweep, choice: "put back", keptArm: null })).toEqual([]);
  });
  it("power modes go by their names, and other kinds teach nothing", () => {
    const power = {
      ...sweep,
      kind: "power",
      arms: [arm(1, "Low"), arm(1, "High")],
      choice: "keep",
      keptArm: 0,
    };
    expect(sweptIn(power)).toEqual([{ key: "power mode", from: "Low", to: "High", helped: false, logGain: 0 }]);
    expect(sweptIn({ ...power, kind: "heat" })).toEqual([]);
  });
});

describe("failures speak of causes", () => {
  it("a lifted cap that changed nothing leaves little of the cap", () => {
    const cap = diagnosis(found("cap or sync", 0.95));
    const [after] = likelyAfter(cap, [tried("limit", 0, { relieves: ["sync"] })]);
    // Odds of 19, a failure leaves 0.15 of them: 2.85 to 1 (arithmetic).
    expect(after?.chance).toBeCloseTo(2.85 / 3.85, 6);
    expect(likelyAfter(cap, [tried("haze", true)])[0]?.chance).toBeCloseTo(0.95, 9);
  });
  it("failures before something helped don't count", () => {
    const helped = tried("light_model", true, { relieves: ["processor"], helped: true });
    expect(likelyAfter(graphics, [tried("haze", true), helped])[0]?.chance).toBeCloseTo(0.9, 9);
  });
});

/** Where anything may be changed, and nothing but settings is there to change. */
const anywhere: Omit<Parameters<typeof leversFor>[0], "catalogue" | "settings"> = {
  rules: {
    mayChange: { picture: true, clocks: true, powerMode: true },
    requires: { pluggedIn: null, docked: null, cooler: null },
  },
  spec: { powerModes: [], clockOptions: [], cooling: { kind: "fan", coolerToHand: false } },
  conditions: { powerMode: null, clocks: null, cooler: false, docked: false, pluggedIn: false, setUp: null },
};

describe("out of reach", () => {
  const input = (speedPercent: number): SuggestInput => ({
    levers: [],
    diagnosis: graphics,
    aim: "speed",
    speedPercent,
    steady: false,
    history: [],
    sceneMinutes: 1,
  });
  it("is said where nothing is left, with the honest ends", () => {
    expect(suggest(input(60))).toEqual([]);
    expect(words(outOfReach(input(60), true)!)).toMatch(
      /67 % is missing, and there is nothing to change: full speed can't be reached.*another engine or build/,
    );
    expect(words(outOfReach(input(60), false)!)).toMatch(/Lock a lower rate that holds, lower the target/);
  });
  const levers = leversFor({
    catalogue: [
      plainSetting("haze", { type: "switch", default: true, fastest: false, relieves: ["processor"] }),
    ],
    settings: { haze: true },
    ...anywhere,
  });
  it("isn't said while a lever is untried that isn't known to be useless: it is unlikely, and what would tell", () => {
    const asked = { ...input(60), levers };
    expect(outOfReach(asked, true)).toBeNull();
    const found = outlook(asked, true);
    expect(found).toMatchObject({ isOut: false });
    expect(words(found!.sentence)).toMatch(
      /unlikely: 67 % is missing, and 1 change left to try.*What would tell/,
    );
    const failed = tried("haze", false, { logGain: -0.001, relieves: ["processor"] });
    expect(outOfReach({ ...asked, history: [failed] }, true)).not.toBeNull();
  });
  it("isn't said at full speed, nor of a Steady job", () => {
    expect(outOfReach(input(100), true)).toBeNull();
    expect(outOfReach({ ...input(80), steady: true }, true)).toBeNull();
  });
});

describe("several at once", () => {
  const switches = ["haze", "edges"].map((key) =>
    plainSetting(key, { type: "switch", default: true, fastest: false, relieves: ["graphics"] }),
  );
  const scale = plainSetting("scale", { type: "number", default: 4, min: 1, max: 6, step: 1, fastest: 1 });
  const driver = plainSetting("driver", {
    type: "choice",
    choices: ["older", "newer"],
    default: "older",
    fastest: null,
  });
  const levers = leversFor({
    catalogue: [...switches, scale, driver],
    settings: { haze: true, edges: true, scale: 4, driver: "older" },
    ...anywhere,
  });
  it("sets everything to its fastest, alone and with each choice that nobody knows", () => {
    expect(severalAtOnce(levers, []).map(({ settings }) => settings)).toEqual([
      { haze: false, edges: false, scale: 1, driver: "older" },
      { haze: false, edges: false, scale: 1, driver: "newer" },
    ]);
  });
  it("leaves out what cost speed", () => {
    const [first] = severalAtOnce(levers, [tried("haze", false, { logGain: -0.1 })]);
    expect(first?.settings).toEqual({ haze: true, edges: false, scale: 1, driver: "older" });
  });
  it("is remembered as one lot, by what was changed", () => {
    const [first] = severalAtOnce(levers, []);
    const before = { settings: { haze: true, edges: true, scale: 4, driver: "older" } };
    const made = triedIn({
      arms: [
        { ...before, conditions: {} },
        { settings: first?.settings ?? {}, conditions: {} },
      ],
      before,
      outcome: { pairs: [{ decision: "undecided", ratio: 1.01 }] },
    });
    expect(made).toMatchObject({ key: first?.key, to: first?.to, helped: false });
  });
});

describe("afternoons (a small part of `npm run bench -- advice`)", () => {
  // Pixels, a limit left at 30, a sleeping governor, a waiting driver; and one that can't be reached.
  it.each([[0], [5], [6], [8], [11]])("problem %d ends right, in no more runs than any order takes", (at) => {
    const made = afternoon(problemOf(at, 41), bySuggestion, 7);
    expect(made.right).toBe(true);
    const order = [0, 1, 2].map((seed) => afternoon(problemOf(at, 41), atRandom, seed).runs);
    expect(made.runs).toBeLessThanOrEqual(order.reduce((sum, runs) => sum + runs, 0) / order.length);
  });
  it("never tries the same change twice without effect", () => {
    const { trials } = afternoon(problemOf(11, 43), bySuggestion, 3);
    const counts = new Map<string, number>();
    for (const name of trials) counts.set(name, (counts.get(name) ?? 0) + 1);
    // Once more where it was undecided with a gain, or where another half was relieved since.
    expect(Math.max(...counts.values())).toBeLessThanOrEqual(2);
  });
});
