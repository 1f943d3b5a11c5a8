import { isSingle, keySettingsFrom, keysNow } from "./keySettings";

describe("keys that are pressed by themselves can be changed and switched off", () => {
  it("which they are", () => {
    expect(["n", "1", "?", "/", "]"].map(isSingle)).toEqual([true, true, true, true, true]);
    expect(["mod&k", "escape", "alt&up", "enter"].map(isSingle)).toEqual([false, false, false, false]);
  });
  it("changed, and switched off; keys held with others stay", () => {
    const settings = { off: false, changed: { n: "b" } };
    expect(keysNow("n", settings)).toBe("b");
    expect(keysNow("mod&k", settings)).toBe("mod&k");
    expect(keysNow("0, escape", { ...settings, off: true })).toBe("escape");
    expect(keysNow("n", { ...settings, off: true })).toBe("");
  });
  it("what can't be read is as usual", () => {
    expect(keySettingsFrom("{")).toEqual({ off: false, changed: {} });
    for (const text of [
      '{"off":"yes"}',
      "null",
      "[]",
      "1",
      '{"off":true,"changed":null}',
      '{"off":true,"changed":{"n":1}}',
    ])
      expect(keySettingsFrom(text)).toEqual({ off: false, changed: {} });
    expect(keySettingsFrom('{"off":true,"changed":{"n":"b"}}')).toEqual({ off: true, changed: { n: "b" } });
  });
});
