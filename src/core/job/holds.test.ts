import type { Conditions } from "@/core/kit";
import { exampleSpec } from "@/testing/exampleTrial";
import { said, words } from "@/core/words";
import { differing, isUnder, whatHolds, type StoryRun, type Story } from ".";

const spec = {
  ...exampleSpec,
  powerModes: ["Full", "Brisk", "Hush"].map((name) => ({ name, watts: null, use: "any" as const })),
  driver: { version: "24.1", date: null },
};
const conditions = (more: Partial<Conditions> = {}): Conditions => ({
  powerMode: "Full",
  clocks: null,
  display: "Screen",
  pluggedIn: false,
  docked: false,
  cooler: false,
  roomC: null,
  capturePath: "",
  ...more,
});
const run = (under: Partial<Conditions>, more: Partial<StoryRun> = {}): StoryRun =>
  ({
    trialId: null,
    arm: null,
    settings: { scale: 3 },
    conditions: conditions(under),
    buildId: "build",
    driver: "24.1",
    yardstick: { targetFps: 60 },
    crashed: false,
    cold: false,
    ...more,
  }) as unknown as StoryRun;
const standing = { settings: { scale: 3 }, conditions: {}, buildId: "build", targetFps: null };
const trial = (more: object) =>
  ({
    id: "t",
    decidedAt: new Date().toISOString(),
    keptArm: null,
    before: { conditions: {} },
    arms: [{ role: "level" }],
    ...more,
  }) as never;
type Parts = Pick<Story, "standing" | "runs" | "trials">;
const holdsOf = (parts: Partial<Parts>, bench: Conditions | null = null) =>
  whatHolds({ standing, runs: [], trials: [], ...parts }, spec, bench);

describe("what holds in a job", () => {
  it("before any run: what the profile says, then the bench's last, then the rig's first", () => {
    expect(holdsOf({}).conditions).toMatchObject({ powerMode: "Full" });
    expect(holdsOf({}, conditions({ powerMode: "Hush" })).conditions).toMatchObject({ powerMode: "Hush" });
    const profile = { ...standing, conditions: { powerMode: "Brisk" } };
    const holds = holdsOf({ standing: profile }, conditions({ powerMode: "Hush", pluggedIn: true }));
    expect(holds.conditions).toMatchObject({ powerMode: "Brisk", pluggedIn: true });
    expect(holds.decided).toEqual({ powerMode: "Brisk" });
  });
  it("undecided conditions are those of the first run, never the first of a list", () =>
    expect(
      holdsOf({ runs: [run({ powerMode: "Hush", pluggedIn: true }), run({ powerMode: "Full" })] }).conditions,
    ).toMatchObject({ powerMode: "Hush", pluggedIn: true }));
  it("after a decision those that the kept arm was measured under", () => {
    const runs = [
      run({ powerMode: "Hush" }),
      run({ powerMode: "Full", pluggedIn: true }, { trialId: "t", arm: 0 }),
      run({ powerMode: "Brisk", pluggedIn: true }, { trialId: "t", arm: 1 }),
    ];
    const kept = { ...standing, conditions: { powerMode: "Brisk" } };
    expect(holdsOf({ runs, standing: kept, trials: [trial({ keptArm: 1 })] }).conditions).toMatchObject({
      powerMode: "Brisk",
      pluggedIn: true,
    });
    // A sweep that was put back says nothing of how things are; a comparison's first arm does.
    expect(holdsOf({ runs, trials: [trial({})] }).conditions.powerMode).toBe("Hush");
    expect(holdsOf({ runs, trials: [trial({ arms: [{ role: "as it is" }] })] }).conditions.powerMode).toBe(
      "Full",
    );
  });
  it("the driver is that of the set-up that holds", () => {
    const two = {
      ...spec,
      setUps: [{ name: "Card", system: { version: "", date: null }, driver: { version: "25.0", date: null } }],
    };
    const parts = { standing, runs: [run({ setUp: "Card" })], trials: [] };
    expect(whatHolds(parts, two).driver).toBe("25.0");
    expect(whatHolds({ ...parts, runs: [run({})] }, two).driver).toBe("24.1");
  });
});

describe("whether a run is made under what holds", () => {
  const holds = holdsOf({
    standing: { ...standing, conditions: { powerMode: "Brisk" }, targetFps: 60 },
    runs: [run({ powerMode: "Brisk" })],
  });
  const told = (one: StoryRun) =>
    differing(holds, { ...one, targetFps: one.yardstick.targetFps }, []).map(({ what }) => what);
  it.each([
    ["the same", run({ powerMode: "Brisk" }), []],
    ["another mode", run({ powerMode: "Hush" }), ["powerMode"]],
    ["on mains, docked", run({ powerMode: "Brisk", pluggedIn: true, docked: true }), ["pluggedIn", "docked"]],
    ["a cooler", run({ powerMode: "Brisk", cooler: true }), ["cooler"]],
    ["another set-up", run({ powerMode: "Brisk", setUp: "Card" }), ["setUp"]],
    ["a setting", run({ powerMode: "Brisk" }, { settings: { scale: 2 } }), ["setting"]],
    ["a build", run({ powerMode: "Brisk" }, { buildId: "other" }), ["build"]],
    ["a driver", run({ powerMode: "Brisk" }, { driver: "23.9" }), ["driver"]],
    ["another target", run({ powerMode: "Brisk" }, { yardstick: { targetFps: 30 } as never }), ["targetFps"]],
    ["what nobody said is no difference", run({ powerMode: "Brisk", pluggedIn: null }, { driver: "" }), []],
    ["the room and the capture path are a run's own", run({ powerMode: "Brisk", roomC: 31 }), []],
  ])("%s", (_, one, what) => {
    expect(told(one)).toEqual(what);
    expect(isUnder(holds, one, [])).toBe(what.length === 0);
  });
  it("a setting that the catalogue has had only since was at its default", () => {
    const grown = { ...holds, settings: { scale: 3, haze: true } };
    const haze = { key: "haze", label: "Haze", default: true } as never;
    expect(differing(grown, run({ powerMode: "Brisk" }), [haze])).toEqual([]);
  });
  it("says it in one sentence", () =>
    expect(
      words(
        said("holds.otherwise", {
          differing: differing(holds, run({ powerMode: "Hush", cooler: true }), []),
        }),
      ),
    ).toBe(
      "Not made under what holds in this job: power mode Hush instead of Brisk and cooler on instead of no cooler.",
    ));
});
