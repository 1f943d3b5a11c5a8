import { words } from "@/core/words";
import {
  commonShapes,
  hasSize,
  memoryLeft,
  newRigSchema,
  newSystemSchema,
  plainRig,
  batteryWh,
  changesBetween,
  conditionWarnings,
  defaultsOf,
  firstConditions,
  newJobSchema,
  newTitleSchema,
  rigSpecSchema,
  settingSchema,
  type RigSpec,
} from ".";

const spec: RigSpec = {
  kind: "phone",
  processor: { clusters: [{ cores: 4, baseGhz: 1, boostGhz: 2 }] },
  graphics: { units: null, clockGhz: null },
  memoryGb: 8,
  storage: "",
  system: { version: "", date: null },
  driver: { version: "", date: null },
  displays: [
    { name: "own", connection: "built in", width: 800, height: 600, refreshHz: [60], diagonalInch: null },
  ],
  powerModes: [{ name: "usual", watts: 6, use: "any" }],
  clockOptions: ["quiet"],
  cooling: { kind: "", coolerToHand: true },
  batteryWh: null,
  temperatureLimitC: null,
};

describe("kit", () => {
  it("4,000 mAh at 3.85 V are 15.4 Wh", () => expect(batteryWh(4000, 3.85)).toBeCloseTo(15.4, 9));
  it("a rig needs a display, a mode and sane clocks", () => {
    expect(rigSpecSchema.safeParse(spec).success).toBe(true);
    expect(rigSpecSchema.safeParse({ ...spec, displays: [] }).success).toBe(false);
    expect(rigSpecSchema.safeParse({ ...spec, memoryGb: -1 }).success).toBe(false);
  });
  it("starts from its first mode; without a battery it is plugged in", () => {
    expect(firstConditions(spec)).toMatchObject({
      powerMode: "usual",
      clocks: "quiet",
      display: "own",
      pluggedIn: true,
    });
    expect(firstConditions({ ...spec, batteryWh: 20 }).pluggedIn).toBe(false);
  });
  it("a rig of which only the name is known says nothing else, and starts under nothing that is a guess", () => {
    const plain = plainRig(59.94);
    expect(newRigSchema.parse({ name: "Fern", spec: plain }).spec).toEqual(plain);
    expect(firstConditions(plain)).toMatchObject({ powerMode: null, clocks: null, pluggedIn: null });
    expect(memoryLeft(plain)).toBeNull();
    expect(hasSize(plain.displays[0]!)).toBe(false);
  });
  it("common shapes are called by size and rate, and are systems that can be kept", () => {
    expect(commonShapes).toHaveLength(6);
    for (const shape of commonShapes) {
      expect(newSystemSchema.parse(shape)).toEqual(shape);
      expect(shape.name).toMatch(/^\d+×\d+( twice)?, \d+ Hz$/);
    }
  });
  it("conditions that break house rules are said in words", () => {
    const now = { pluggedIn: true, docked: false, cooler: true };
    expect(conditionWarnings(now, { pluggedIn: false, docked: false, cooler: null }).map(words)).toEqual([
      "plugged in: house rules say on battery",
    ]);
    expect(conditionWarnings(now, { pluggedIn: null, docked: null, cooler: null })).toEqual([]);
    // Nobody said what it runs on: there is nothing to hold against the rules.
    expect(
      conditionWarnings({ ...now, pluggedIn: null }, { pluggedIn: false, docked: false, cooler: null }),
    ).toEqual([]);
  });
  it("tells what changed between settings", () => {
    expect(defaultsOf([{ key: "scale", default: 2 }])).toEqual({ scale: 2 });
    expect(changesBetween({ scale: 2, sound: "a" }, { scale: 3, sound: "a", extra: true })).toEqual([
      { key: "scale", from: 2, to: 3 },
      { key: "extra", from: null, to: true },
    ]);
  });
  it("refuses keys that a config file couldn't hold, and rates that can't be", () => {
    expect(settingSchema.in.shape.key.safeParse("a key").success).toBe(false);
    expect(newTitleSchema.shape.nativeFps.safeParse(0).success).toBe(false);
    expect(newJobSchema.shape.rigId.safeParse("no id").success).toBe(false);
  });
});
