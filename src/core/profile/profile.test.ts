import { inForce, overrides, type Standing } from ".";

const base: Standing = { settings: { scale: 4, light: false, hold: true }, conditions: {}, buildId: null };
const kept = (settings: Standing["settings"], more: Partial<Standing> = {}) => ({
  settings,
  conditions: {},
  buildId: null,
  ...more,
});

describe("what holds after decisions", () => {
  it("each kept arm changes what it changed, and nothing else", () => {
    const first = { before: base.settings, kept: kept({ ...base.settings, scale: 3 }) };
    const second = {
      before: { ...base.settings, scale: 3 },
      kept: kept({ ...base.settings, scale: 3, light: true }),
    };
    expect(inForce(base, [first, second]).settings).toEqual({ scale: 3, light: true, hold: true });
    // Taking back the first leaves the second standing.
    expect(inForce(base, [second]).settings).toEqual({ scale: 4, light: true, hold: true });
  });
  it("what was put back changes nothing; conditions and builds are kept too", () => {
    const held = inForce(base, [
      { before: base.settings, kept: null },
      {
        before: base.settings,
        kept: kept(base.settings, { conditions: { powerMode: "Brisk" }, buildId: "other" }),
      },
    ]);
    expect(held).toEqual({ settings: base.settings, conditions: { powerMode: "Brisk" }, buildId: "other" });
  });
  it("a sweep's own settings for its own sake aren't kept", () => {
    const sweep = {
      before: base.settings,
      kept: kept({ scale: 2, light: false, hold: false }),
      keys: ["scale"],
    };
    expect(inForce(base, [sweep]).settings).toEqual({ scale: 2, light: false, hold: true });
  });
  it("every override names the last trial that kept it, with its proof", () => {
    const decided = [
      { number: 1, proof: "+9 %", before: base.settings, kept: kept({ ...base.settings, light: true }) },
    ];
    expect(overrides({ scale: 2, light: false, hold: true }, inForce(base, decided), decided)).toEqual([
      { key: "scale", from: 2, to: 4, trial: null, proof: "" },
      { key: "light", from: false, to: true, trial: 1, proof: "+9 %" },
    ]);
  });
});
