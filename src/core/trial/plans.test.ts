import { plainSetting, settingFor, type Setting } from "@/core/kit";
import { exampleSetting } from "@/testing/exampleKit";
import type { PlanView } from "@/contract";
import {
  armName,
  clocksPlan,
  comparePlan,
  descendPlan,
  heatPlan,
  memoryPlan,
  otherSide,
  planMinutes,
  powerPlan,
  ratePlan,
  resolutionPlan,
  screeningPlan,
  usualScales,
} from ".";

const free = { picture: 0, feel: 0, heat: 0, risk: 0 };
/** A setting that says nothing of what it is for: its shape has to tell. */
const setting = (key: string, more: Partial<Setting>) => exampleSetting(key, { fastest: null, ...more });
const catalogue = [
  setting("scale", {
    type: "number",
    min: 1,
    max: 10,
    step: 1,
    default: 2,
    fastest: 1,
    relieves: ["graphics"],
    costs: { ...free, picture: 2 },
    linked: ["scale_y"],
  }),
  setting("scale_y", {
    type: "number",
    min: 1,
    max: 10,
    step: 1,
    default: 2,
    fastest: 1,
    relieves: ["graphics"],
    costs: { ...free, picture: 2 },
    linked: ["scale"],
  }),
  setting("hold", { default: true, relieves: ["sync"] }),
  setting("rate_limit", {
    type: "number",
    min: 0,
    max: 240,
    default: 0,
    relieves: ["sync"],
    countsDouble: true,
  }),
  setting("light", { fastest: true, restart: true }),
  setting("smoothing", { type: "choice", choices: ["none", "bilinear"], default: "bilinear" }),
];
const settings = { scale: 2, scale_y: 2, hold: true, rate_limit: 0, light: false, smoothing: "bilinear" };
const base = {
  catalogue,
  usefulScale: 4,
  sceneMinutes: 1,
  coolDownMinutes: null,
  standing: { settings, conditions: {} },
  job: { nativeFps: 60, tied: false },
  spec: {
    powerModes: [
      { name: "Low", watts: 8, use: "any" },
      { name: "High", watts: 20, use: "any" },
    ],
    clockOptions: ["quiet", "forced"],
    cooling: { kind: "", coolerToHand: true },
  },
} as unknown as PlanView;

describe("plans of trials and sweeps", () => {
  it("one change stands against what is in force, with the condition it replaces written down on both sides", () => {
    const made = comparePlan(
      base,
      {
        name: "B",
        settings: { ...settings, light: true },
        conditions: { powerMode: "High" },
        buildId: null,
        rounds: 3,
        cold: false,
      },
      { powerMode: "Low" },
    );
    expect(made.arms).toMatchObject([
      { name: "as it is", settings, conditions: { powerMode: "Low" } },
      { name: "B", settings: { light: true }, conditions: { powerMode: "High" } },
    ]);
  });
  it("descending is one trial of everything", () =>
    expect(descendPlan(base, { ...settings, scale: 1 }).arms.map(({ name }) => name)).toEqual([
      "as it is",
      "all fastest",
    ]));
  it("a screening sets its rows by the design, linked settings together", () => {
    const { arms, plan } = screeningPlan(base, ["scale", "light", "smoothing"]);
    // Four factors at most in eight rows, then all again with every sign changed.
    expect(arms).toHaveLength(16);
    expect(plan.keys).toEqual(["scale", "light", "smoothing"]);
    expect(arms[7]?.settings).toEqual(settings);
    expect(arms[15]?.settings).toMatchObject({ scale: 1, light: true, smoothing: "none" });
    expect(arms[0].settings).toMatchObject({ scale: 1, scale_y: 1, light: true, smoothing: "none" });
    for (const arm of arms) expect(arm.settings.scale).toBe(arm.settings.scale_y);
  });
  it("the other side of a setting", () => {
    expect([
      otherSide(catalogue[0], 2),
      otherSide(catalogue[4], false),
      otherSide(catalogue[2], true),
      otherSide(catalogue[5], "bilinear"),
      otherSide(catalogue[3], 0),
    ]).toEqual([1, true, false, "none", null]);
  });
  it("a resolution sweep keeps scales linked, lifts the cap, and is about the scale only", () => {
    const made = resolutionPlan(base, [4, 1], 2, true)!;
    expect(made.plan.keys).toEqual(["scale", "scale_y"]);
    expect(
      made.arms.map(({ name, level, settings: own }) => [name, level, own.scale, own.scale_y, own.hold]),
    ).toEqual([
      ["×1", 1, 1, 1, false],
      ["×4", 4, 4, 4, false],
    ]);
    expect(resolutionPlan(base, [1, 2], 1, false)!.arms[0].settings.hold).toBe(true);
  });
  it("levels worth sweeping reach one past what the display shows, five at most", () => {
    expect(usualScales(catalogue[0], 4)).toEqual([1, 2, 3, 4, 5]);
    expect(usualScales(catalogue[0], 8)).toEqual([1, 3, 5, 7, 9]);
    expect(usualScales(catalogue[0], null)).toEqual([1, 2, 3, 4, 5]);
  });
  it("power, heat, clocks and memory are conditions and minutes", () => {
    expect(powerPlan(base, ["High", "Low"], 2, 2.5).arms.map(({ name, level }) => [name, level])).toEqual([
      ["Low", 8],
      ["High", 20],
    ]);
    expect(
      powerPlan(base, ["Low"], 1, null, ["handheld", "docked"]).arms.map(({ name, conditions }) => [
        name,
        conditions,
      ]),
    ).toEqual([
      ["Low, handheld", { powerMode: "Low", docked: false, pluggedIn: false }],
      ["Low, docked", { powerMode: "Low", docked: true, pluggedIn: true }],
    ]);
    expect(heatPlan(base, 12, true).arms.map(({ conditions }) => conditions)).toEqual([
      { cooler: false },
      { cooler: true },
    ]);
    expect(heatPlan(base, 12, false).arms).toHaveLength(1);
    expect(clocksPlan(base, ["forced", "quiet"], 10).arms.map(({ name }) => name)).toEqual(["quiet", "forced"]);
    expect(memoryPlan(base, 15).plan.minutes).toBe(15);
  });
  it("a rate is decided by a free run, its caps written as the limiter counts", () => {
    const made = ratePlan(base, false);
    expect(made.arms.map(({ name, level, settings: own }) => [name, level, own.rate_limit])).toEqual([
      ["free", null, 0],
      ["60 fps", 60, 120],
      ["30 fps", 30, 60],
      ["20 fps", 20, 40],
      ["15 fps", 15, 30],
    ]);
    expect(made.arms[0].settings.hold).toBe(false);
    expect(ratePlan({ ...base, job: { ...base.job, tied: true } }, false).arms.map(({ name }) => name)).toEqual(
      ["free", "60 fps"],
    );
  });
  it("finds the scale, the limiter and the hold by what they are, never by a name", () => {
    expect(
      (["scale", "limiter", "hold rate"] as const).map((purpose) => settingFor(catalogue, purpose)?.key),
    ).toEqual(["scale", "rate_limit", "hold"]);
    expect(settingFor([catalogue[3]], "scale")).toBeNull();
    // A name that sounds like it is no purpose.
    expect(settingFor([plainSetting("rate_limit", { type: "number", fastest: null })], "limiter")).toBeNull();
  });
  it("counts minutes with restarts, and soaks twice where they are confirmed", () => {
    const costs = { ...base, settings };
    const compare = comparePlan(
      base,
      {
        name: "B",
        settings: { ...settings, light: true },
        conditions: {},
        buildId: null,
        rounds: 3,
        cold: false,
      },
      {},
    );
    // Looks of a minute need no cool-down that nobody measured; runs over five minutes do.
    expect(planMinutes(compare, costs)).toBe(6 * 1 + 3 * 2);
    expect(planMinutes(compare, { ...costs, sceneMinutes: 1 / 3 })).toBe(2 + 3 * 2);
    expect(planMinutes(compare, { ...costs, coolDownMinutes: 8 })).toBe(6 * 9 + 3 * 2);
    expect(planMinutes(clocksPlan(base, ["quiet", "forced"], 10), costs)).toBe(3 * 13);
  });
  it("an arm is named after what changes", () =>
    expect(
      armName([
        { label: "Scale", to: 3 },
        { label: "Light", to: true },
      ]),
    ).toBe("Scale 3, Light on"));
});
