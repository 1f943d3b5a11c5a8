import { differences } from "./differences";

describe("where two versions of a thing differ", () => {
  it("names the place, and both sides in words", () => {
    const mine = { name: "A", spec: { memoryGb: 8, driver: null } };
    const theirs = { name: "A", spec: { memoryGb: 12, driver: "newest" } };
    expect(differences(mine, theirs)).toEqual([
      { place: "spec › memoryGb", mine: "8", theirs: "12" },
      { place: "spec › driver", mine: "empty", theirs: "newest" },
    ]);
  });
  it("looks only at what was typed: what the server adds is no difference", () => {
    expect(differences({ name: "A" }, { name: "A", version: 7, id: "x" })).toEqual([]);
  });
  it("a list that one of them made longer differs from where the other ends", () => {
    const [added, ...others] = differences({ modes: ["usual", "saver"] }, { modes: ["usual"] });
    expect(added).toEqual({ place: "modes › 1", mine: "saver", theirs: "empty" });
    expect(others).toEqual([]);
    expect(differences({ modes: ["usual"] }, { modes: ["usual", "saver"] })).toHaveLength(1);
  });
  it("a thing against none is one difference, cut where it is long", () => {
    const [one] = differences({ display: { name: "a".repeat(200) } }, { display: null });
    expect(one?.place).toBe("display");
    expect(one?.theirs).toBe("empty");
    expect(one?.mine).toHaveLength(80);
  });
  it("equal things, however they came to be, don't differ", () => {
    expect(differences({ a: [1, { b: true }] }, { a: [1, { b: true }] })).toEqual([]);
    expect(differences({ a: undefined }, { a: null })).toEqual([]);
  });
});
