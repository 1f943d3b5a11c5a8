import { lamp as run } from "./inTests";

const lamp = (...args: string[]) => run(["scale-law", ...args]);
const told = async (...args: string[]) => (await lamp("--picture", "320x240", ...args)).out;
const sweep = [1, 2, 3, 4, 5, 6, 8].map((scale) => `${scale}=samples/scale-${scale}-uncapped.csv`);

describe("lamp scale-law", () => {
  let law: { [figure: string]: number & number[] & { [k: string]: unknown }[] };
  beforeAll(async () => {
    law = JSON.parse(await told("--target", "60", ...sweep, "--json"));
  });

  it("prints one object with the law, its interval and what each scale would come to", () => {
    expect(Object.keys(law)).toEqual(
      expect.arrayContaining([
        "floorMs",
        "interceptMs",
        "msPerMegapixel",
        "msPerMegapixelInterval",
        "largestScale",
        "largestSteadyScale",
        "largestScaleInterval",
        "limitedByPixels",
        "predicted",
      ]),
    );
    expect(law.msPerMegapixelInterval).toHaveLength(2);
    expect(law.msPerMegapixelInterval[0]).toBeLessThan(law.msPerMegapixel);
    expect(law.msPerMegapixelInterval[1]).toBeGreaterThan(law.msPerMegapixel);
    expect(law.predicted[0]).toEqual({
      scale: 1,
      frameTimeMs: expect.any(Number),
      low: expect.any(Number),
      high: expect.any(Number),
      holds: true,
    });
  });

  it("on the measured sweep: limited by pixels, native the largest that holds 60", () => {
    expect(law.limitedByPixels).toBe(true);
    expect(law.largestScale).toBe(1);
  });

  it("a lower target allows more", async () => {
    const lower = JSON.parse(await told("--target", "20", ...sweep, "--json"));
    expect(lower.largestScale).toBeGreaterThan(law.largestScale);
  });

  it("prints a readable page without --json", async () => {
    const page = await told("--target", "60", ...sweep);
    expect(page).toContain("Largest scale for 60 fps: ×1");
    expect(page).toMatch(/ms per million pixels/);
    expect(page.split("\n").filter((line) => line.includes("holds"))).toHaveLength(1);
  });

  it.each([
    ["one scale only", ["--picture", "320x240", sweep[0], sweep[0]], "two scales or more"],
    ["a run without its scale", ["--picture", "320x240", "samples/scale-1-uncapped.csv"], "SCALE=LOG"],
    ["no such file", ["--picture", "320x240", "1=nowhere.csv", sweep[1]], "no such file"],
    ["steps too fine", ["--picture", "320x240", "--step", "1e-9", ...sweep], "finer than any setting"],
    ["no size", ["--picture", "wide", ...sweep], "is no size"],
    ["no target", ["--picture", "320x240", "--target", "-5", ...sweep], "above 0"],
  ])("%s: exit 2 with one clear line", async (_name, args, says) => {
    const { code, err, out } = await lamp(...args);
    expect(code).toBe(2);
    expect(out).toBe("");
    expect(err.trim().split("\n")).toHaveLength(1);
    expect(err).toContain(says);
  });
});
