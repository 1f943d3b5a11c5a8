import { firstConditions, firstPreflight, preflightFor, type PreflightSetting, type RigSpec } from ".";

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
    { name: "television", connection: "cable", width: 1920, height: 1080, refreshHz: [60], diagonalInch: null },
  ],
  powerModes: [{ name: "usual", watts: 6, use: "any" }],
  clockOptions: [],
  cooling: { kind: "", coolerToHand: true },
  batteryWh: 18,
  temperatureLimitC: null,
};
const setting = (changes: Partial<PreflightSetting> = {}): PreflightSetting => ({
  spec,
  conditions: firstConditions(spec),
  title: { hardness: "easy", patches: 0 },
  cacheState: "warm",
  rules: { requires: { cooler: null } },
  ...changes,
});
const labels = (changes?: Partial<PreflightSetting>) =>
  preflightFor(firstPreflight, setting(changes))
    .map(({ label }) => label)
    .join("; ");

describe("a pre-flight list fits the run to come", () => {
  it("always holds firmware, readings, capture, sound and storage", () =>
    expect(labels({ spec: { ...spec, batteryWh: null, cooling: { kind: "", coolerToHand: false } } })).toMatch(
      /Firmware.*Overlay.*Capture.*Sound.*Drive/,
    ));
  it("asks for the battery only on battery", () => {
    expect(labels()).toMatch(/Battery above half/);
    expect(labels({ conditions: { ...firstConditions(spec), pluggedIn: true } })).not.toMatch(
      /Battery above half/,
    );
    expect(labels({ spec: { ...spec, batteryWh: null } })).not.toMatch(/saver/);
  });
  it("clears caches for a cold pass and keeps them for a warm one", () => {
    expect(labels({ cacheState: "cold" })).toMatch(/cleared/);
    expect(labels({ cacheState: "warm" })).toMatch(/kept on/);
  });
  it("asks for the worst scene of a hard title, the patch where there is one, the display over a cable", () => {
    expect(labels({ title: { hardness: "hard", patches: 1 } })).toMatch(
      /matching the title's version.*worst scene/,
    );
    expect(labels({ conditions: { ...firstConditions(spec), display: "television" } })).toMatch(/own refresh/);
  });
});
