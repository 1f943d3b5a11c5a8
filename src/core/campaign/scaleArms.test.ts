import { scaleArms } from ".";

const base = {
  rigId: "r",
  buildId: "b",
  conditions: {},
  from: "defaults" as const,
  settings: { vsync: false },
};
const modes = [
  { name: "Full", watts: 15 },
  { name: "Dock", watts: null },
  { name: "Hush", watts: 6 },
];

describe("arms of scales and modes", () => {
  it("the largest scale first, and of one scale the mode with the least watts; none without a budget before one with", () => {
    expect(scaleArms(base, "scale", [1, 3, 3], modes).map(({ name }) => name)).toEqual([
      "×3, Hush",
      "×3, Full",
      "×3, Dock",
      "×1, Hush",
      "×1, Full",
      "×1, Dock",
    ]);
  });
  it("each sets its scale and its mode over what all have", () =>
    expect(scaleArms(base, "scale", [2], [modes[2]!])).toEqual([
      { ...base, name: "×2, Hush", conditions: { powerMode: "Hush" }, settings: { vsync: false, scale: 2 } },
    ]));
  it("without modes it is the scales alone", () =>
    expect(scaleArms(base, "scale", [1.5], [])).toMatchObject([{ name: "×1.5", conditions: {} }]));
  it("says how many are too many, and that none is none", () => {
    expect(() => scaleArms(base, "scale", [1, 2, 3, 4, 5], modes)).toThrow("15 arms are too many; 12 at most");
    expect(() => scaleArms(base, "scale", [], modes)).toThrow("Name a scale.");
  });
});
