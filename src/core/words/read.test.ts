import { readFileSync, writeFileSync } from "node:fs";
import { gradeWords, reasonWords, sentences, logWords, causeWords, strategyWords } from ".";
import { drawnSentences, everySentence } from "../../testing/drawnSentences";

const page = "docs/words.md";
const all = everySentence().map(({ code, said }) => ({ code, text: logWords(said) }));

/** The page of every sentence, as it is read from top to bottom. */
function asPage(): string {
  const areas = new Map<string, string[]>();
  for (const { code, text } of all) {
    const [area = ""] = code.split(".");
    areas.set(area, [...(areas.get(area) ?? []), `- \`${code}\` ${text}`]);
  }
  return [
    "# Every sentence",
    "",
    "Drawn from `src/core/words` with figures at both ends and between; `src/core/words/read.test.ts` keeps it up to date (`WRITE_WORDS=1 npx jest read.test`).",
    "",
    ...[...areas].flatMap(([area, lines]) => [`## ${area}`, "", ...lines, ""]),
    "## lights, causes, ways to begin",
    "",
    ...Object.values(gradeWords).map(({ name, meaning }) => `- ${name}: ${meaning}`),
    ...Object.values(causeWords).map(({ name, lever }) => `- ${name}: ${lever}`),
    ...Object.values(strategyWords).map(({ name, when }) => `- ${name}: ${when}`),
    "",
  ].join("\n");
}

describe("every sentence, read", () => {
  it("stands on the page that is read", () => {
    if (process.env.WRITE_WORDS) writeFileSync(page, asPage());
    expect(readFileSync(page, "utf8")).toBe(asPage());
  });
  it("whatever takes figures is drawn with some", () => {
    for (const [code, put] of Object.entries(sentences))
      if (put.length > 0) expect(`${code} ${code in drawnSentences}`).toBe(`${code} true`);
  });
  it.each(all.map(({ code, text }, at) => [`${code}, ${at}`, text]))("%s is whole", (_, text) => {
    expect(text).not.toMatch(/undefined|null|NaN|\[object|Infinity/);
    expect(text).not.toMatch(/ {2}| [.,;:]|\.\.|,,/);
    // A minus is a minus, not a hyphen, and figures don't stand without their unit's blank.
    expect(text).not.toMatch(/[ (]-\d/);
    expect(text).not.toMatch(/\d%|\d(fps|ms|MB|GB|W|Hz|min)\b/);
  });
  it("nothing is said in words that a tuner doesn't use", () => {
    for (const { text } of all)
      expect(text).not.toMatch(
        /lag-1|degrees? of freedom|cadence|\bp is\b|autocorrelat|variance|posterior|Theil|Kendall/i,
      );
  });
  it("spelling is British", () => {
    for (const { text } of all)
      expect(text).not.toMatch(/\b(color|behavior|center|meter|analyz|favor|gray|artifact|optimiz|judgment)/i);
  });
  it("one and several", () => {
    for (const { text } of all) {
      expect(text).not.toMatch(/\b1 (runs|trials|days|repeats|readings|refreshes|rows|crashes|overrides)\b/);
      expect(text).not.toMatch(
        /\b([02-9]|\d{2,}) (run|trial|day|repeat|reading|refresh|row|crash|override)\b(?! more| a side)/,
      );
    }
  });
});

describe("the reasons of a light", () => {
  const hitches = { rule: "hitchesPerMinute", value: 3, limit: 1, met: false } as const;
  it("a rate from one hitch says what it was counted from", () =>
    expect(reasonWords({ ...hitches, counted: { count: 1, seconds: 20 } })).toBe(
      "Hitches 3/min (1 in 20 s); at most 1/min is allowed",
    ));
  it("none needs no count", () =>
    expect(reasonWords({ ...hitches, value: 0, met: true, counted: { count: 0, seconds: 20 } })).toBe(
      "Hitches 0/min, at most 1/min",
    ));
  it("taking turns is said plainly", () =>
    expect(reasonWords({ rule: "alternation", value: -0.62, limit: -0.5, met: false })).toBe(
      "Pacing: long and short frames take turns (−0.62, where −1 is always; at least −0.5 is wanted)",
    ));
});
