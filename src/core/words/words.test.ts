import { readFileSync, readdirSync } from "node:fs";
import { join } from "node:path";
import { said, sentences, logWords, type Code } from ".";

/** Every file of the core that isn't this folder or a test. */
function* sources(folder: string): Generator<string> {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) yield* sources(path);
    else if (/\.tsx?$/.test(entry.name) && !/\.test\.tsx?$/.test(entry.name)) yield path;
  }
}

describe("sentences are data, and put into words in one place", () => {
  it("figures are put in by their code", () => {
    const effect = said("effect.pair", { pair: { ratio: 1.05, low: 0.98, high: 1.12 } });
    expect(effect).toEqual({ code: "effect.pair", figures: { pair: { ratio: 1.05, low: 0.98, high: 1.12 } } });
    expect(logWords(effect)).toBe("+5.0 % (95 %: −2.0 % to +12.0 %)");
  });
  it("a sentence in a sentence is put into words with it", () =>
    expect(logWords(said("next.try", { suggestion: said("opening.screen") }))).toBe(
      "Try begin with a screening design over the switches that might matter.",
    ));
  it("survives being kept as JSON", () => {
    const kept = JSON.parse(JSON.stringify(said("drift.days", { days: 2 })));
    expect(logWords(kept)).toBe("Its runs lie 2 days apart.");
  });
  it("what was kept before sentences were data is shown as it stood", () =>
    expect(logWords(said("kept.verbatim", { text: "+4.2 % (95 %: +1.0 % to +7.4 %)" }))).toMatch(/^\+4\.2 %/));
  it("a code of a later version is shown by its name, and breaks nothing", () =>
    expect(logWords({ code: "later.sentence", figures: {} })).toBe("later.sentence"));
  it("one thing and several are told apart", () => {
    expect(logWords(said("drift.days", { days: 1 }))).toBe("Its runs lie 1 day apart.");
  });
});

describe("the folder and the core agree", () => {
  const inCore = [...sources("src/core")].filter((path) => !path.startsWith("src/core/words/"));
  const elsewhere = [...sources("src/server"), ...sources("src/views"), ...sources("src/cli")];
  const text = [...inCore, ...elsewhere].map((path) => readFileSync(path, "utf8")).join("\n");
  it.each(Object.keys(sentences) as Code[])("%s is said somewhere", (code) => {
    expect(code === "kept.verbatim" || text.includes(`"${code}"`)).toBe(true);
  });
  it("no other file of the core composes a sentence for a person", () => {
    // A template that begins with a capital and ends with a full stop is one. What a form says of its fields
    // (schemas) comes with the check that says it; what a program is told of bytes that it packed wrongly stands in pack; the
    // simulator draws made-up text.
    const prose = inCore.filter(
      (path) =>
        !/core\/(kit|schema|simulator)\/|trace\/pack|fixtures/.test(path) &&
        /`[A-Z][^`]*\$\{[^`]*\.`/.test(readFileSync(path, "utf8")),
    );
    expect(prose).toEqual([]);
  });
});
