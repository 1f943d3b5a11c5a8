/** @jest-environment jsdom */
import { fireEvent, render, screen } from "@testing-library/react";
import { BandChart } from "./BandChart";

const columns = 100;
const band = (value: (index: number) => number, spread = 0) => ({
  mean: Array.from({ length: columns }, (_, index) => value(index)),
  low: Array.from({ length: columns }, (_, index) => value(index) - spread),
  high: Array.from({ length: columns }, (_, index) => value(index) + spread),
});
const chart = (more: Partial<Parameters<typeof BandChart>[0]> = {}) => (
  <BandChart
    label="Frame times"
    width={44 + columns}
    height={120}
    range={[0, 1000]}
    values={[0, 40]}
    series={[{ name: "run 1", band: band((index) => 10 + index / 10, 2), colour: "red" }]}
    unit="ms"
    {...more}
  />
);
const svg = () => screen.getByRole("img", { name: "Frame times" });
const reader = () => svg().closest("[tabindex]")!;
const read = () => screen.queryByRole("status")?.textContent ?? null;
const key = (name: string, more: object = {}) => fireEvent.keyDown(reader(), { key: name, ...more });

describe("a chart of bands", () => {
  it("draws a spread and a mean a series, over the columns that there are", () => {
    render(chart());
    const paths = [...svg().querySelectorAll("g[clip-path] path")].map((path) => path.getAttribute("d")!);
    expect(paths).toHaveLength(2);
    // The mean begins at the first column's middle and ends at the last one's: 44.5 and 143.5.
    expect(paths[1]).toMatch(/^M44\.5,/);
    expect(paths[1]).toMatch(/L143\.5,[\d.]+$/);
  });
  it("leaves a gap where nothing was measured", () => {
    const gap = band((index) => (index > 40 && index < 60 ? NaN : 20));
    render(chart({ series: [{ name: "run 1", band: gap, colour: "red" }] }));
    const mean = [...svg().querySelectorAll("g[clip-path] path")].at(-1)!.getAttribute("d")!;
    expect(mean.match(/M/g)).toHaveLength(2);
    expect(mean).not.toContain("NaN");
  });
  it("draws a point only where it lies, and a level's name", () => {
    render(
      chart({
        points: [
          { at: 500, title: "hitch: 50 ms" },
          { at: 1500, title: "past the end" },
        ],
        levels: [{ value: 16.7, label: "60 fps" }],
      }),
    );
    const titles = [...svg().querySelectorAll("title")].map((title) => title.textContent);
    expect(titles).toEqual(["60\u00a0fps", "hitch: 50\u00a0ms"]);
  });
});

describe("read by arrow keys", () => {
  it("says the value in the middle, and moves by columns, to both ends", () => {
    render(chart());
    key("ArrowRight");
    expect(read()).toMatch(/15\.\d.ms \(13\.\d to 17\.\d\)/);
    key("Home");
    expect(read()).toMatch(/10\.0.ms/);
    key("ArrowLeft");
    expect(read()).toMatch(/10\.0.ms/);
    key("End");
    expect(read()).toMatch(/19\.9.ms/);
    key("ArrowLeft", { shiftKey: true });
    expect(read()).toMatch(/1[56]\.\d.ms/);
    key("Escape");
    expect(read()).toBeFalsy();
  });
  it("names the series where there are several, and passes over what isn't there", () => {
    render(
      chart({
        series: [
          { name: "run 1", band: band(() => 16), colour: "red" },
          { name: "run 2", band: band(() => NaN), colour: "blue" },
          { name: "run 3", band: band(() => 33), colour: "green" },
        ],
      }),
    );
    key("Home");
    expect(read()).toMatch(/run 1 16\.0.ms; run 3 33\.0.ms/);
    expect(read()).not.toMatch(/run 2/);
  });
  it("a stretch is begun and ended by the space bar, whichever way it was walked; Escape gives it up", () => {
    const onSelect = jest.fn();
    render(chart({ onSelect }));
    key("Home");
    for (let step = 0; step < 5; step++) key("ArrowRight");
    key(" ");
    key("Home");
    key(" ");
    expect(onSelect).toHaveBeenCalledTimes(1);
    const [[from, to]] = onSelect.mock.calls[0] as [[number, number]];
    expect(from).toBe(0);
    expect(to).toBeCloseTo(100, 6);
    key(" ");
    key("Escape");
    key(" ");
    expect(onSelect).toHaveBeenCalledTimes(1);
  });
  it("other keys are the page's", () => {
    render(chart());
    expect(key("k")).toBe(true);
    expect(key("ArrowLeft")).toBe(false);
  });
});
