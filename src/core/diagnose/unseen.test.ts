import { words } from "@/core/words";
import { causes, diagnose, type DiagnoseInput } from ".";
import { reliability, scorePairs } from "@/testing/labelledRuns";
import { chancesOf } from "./diagnose";
import { unseenCase } from "../../testing/labelledRuns";

describe("weights as chances", () => {
  it("nothing for anything is nothing; one clear sign is a likely cause; two alike share", () => {
    expect(chancesOf([0, 0])).toEqual([0, 0]);
    const [one = 0] = chancesOf([3, 0]);
    expect(one).toBeGreaterThan(0.9);
    const [a = 0, b = 0] = chancesOf([3, 3]);
    expect(a).toBeCloseTo(b, 12);
    expect(a + b).toBeLessThan(1);
  });
});

describe("devices unlike those that the signs were set on (a small part of `npm run bench -- diagnosis`)", () => {
  it("the likeliest cause is right in at least 85 of 100, and rarely sure and wrong", () => {
    const made = reliability(6, 31_000, 0.05);
    expect(made.firstRight / made.cases).toBeGreaterThanOrEqual(0.85);
    expect(made.sureAndWrong / made.cases).toBeLessThanOrEqual(0.06);
  });
  it("also where a fifth of the columns is missing", () => {
    const made = reliability(6, 32_000, 0.2);
    expect(made.firstRight / made.cases).toBeGreaterThanOrEqual(0.8);
    expect(made.sureAndWrong / made.cases).toBeLessThanOrEqual(0.06);
  });
  it("two causes at once are one of the two, and hardly ever surely a third", () => {
    const made = scorePairs(4, 33_000, 0);
    expect(made.oneOfBoth / made.cases).toBeGreaterThanOrEqual(0.9);
    expect(made.sureOfAThird / made.cases).toBeLessThanOrEqual(0.04);
  });
  it.each(causes.map((cause) => [cause]))("%s, built in, has a chance and a reason", (cause) => {
    const { likely, sentence } = diagnose(unseenCase(cause, 77, 0).input);
    expect(likely[0]?.chance).toBeGreaterThan(0);
    expect(likely.reduce((sum, { chance }) => sum + chance, 0)).toBeLessThanOrEqual(1 + 1e-9);
    expect(words(sentence).length).toBeGreaterThan(20);
  });
});

describe("the cases that were called something else", () => {
  const first = (input: DiagnoseInput) => diagnose(input).likely[0]?.cause ?? null;
  const caseOf = (cause: Parameters<typeof unseenCase>[0], change: (input: DiagnoseInput) => boolean) => {
    for (let seed = 0; ; seed++) {
      const { input } = unseenCase(cause, seed, 0);
      if (change(input)) return input;
    }
  };
  it("a cap of 40 on 60 Hz, and of 48 on a display that follows, are caps", () => {
    for (const fps of [40, 48])
      expect(first(caseOf("cap or sync", ({ summary }) => Math.abs(summary.averageFps - fps) < 0.5))).toBe(
        "cap or sync",
      );
  });
  it("throttling without a known limit is heat, not the governor", () =>
    expect(first(caseOf("heat", ({ limits }) => limits.temperatureC === null))).toBe("heat"));
  it("graphics paced at two refreshes is graphics, not a cap", () =>
    expect(
      first(
        caseOf(
          "graphics",
          ({ summary, limits }) =>
            summary.targetFps === 60 && limits.refreshHz === 60 && Math.abs(summary.averageFps - 30) < 0.5,
        ),
      ),
    ).toBe("graphics"));
  it("work that wanders over cores, none of them full, isn't called the engine", () => {
    const wandering = caseOf("processor", ({ summary }) => {
      const load = summary.channels.cpuBusiest?.mean ?? 0;
      return load > 70 && load < 85;
    });
    expect(first(wandering)).toBe("processor");
  });
});
