import fc from "fast-check";
import { armDoubts, assignArms as assign, inRunningOrder } from "./assign";

const assignArms = (files: string[], arms: string[], left: number[], further = false) =>
  assign(
    files.map((name) => ({ name })),
    arms.map((name) => ({ name })),
    left,
    further,
  );

describe("arms for logs that come together", () => {
  it("the names say it where each holds one arm's", () =>
    expect(assignArms(["fastmem-on.csv", "run 2 off.csv", "ON_3.csv"], ["off", "on"], [0, 1, 1])).toEqual({
      arms: [1, 0, 1],
      by: "names",
    }));
  it("a longer name wins over one that is part of it", () =>
    expect(assignArms(["low latency on.csv", "low.csv"], ["low", "low latency"], [])).toEqual({
      arms: [1, 0],
      by: "names",
    }));
  it("levels of a sweep by their sign", () =>
    expect(assignArms(["x3.csv", "scale-x1.csv"], ["×1", "×2", "×3"], [0, 1, 2]).arms).toEqual([2, 0]));
  it("on is no part of “bonnet”, and 12 holds no 1", () => {
    expect(assignArms(["bonnet.csv"], ["off", "on"], [1]).by).toBe("plan");
    expect(assignArms(["12.csv"], ["1", "2"], [0]).by).toBe("plan");
  });
  it("one that says nothing leaves all to the plan; past it the arms in turn, once that is asked for", () => {
    const files = ["on.csv", "z.csv", "y.csv", "z2.csv"];
    expect(assignArms(files, ["off", "on"], [1, 0])).toEqual({ arms: [1, 0, null, null], by: "plan" });
    expect(assignArms(files, ["off", "on"], [1, 0], true)).toEqual({ arms: [1, 0, 0, 1], by: "plan" });
  });
  it("letters stand for arms, by themselves or beside a number", () => {
    expect(assignArms(["run-03-A.csv", "run-04-B.csv", "run-05-b.csv"], ["off", "on"], [])).toEqual({
      arms: [0, 1, 1],
      by: "names",
    });
    expect(assignArms(["03a.csv", "04b.csv"], ["off", "on"], []).arms).toEqual([0, 1]);
    // All of one letter, or a letter without an arm, says nothing.
    expect(assignArms(["a.csv", "a 2.csv"], ["off", "on"], [1, 0]).by).toBe("plan");
    expect(assignArms(["a.csv", "c.csv"], ["off", "on"], [1, 0]).by).toBe("plan");
  });
  it("what the files say of their settings comes before the plan", () => {
    const files = [
      { name: "1.csv", says: "# scale = 3" },
      { name: "2.csv", says: "# scale=1; light=off" },
    ];
    const arms = [
      { name: "as it is", signs: ["scale 1"] },
      { name: "larger", signs: ["scale 3"] },
    ];
    expect(assign(files, arms, [0, 1])).toEqual({ arms: [1, 0], by: "contents" });
    expect(assign([files[0]!, { name: "2.csv" }], arms, [0, 1]).by).toBe("plan");
  });
  it("doubts a log whose rate falls in with the other arm's, and only then", () => {
    // Two of four were given the wrong arm.
    expect(armDoubts([0, 0, 0, 1, 1, 1], [40, 41, 60, 60, 61, 40])).toEqual([
      { at: 2, like: 1 },
      { at: 5, like: 0 },
    ]);
    expect(armDoubts([0, 1, 0, 1], [40, 60, 41, 61])).toEqual([]);
    // Arms that are alike, and an arm of one run, are doubted by nothing.
    expect(armDoubts([0, 1, 0, 1], [50, 50.5, 51, 49.5])).toEqual([]);
    expect(armDoubts([0, 1], [40, 60])).toEqual([]);
    expect(armDoubts([0, 0, null], [40, null, 60])).toEqual([]);
  });
  it("every file gets an arm that there is", () =>
    fc.assert(
      fc.property(
        fc.array(fc.string()),
        fc.array(fc.string(), { minLength: 1, maxLength: 6 }),
        fc.array(fc.nat(), { maxLength: 5 }),
        (files, arms, left) => {
          const assigned = assignArms(
            files,
            arms,
            left.map((arm) => arm % arms.length),
          ).arms;
          expect(assigned).toHaveLength(files.length);
          for (const arm of assigned) if (arm !== null) expect(arms[arm]).toBeDefined();
        },
      ),
    ));
});

describe("running order", () => {
  const file = (name: string, lastModified: number) => ({ name, lastModified });
  it("by time first", () =>
    expect(inRunningOrder([file("a", 9000), file("b", 1000)]).map(({ name }) => name)).toEqual(["b", "a"]));
  it("files copied within one second by name, figures by size", () =>
    expect(
      inRunningOrder([file("run10.csv", 5100), file("run9.csv", 5900), file("Run1.csv", 5000)]).map(
        ({ name }) => name,
      ),
    ).toEqual(["Run1.csv", "run9.csv", "run10.csv"]));
});
