import { readConfig } from "@/core/config";
import { plainRig } from "@/core/kit";
import { exampleSetting } from "@/testing/exampleKit";
import { said } from "@/core/words";
import { besideSettings } from "@/core/profile";
import {
  besideInRecipe,
  makeRecipe,
  recipeHtml,
  recipeMarkdown,
  recipeSchema,
  recipeText,
  mostDescription,
  withLines,
} from ".";

const facts = (more: Partial<Parameters<typeof makeRecipe>[0]> = {}): Parameters<typeof makeRecipe>[0] => ({
  title: { name: "The Loom", system: "Even Field", region: "50", nativeFps: 60 },
  spec: {
    ...plainRig(60),
    kind: "handheld",
    driver: { version: "616", date: "2026-11-02" },
    powerModes: [{ name: "Even", watts: 14, use: "any" }],
  },
  revision: 2,
  engine: {
    name: "Plain",
    build: "5.1",
    branch: "stable",
    configFiles: [{ name: "plain.toml", format: "toml", folder: "" }],
  },
  catalogue: [
    exampleSetting("scale", {
      label: "Internal scale",
      type: "number",
      default: 2,
      section: "picture",
      costs: { picture: 2, feel: 0, heat: 0, risk: 0 },
    }),
    exampleSetting("cap", {
      label: "Rate limit",
      type: "number",
      default: 0,
      countsDouble: true,
      section: "sync",
    }),
  ],
  overrides: [
    {
      key: "scale",
      from: 2,
      to: 3,
      trial: 1,
      proof: said("effect.pair", { pair: { ratio: 1.09, low: 1.05, high: 1.13 } }),
    },
    { key: "cap", from: 0, to: 60, trial: null, proof: null },
  ],
  conditions: { powerMode: "Even", docked: false, cooler: true, roomC: 21, capturePath: "own desk" },
  targetFps: 30,
  preflight: ["Firmware present"],
  patches: ["sixty: 60 fps; fits version 1.1"],
  run: {
    grade: "steady",
    averageFps: 29.97,
    segments: [
      { label: "the hall", visit: 1, averageFps: 29.9, entryLostMs: 120 },
      { label: "", visit: 0, averageFps: 30, entryLostMs: 0 },
    ],
    marks: [{ label: "the hall", startMs: 83_000 }],
  },
  crashes: 0,
  hours: 1,
  faults: [{ kind: "sound", severity: "slight", scene: "the hall", note: "a click", workaround: "restart" }],
  ...more,
});

describe("a recipe", () => {
  const recipe = makeRecipe(facts());
  it("holds what a reader needs: device, file, section and key, before and after, effect, what to expect", () => {
    expect(recipe.settings[0]).toEqual({
      key: "scale",
      label: "Internal scale",
      file: "plain.toml",
      section: "picture",
      configKey: "scale",
      line: null,
      before: 2,
      after: 3,
      holdsFps: null,
      effect: "+9.0 % (95 %: +5.0 % to +13.0 %)",
      proven: true,
    });
    // A limiter that counts double is said with the rate it gives.
    expect(recipe.settings[1]).toMatchObject({ after: 60, holdsFps: 30, effect: null, proven: false });
    expect(recipe.conditions).toEqual([
      { name: "Power mode", value: "Even (14 W)" },
      { name: "Cooler", value: "on" },
    ]);
    expect(recipe.expect).toEqual([{ scene: "the hall", visit: 1, averageFps: 29.9, lostMs: 120 }]);
    expect(recipe.sideEffects).toEqual(["Internal scale may cost: picture noticeably."]);
    // 2.996 an hour is ruled out by an hour without a crash: the rule of three, exact (Garwood 1936).
    expect(recipe.crashes).toBe("None in 1.0 h; more than 3.0 an hour is ruled out (95 %).");
    expect(recipe.cautions.join(" ")).toContain("qualified service");
  });
  describe("with the lines of the tuner's own file", () => {
    const entries = readConfig("# mine\n[picture]\nscale = 3\n\n[sync]\ncap = 60\n", "toml");
    const { recipe: lined, found, of } = withLines(recipe, "plain.toml", entries);
    it("each setting says the line its key stands on", () => {
      expect([found, of]).toEqual([2, 2]);
      expect(lined.settings.map(({ line }) => line)).toEqual([3, 6]);
      expect(recipeMarkdown(lined)).toContain("| Internal scale | plain.toml | picture | 3 | scale | 2 | 3 |");
      expect(recipeText(lined)).toContain("Internal scale (picture/scale, line 3): 2 → 3");
      expect(recipeHtml(lined)).toContain(">Line</th>");
      expect(recipeHtml(recipe)).not.toContain(">Line</th>");
    });
    it("a file of another name, a key that stands twice and one that isn't there give none", () => {
      expect(withLines(recipe, "other.toml", entries)).toMatchObject({ recipe, found: 0, of: 0 });
      const twice = readConfig("[picture]\nscale = 1\nscale = 3\n", "ini");
      expect(withLines(recipe, "plain.toml", twice)).toMatchObject({ recipe, found: 0, of: 2 });
    });
    it("a recipe written before lines were known is read still", () => {
      const old = JSON.parse(JSON.stringify(recipe)) as { settings: { line?: unknown }[] };
      for (const setting of old.settings) delete setting.line;
      expect(recipeSchema.parse(old)).toEqual(recipe);
    });
  });
  it("says why this driver: what others came to, and that they weren't run in turn; nothing where none ran", () => {
    const why = (drivers: Parameters<typeof makeRecipe>[0]["drivers"]) =>
      makeRecipe(facts({ drivers })).device.find(({ name }) => name === "Why this driver")?.value;
    const own = { driver: "616", runs: 3, averageFps: 29.97 };
    expect(why([{ driver: "615", runs: 1, averageFps: 26 }, own])).toMatch(
      /^Driver 616 ran it at 30\.0 fps \(3 runs\), driver 615 ran it at 26\.0 fps \(1 run\), with the same settings.*not in turn/,
    );
    expect(why([own])).toMatch(/no other driver was run with these settings/);
    expect(why([{ driver: "615", runs: 1, averageFps: 26 }])).toBeUndefined();
    expect(why(undefined)).toBeUndefined();
  });
  it("what it says beside the settings is taken where another rig has it by the same name, and its rate where it isn't the title's own", () => {
    const spec = { ...plainRig(60), cooling: { kind: "fan", coolerToHand: true } };
    const on = (names: string[]) =>
      besideSettings(
        { ...spec, powerModes: names.map((name) => ({ name, watts: null, use: "any" as const })) },
        60,
      );
    expect(besideInRecipe(recipe, on(["Even", "Full"]))).toEqual([
      { key: "rig:powerMode", value: "Even" },
      { key: "rig:cooler", value: true },
      { key: "title:rate", value: 30 },
    ]);
    expect(besideInRecipe(recipe, on(["Hush", "Full"])).map(({ key }) => key)).toEqual([
      "rig:cooler",
      "title:rate",
    ]);
    const plain = makeRecipe(facts({ conditions: {}, targetFps: 60 }));
    expect(besideInRecipe(plain, on(["Even", "Full"]))).toEqual([]);
  });
  it("names no rig, path or room: nothing private", () => {
    expect(JSON.stringify(recipe)).not.toMatch(/own desk|21/);
  });
  it("clocks bring their own caution", () =>
    expect(makeRecipe(facts({ conditions: { clocks: "forced" } })).cautions[0]).toContain("void its warranty"));
  it("is read back from its JSON by the published schema", () =>
    expect(recipeSchema.parse(JSON.parse(JSON.stringify(recipe)))).toEqual(recipe));
  it("as text it has the moments of the recording, and fits a description", () => {
    const text = recipeText(recipe);
    expect(text).toContain("Internal scale (picture/scale): 2 → 3; +9.0 % (95 %: +5.0 % to +13.0 %)");
    expect(text).toContain("1:23 the hall");
    const long = recipeText({ ...recipe, before: new Array<string>(90).fill("a long line ".repeat(12)) });
    expect(long.length).toBeLessThanOrEqual(mostDescription);
    expect(long).toMatch(/… \d+ more lines: see the whole recipe\.\n$/);
  });
  it("as a page it needs no network and runs nothing that it was given", () => {
    const hostile = `</style><script>alert(1)</script><img src=x onerror="alert(1)">' & "`;
    const page = recipeHtml(
      makeRecipe(
        facts({ title: { name: hostile, system: hostile, region: "", nativeFps: 60 }, preflight: [hostile] }),
      ),
    );
    expect(page).not.toMatch(/<script|<img|<link|https?:/i);
    expect(page).toContain("&lt;script&gt;alert(1)&lt;/script&gt;");
    expect(page).toContain("default-src 'none'");
  });
  it("as Markdown no sign of a value makes a table, a link or a page of its own", () => {
    const made = recipeMarkdown(makeRecipe(facts({ preflight: ["a | b <b>c</b> [d](e) `f`\n# g"] })));
    expect(made).toContain("- a \\| b \\<b\\>c\\</b\\> \\[d\\](e) \\`f\\` \\# g\n");
    expect(made).toContain("| Setting | File | Section | Key | Before | After | Measured effect |");
  });
});
