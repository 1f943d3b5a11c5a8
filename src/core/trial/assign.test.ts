import fc from "fast-check";
import { assignArms, inRunningOrder } from "./assign";

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
  it("one that says nothing leaves all to the plan, and past it the arms in turn", () =>
    expect(assignArms(["on.csv", "b.csv", "c.csv", "d.csv"], ["off", "on"], [1, 0])).toEqual({
      arms: [1, 0, 0, 1],
      by: "plan",
    }));
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
          for (const arm of assigned) expect(arms[arm]).toBeDefined();
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
