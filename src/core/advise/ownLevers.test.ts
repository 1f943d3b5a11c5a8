import {
  backEndSettings,
  layerSettings,
  plainRig,
  plainSwitch,
  rigSettings,
  titleSettings,
  type OwnSwitch,
} from "@/core/kit";
import { factorPlan, factorsFor } from "@/core/trial";
import { believe, leversFor } from ".";

const own = (key: string, more: Partial<OwnSwitch> = {}) =>
  plainSwitch(key, { fastest: "on", relieves: ["processor"], ...more });
const spec = {
  ...plainRig(60),
  driver: { version: "24.1", date: null },
  drivers: [
    { version: "23.3", date: null, note: "" },
    { version: "24.1", date: null, note: "the same again" },
  ],
  cooling: { kind: "", coolerToHand: false, coolers: [{ name: "Desk fan", noiseDb: 34 }] },
  switches: [
    own("turbo", { heat: 1 }),
    own("forced-filter", { fastest: "off", default: "on", costsSpeed: true }),
  ],
};
const patch = { name: "60 fps", fps: 60, sideEffects: "crowds run", fitsVersion: "1.1" };
const copy = { format: "", dump: "", update: "1.2", addOns: "", where: "", readMBps: null };
const title = {
  options: [own("preset", { values: ["fine", "fast"], default: "fine", fastest: "fast", picture: 2 })],
  patches: [patch],
  copy,
};
const catalogue = [
  ...layerSettings([{ name: "Translator", versions: ["1.9", "2.0"] }]),
  ...rigSettings(spec),
  ...titleSettings(title),
];
const settings = Object.fromEntries(catalogue.map(({ key, default: value }) => [key, value]));
const mayChange = { clocks: true, powerMode: true, picture: true };

describe("what is turned beside an engine's settings, as settings", () => {
  it("a driver that is named twice is one; layers begin at their newest; keys say whose they are", () => {
    expect(catalogue.map(({ key, type, default: value, choices }) => [key, type, value, choices])).toEqual([
      ["layer:Translator", "choice", "2.0", ["1.9", "2.0"]],
      ["rig:driver", "choice", "24.1", ["24.1", "23.3"]],
      ["rig:coolerName", "choice", "none", ["none", "Desk fan"]],
      ["rig:turbo", "choice", "off", ["off", "on"]],
      ["rig:forced-filter", "choice", "on", ["off", "on"]],
      ["title:preset", "choice", "fine", ["fine", "fast"]],
      ["patch:60-fps", "switch", false, []],
    ]);
    // One driver alone, no cooler and one version of a layer leave nothing to choose.
    expect(rigSettings({ ...plainRig(60), driver: { version: "1", date: null } })).toEqual([]);
    expect(layerSettings([{ name: "Native", versions: ["1"] }])).toEqual([]);
  });

  it("back ends that an engine names are a choice where its catalogue has none for them", () => {
    const [made] = backEndSettings(["Vulkan", "OpenGL"], []);
    expect(made).toMatchObject({
      key: "layer:back-end",
      choices: ["Vulkan", "OpenGL"],
      default: "Vulkan",
      purpose: "back end",
    });
    expect(backEndSettings(["Vulkan", "OpenGL"], [{ purpose: "back end" }])).toEqual([]);
    expect(backEndSettings(["Vulkan"], [])).toEqual([]);
  });

  it("a patch says what it breaks, and that it is for another version than the copy", () => {
    const cautions = catalogue.find(({ key }) => key === "patch:60-fps")?.caution;
    expect(cautions).toBe("Side effects: crowds run. It fits version 1.1; the copy is 1.2.");
    const fitting = titleSettings({ ...title, copy: { ...copy, update: "1.1" } });
    expect(fitting.at(-1)?.caution).toBe("Side effects: crowds run.");
  });

  it("advice offers them: the older driver, the fast preset, the filter let go; and learns from the rig's own trials", () => {
    const levers = leversFor({
      catalogue,
      settings,
      rules: { mayChange, requires: { pluggedIn: null, docked: null, cooler: null } },
      spec,
      conditions: { powerMode: null, clocks: null, cooler: false, docked: false, pluggedIn: null, setUp: null },
    });
    const offered = levers.filter(({ doubted }) => !doubted).map(({ key, to, towards }) => [key, to, towards]);
    expect(offered).toEqual(
      expect.arrayContaining([
        ["rig:driver", "23.3", "speed"],
        ["title:preset", "fast", "speed"],
        ["rig:forced-filter", "off", "speed"],
        ["rig:turbo", "on", "speed"],
        ["patch:60-fps", true, "speed"],
      ]),
    );
    const older = levers.find(({ key }) => key === "rig:driver")!;
    const prior = { chance: 0.3, logGain: 0.05 };
    const helped = { ...older, relieves: older.relieves, helped: true, logGain: 0.2, elsewhere: true };
    const belief = believe(older, prior, [helped, helped, helped]);
    expect([belief.tried, belief.helped]).toEqual([3, 3]);
    expect(belief.chance).toBeGreaterThan(0.5);
    expect(belief.logGain).toBeGreaterThan(0.1);
  });

  it("each can vary in a trial, any number of values an arm each beside what is in force", () => {
    const base = {
      catalogue,
      standing: { settings },
      conditions: { pluggedIn: false },
      spec: { ...spec, batteryWh: 20 },
      builds: [
        { id: "b1", engine: "Harrow", version: "5.0" },
        { id: "b2", engine: "Harrow", version: "5.1" },
        { id: "b3", engine: "Sallow", version: "7.2" },
      ],
      buildId: "b1",
      mayChange,
    };
    const factors = factorsFor(base);
    expect(factors.map(({ key, values }) => [key, values.length])).toEqual([
      ...catalogue.map(({ key }) => [key, 1]),
      ["pluggedIn", 1],
      ["build", 2],
    ]);
    const build = factors.at(-1)!;
    const plan = factorPlan(base, build, build.values, { rounds: 3, cold: false, name: "" }, base.conditions);
    expect(plan.arms.map(({ name, role, buildId }) => [name, role, buildId])).toEqual([
      ["as it is: Harrow 5.0", "as it is", null],
      ["Harrow 5.1", "changed", "b2"],
      ["Sallow 7.2", "changed", "b3"],
    ]);
    // What is in force holds the condition that the others change.
    const plug = factors.find(({ key }) => key === "pluggedIn")!;
    const plugged = factorPlan(
      base,
      plug,
      plug.values,
      { rounds: 1, cold: false, name: "Plug it in" },
      base.conditions,
    );
    expect([plugged.name, ...plugged.arms.map(({ conditions }) => conditions)]).toEqual([
      "Plug it in",
      { pluggedIn: false },
      { pluggedIn: true },
    ]);
    expect(factorsFor({ ...base, mayChange: { ...mayChange, clocks: false } }).length).toBe(factors.length);
  });
});
