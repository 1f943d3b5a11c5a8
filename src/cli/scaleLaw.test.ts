import { execFileSync, spawnSync } from "node:child_process";
import { join } from "node:path";

const tsx = join("node_modules", ".bin", "tsx");
const lamp = (...args: string[]) =>
  execFileSync(tsx, ["src/cli/lamp.ts", "scale-law", "--picture", "320x240", ...args], { encoding: "utf8" });
const refused = (...args: string[]) =>
  spawnSync(tsx, ["src/cli/lamp.ts", "scale-law", ...args], { encoding: "utf8" });
const sweep = [1, 2, 3, 4, 5, 6, 8].map((scale) => `${scale}=samples/scale-${scale}-uncapped.csv`);

describe("lamp scale-law", () => {
  const law = JSON.parse(lamp("--target", "60", ...sweep, "--json"));

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

  it("a lower target allows more", () => {
    const lower = JSON.parse(lamp("--target", "20", ...sweep, "--json"));
    expect(lower.largestScale).toBeGreaterThan(law.largestScale);
  });

  it("prints a readable page without --json", () => {
    const page = lamp("--target", "60", ...sweep);
    expect(page).toContain("Largest scale for 60 fps: ×1");
    expect(page).toMatch(/ms per million pixels/);
    expect(page.split("\n").filter((line) => line.includes("holds"))).toHaveLength(1);
  });

  it.each([
    ["one scale only", ["--picture", "320x240", sweep[0], sweep[0]], "two scales or more"],
    ["a run without its scale", ["--picture", "320x240", "samples/scale-1-uncapped.csv"], "SCALE=LOG"],
    ["no such file", ["--picture", "320x240", "1=nowhere.csv", sweep[1]], "no such file"],
    ["no size", ["--picture", "wide", ...sweep], "is no size"],
    ["no target", ["--picture", "320x240", "--target", "-5", ...sweep], "above 0"],
  ])("%s: exit 2 with one clear line", (_name, args, says) => {
    const { status, stderr, stdout } = refused(...args);
    expect(status).toBe(2);
    expect(stdout).toBe("");
    expect(stderr.trim().split("\n")).toHaveLength(1);
    expect(stderr).toContain(says);
  });
});
