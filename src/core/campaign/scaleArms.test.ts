import { rigsPlan, scaleArms } from ".";

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

describe("one title on several rigs", () => {
  const id = (digit: number) => `00000000-0000-4000-8000-00000000000${digit}`;
  const job = {
    titleId: id(1),
    buildId: id(2),
    houseRulesId: id(3),
    rigId: id(4),
    title: "Tidal Choir",
    rig: "Pipit",
  };
  it("has the job's rig first, one build and the profile of each rig", () =>
    expect(rigsPlan(job, [{ id: id(5), name: "Tansy" }], 3)).toMatchObject({
      name: "Tidal Choir: Pipit, Tansy",
      titles: [{ titleId: id(1), scene: "" }],
      rounds: 3,
      arms: [
        { name: "Pipit", rigId: id(4), buildId: id(2), from: "profile", settings: {} },
        { name: "Tansy", rigId: id(5), buildId: id(2), from: "profile", settings: {} },
      ],
    }));
  it("keeps a name that fits, however many rigs there are", () => {
    const rigs = Array.from({ length: 9 }, (_, at) => ({ id: id(at), name: `${at}`.repeat(80) }));
    expect(rigsPlan(job, rigs, 1).name).toHaveLength(120);
  });
  it("refuses more rigs than a campaign has arms", () => {
    const rigs = Array.from({ length: 12 }, (_, at) => ({ id: id(5), name: `Rig ${at}` }));
    expect(() => rigsPlan(job, rigs, 1)).toThrow();
  });
});
