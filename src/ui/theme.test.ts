import { readFileSync } from "node:fs";

// Relative luminance and contrast as WCAG 2.2 defines them (success criteria 1.4.3 and 1.4.11).
const channel = (value: number) => {
  const share = value / 255;
  return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
};

function luminance(hex: string): number {
  const [red, green, blue] = [1, 3, 5].map((at) => channel(parseInt(hex.slice(at, at + 2), 16)));
  return 0.2126 * red + 0.7152 * green + 0.0722 * blue;
}

function contrast(a: string, b: string): number {
  const [lighter, darker] = [luminance(a), luminance(b)].sort((x, y) => y - x);
  return (lighter + 0.05) / (darker + 0.05);
}

const css = readFileSync("src/app/globals.css", "utf8");

function tokens(theme: "evening" | "daylight"): Record<string, string> {
  const block = css.slice(css.indexOf(`[data-theme="${theme}"]`)).split("}")[0];
  return Object.fromEntries(
    [...block.matchAll(/--([a-z-]+):\s*(#[0-9a-f]{6})/g)].map(([, name, value]) => [name, value]),
  );
}

describe("contrast, by the published definition", () => {
  it("is 21 between black and white, and 1 with itself", () => {
    expect(contrast("#000000", "#ffffff")).toBeCloseTo(21, 9);
    expect(contrast("#777777", "#777777")).toBe(1);
  });

  describe.each(["evening", "daylight"] as const)("%s", (theme) => {
    const held = tokens(theme);

    it("names every token", () => {
      for (const name of [
        "ground",
        "panel",
        "raised",
        "line",
        "edge",
        "text",
        "soft",
        "lit",
        "on-lit",
        "series-a",
        "series-b",
        "series-c",
        "series-d",
        "caution",
      ]) {
        expect(held[name]).toMatch(/^#/);
      }
    });

    it.each(["ground", "panel", "raised"])("text reads on %s: at least 4.5 to 1", (surface) => {
      expect(contrast(held.text, held[surface])).toBeGreaterThanOrEqual(4.5);
      expect(contrast(held.soft, held[surface])).toBeGreaterThanOrEqual(4.5);
      expect(contrast(held.caution, held[surface])).toBeGreaterThanOrEqual(4.5);
    });

    it("the lit button's words read on it", () => {
      expect(contrast(held["on-lit"], held.lit)).toBeGreaterThanOrEqual(4.5);
    });

    it.each(["series-a", "series-b", "series-c", "series-d", "lit", "edge"])(
      "%s is seen on the ground and on panels: at least 3 to 1",
      (name) => {
        expect(contrast(held[name], held.ground)).toBeGreaterThanOrEqual(3);
        expect(contrast(held[name], held.panel)).toBeGreaterThanOrEqual(3);
      },
    );
  });

  it("every colour a class can name is in the theme", () => {
    const named = new Set([...css.matchAll(/--color-([a-z-]+):/g)].map(([, name]) => name));
    for (const name of Object.keys(tokens("evening"))) {
      expect(named).toContain(name);
    }
  });
});
