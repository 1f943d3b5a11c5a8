/** @jest-environment jsdom */
import { act, fireEvent, render, screen } from "@testing-library/react";
import { ChartFrame } from "./ChartFrame";
import { ChartKeys } from "./chartKeys";
import { download } from "./csv";
import { KeysProvider } from "./keys";
import { whenLoaded } from "@/testing/whenLoaded";

jest.mock("./csv", () => ({ ...jest.requireActual("./csv"), download: jest.fn() }));
const saved = download as unknown as jest.Mock;
beforeEach(() => saved.mockReset());

const picture = (colour: string) => (
  <svg data-chart width="10" height="10">
    <rect fill={colour} />
  </svg>
);
const data = (name: string, rows = 2) => ({
  columns: ["second", name],
  rows: Array.from({ length: rows }, (_, at) => [at, at / 3] as [number, number]),
});
const page = (rows = 2) => (
  <KeysProvider>
    <ChartKeys />
    <button type="button">elsewhere</button>
    <ChartFrame name="Frame times" data={() => data("ms", rows)}>
      {picture("var(--series-a)")}
      <button type="button">in the first</button>
    </ChartFrame>
    <ChartFrame name="Watts" data={() => data("W")}>
      {picture("red")}
      <button type="button">in the second</button>
    </ChartFrame>
  </KeysProvider>
);
const open = async (name: string) => {
  const trigger = screen.getByRole("button", { name: `${name}: save or show as a table` });
  // A press of Enter: a plain button is clicked by it, one whose menu is loaded hears the key.
  await act(async () => {
    fireEvent.click(trigger);
    fireEvent.keyDown(trigger, { key: "Enter" });
  });
  await whenLoaded();
};
const choose = async (name: string) => {
  await act(async () => fireEvent.click(screen.getByRole("menuitem", { name })));
  await whenLoaded();
};

describe("a chart's own menu", () => {
  it("saves the figures behind it as CSV, under the chart's name", async () => {
    render(page());
    await open("Watts");
    await choose("Save the figures as CSV");
    const [[file, text]] = saved.mock.calls as [[string, string]];
    expect(file).toBe("watts.csv");
    expect(text).toMatch(/^"?second"?,"?W"?\r?\n0,0\r?\n1,0\.333/);
  });
  it("saves the picture as an SVG that stands alone: its own size, its ground, no colour of the page left open", async () => {
    document.documentElement.style.setProperty("--series-a", "#5fc9b8");
    render(page());
    await open("Frame times");
    await choose("Save the picture as SVG");
    const [[file, text, type]] = saved.mock.calls as [[string, string, string]];
    expect([file, type]).toEqual(["frame-times.svg", "image/svg+xml"]);
    expect(text).toContain('xmlns="http://www.w3.org/2000/svg"');
    expect(text).toContain('fill="#5fc9b8"');
    expect(text).not.toContain("var(");
  });
  it("shows the figures as a table, and puts it away; of a long one the first part, with the rest counted", async () => {
    render(page(450));
    await open("Frame times");
    await choose("Show the figures as a table");
    const table = screen.getByRole("region", { name: "Frame times, as a table" });
    expect(table.querySelectorAll("tbody tr")).toHaveLength(400);
    expect(table.textContent).toContain("50 more rows stand in the CSV file.");
    expect(table.querySelectorAll("tbody td")[3]!.textContent).toBe("0.333");
    await open("Frame times");
    await choose("Put the table away");
    expect(screen.queryByRole("region", { name: "Frame times, as a table" })).toBeNull();
  });
});

describe("by keys", () => {
  const key = async (code: string, from: Element = document.body) => {
    await act(async () => fireEvent.keyDown(from, { key: code.slice(-1).toLowerCase(), code, altKey: true }));
    await whenLoaded();
  };
  it("the chart that has the focus is meant, else the first of the page", async () => {
    render(page());
    await key("KeyC");
    screen.getByText("in the second").focus();
    await key("KeyC", screen.getByText("in the second"));
    screen.getByText("elsewhere").focus();
    await key("KeyG", screen.getByText("elsewhere"));
    expect(saved.mock.calls.map(([file]) => file)).toEqual(["frame-times.csv", "watts.csv", "frame-times.svg"]);
  });
  it("a chart that is gone isn't meant any more", async () => {
    const { rerender } = render(page());
    rerender(
      <KeysProvider>
        <ChartKeys />
        <ChartFrame name="Watts" data={() => data("W")}>
          {picture("red")}
        </ChartFrame>
      </KeysProvider>,
    );
    await key("KeyC");
    expect(saved.mock.calls.map(([file]) => file)).toEqual(["watts.csv"]);
  });
});
