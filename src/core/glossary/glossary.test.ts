import { summarise } from "@/core/metrics";
import { lendingDesk } from "@/core/verdict";
import { explainedBy, explainedNames, type ExplainedKey } from "@/core/explained";
import { explanations, searchExplanations } from ".";
import { exampleFrames } from "./figures";

const keys = Object.keys(explanations) as ExplainedKey[];

describe("explanations", () => {
  it("stand behind every name, each name once", () => {
    const names = keys.flatMap((key) => explainedNames[key].map((name) => name.toLowerCase()));
    expect(new Set(names).size).toBe(names.length);
    for (const key of keys) for (const name of explainedNames[key]) expect(explainedBy(name)).toBe(key);
    expect(explainedBy("nothing like that")).toBeNull();
  });

  it.each(keys)(
    "say of %s what it is in one sentence, how it is made, its source, what is good, and an example",
    (key) => {
      const { is, made, source, good, example } = explanations[key];
      for (const text of [is, made, source, good, example]) {
        expect(text.length).toBeGreaterThan(2);
        expect(text).toMatch(/[.?]$/);
      }
      // One sentence: no full stop before its end but in an abbreviation or a figure.
      expect(is.slice(0, -1)).not.toMatch(/\. /);
    },
  );

  it.each(keys)("draw the example of %s from its own figures", (key) => {
    const { drawing } = explanations[key];
    switch (drawing.kind) {
      case "bars":
        expect(drawing.values.length).toBeGreaterThan(1);
        for (const at of drawing.lit ?? []) expect(drawing.values[at]).toBeDefined();
        break;
      case "interval":
        expect(drawing.low).toBeLessThan(drawing.estimate);
        expect(drawing.estimate).toBeLessThan(drawing.high);
        break;
      case "curve":
        expect(drawing.points.map(([x]) => x)).toEqual(drawing.points.map(([x]) => x).sort((a, b) => a - b));
        break;
      case "chain":
        expect(drawing.parts.length).toBeGreaterThan(1);
        break;
      case "lights":
        expect(drawing.lights.length).toBeGreaterThan(1);
        break;
    }
  });

  it("give examples that the application's own arithmetic agrees with", () => {
    const summary = summarise(
      { form: "frames", frameTimes: Float64Array.from(exampleFrames), channels: [], marks: [] },
      { nativeFps: 60, targetFps: 60, tied: true, refreshHz: 60 },
      lendingDesk.measuring,
    );
    // "Twelve frames that take 234 ms together are 51.3 fps."
    expect(exampleFrames.reduce((sum, each) => sum + each, 0)).toBe(234);
    expect(summary.averageFps.toFixed(1)).toBe("51.3");
    // "One frame of 50 ms among frames of 17 is one hitch", and loses 33 ms.
    expect(summary.hitches?.count).toBe(1);
    expect((summary.hitches?.lostMsPerMinute ?? 0) * (234 / 60_000)).toBeCloseTo(33, 5);
    expect(summary.medianFrameTimeMs).toBe(17);
    expect(summary.maxFrameTimeMs).toBe(50);
  });

  it("are found by any word, those so named first", () => {
    expect(searchExplanations("1 % low")[0]).toBe("low1");
    expect(searchExplanations("stutter")).toContain("hitches");
    expect(searchExplanations("")).toHaveLength(keys.length);
    expect(searchExplanations("no such word anywhere")).toEqual([]);
  });
});
