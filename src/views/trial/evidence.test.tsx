/** @jest-environment jsdom */
import { fireEvent, render, screen, within } from "@testing-library/react";
import { standInRun } from "@/core/simulator";
import { exampleSpec, type ExampleRun } from "@/testing/exampleTrial";
import type { Channel, FrameTrace } from "@/core/trace";
import { seeded } from "@/core/stats";
import { KeysProvider } from "@/ui";
import { exampleTrialView } from "@/testing/exampleTrialView";
import { TrialEvidence } from "./evidence";
import { whenLoaded } from "@/testing/whenLoaded";
import { withoutLayout } from "@/testing/withoutLayout";

beforeAll(withoutLayout);

// The test card needs a canvas; without one it isn't drawn.
HTMLCanvasElement.prototype.getContext = () => null;
HTMLCanvasElement.prototype.toDataURL = () => "";

const random = seeded(17);
/** A run at some rate, its readings one a second. */
function run(
  fps: number,
  seconds: number,
  readings: Record<string, (second: number) => number> = {},
): FrameTrace {
  const frameTimes = Float64Array.from(
    { length: Math.round(fps * seconds) },
    () => (1000 / fps) * Math.exp(0.03 * random.normal()),
  );
  const total = Math.floor(frameTimes.reduce((sum, ms) => sum + ms, 0) / 1000);
  const channels = Object.entries(readings).map(
    ([role, at]): Channel =>
      ({
        role,
        unit: null,
        label: role,
        times: Float64Array.from({ length: total }, (_, second) => 1000 * second),
        values: Float64Array.from({ length: total }, (_, second) => at(second)),
      }) as unknown as Channel,
  );
  return { form: "frames", frameTimes, channels, marks: [] };
}
const shown = async (...given: Parameters<typeof exampleTrialView>) => {
  const onAdd = jest.fn();
  render(
    <KeysProvider>
      <TrialEvidence view={exampleTrialView(...given)} onAdd={onAdd} />
    </KeysProvider>,
  );
  await whenLoaded();
  return onAdd;
};
const cells = (name: RegExp) =>
  within(screen.getByRole("row", { name }))
    .getAllByRole("cell")
    .map(({ textContent }) => textContent);

describe("a power sweep's evidence", () => {
  const modes = ["low", "high"].map((name) => ({ name, conditions: { powerMode: name } }));
  const watts = (value: number) => ({ watts: () => value });
  it("says rate, watts and hours of each mode, and which is the sweet spot", async () => {
    await shown("power", modes, [
      { arm: 0, trace: run(61, 30, watts(9)) },
      { arm: 0, trace: run(61, 30, watts(9)) },
      { arm: 1, trace: run(61.2, 30, watts(17)) },
      { arm: 1, trace: run(61, 30, watts(17)) },
    ]);
    expect(screen.getByText(/Hours: 48.Wh, nine tenths of it usable/)).toBeTruthy();
    const rows = screen.getAllByRole("row").map(({ textContent }) => textContent);
    // 48 Wh, nine tenths of them, over 9 W and over 17 W: 4.8 and 2.5 h.
    expect(rows.find((row) => row?.startsWith("low"))).toMatch(/9\.0.W.*4\.8.h/);
    expect(rows.find((row) => row?.startsWith("high"))).toMatch(/17\.0.W.*2\.5.h/);
  });
  it("without a battery's size or watts it says so in place of hours", async () => {
    await shown("power", modes, [
      { arm: 0, trace: run(61, 30) },
      { arm: 1, trace: run(62, 30) },
    ]);
    expect(screen.getAllByRole("row").filter(({ textContent }) => /\d.h\b/.test(textContent))).toEqual([]);
  });
});

describe("a memory trial's evidence", () => {
  it("says the slope with its interval, the wall, and what more memory would give", async () => {
    const growing = { memory: (second: number) => 2000 + (200 * second) / 60 + 4 * random.normal() };
    await shown("memory", [{ name: "as it is" }], [{ arm: 0, trace: run(50, 240, growing) }]);
    const said = document.body.textContent;
    const [, slope] = said.match(/([\d.]+).MB a minute/)!;
    expect(Number(slope)).toBeGreaterThan(190);
    expect(Number(slope)).toBeLessThan(210);
    expect(said).toMatch(/A device with 12.GB would last about \d+.min/);
  });
  it("memory that stays level has no wall", async () => {
    const level = { memory: () => 2000 + 3 * random.normal() };
    await shown("memory", [{ name: "as it is" }], [{ arm: 0, trace: run(50, 240, level) }]);
    expect(document.body.textContent).not.toMatch(/would last about/);
  });
});

describe("a heat trial's evidence", () => {
  const warming = (settled: number) => ({
    temperature: (second: number) => settled - (settled - 40) * Math.exp(-second / 90) + 0.2 * random.normal(),
  });
  it("says where it settles, in how long, and that the limit is never reached where it settles under it", async () => {
    await shown(
      "heat",
      [{ name: "Bare", conditions: { cooler: false } }],
      [{ arm: 0, trace: run(50, 600, warming(75)) }],
    );
    const bare = cells(/Bare/).join(" | ");
    expect(bare).toMatch(/7[45]\.\d.°C/);
    expect(bare).toMatch(/(8\d|9\d|10\d).s/);
    expect(bare).toMatch(/never at this load/);
  });
  it("where it has hardly bent it asks for a longer run in place of an answer", async () => {
    await shown("heat", [{ name: "Bare" }], [{ arm: 0, trace: run(50, 70, warming(120)) }]);
    expect(document.body.textContent).not.toMatch(/never at this load/);
  });
});

describe("a sweep of scales' evidence", () => {
  const levels = [1, 2, 6].map((level) => ({ name: `×${level}`, level, settings: { scale: level } }));
  const swept = (rates: number[]): ExampleRun[] => rates.map((fps, arm) => ({ arm, trace: run(fps, 30) }));
  it("says the law in figures, and offers the level that would settle it", async () => {
    const onAdd = await shown("resolution", levels, swept([150, 120, 30]), { plan: { keys: ["scale"] } });
    expect(document.body.textContent).toMatch(/\d+\.\d.ms per million pixels/);
    fireEvent.click(screen.getByRole("button", { name: /^Add ×[345]/ }));
    expect(onAdd).toHaveBeenCalledWith(expect.any(Number));
  });
});

describe("a rate trial's evidence", () => {
  it("shows every cap with the share of windows that hold it, and the one that is recommended", async () => {
    await shown(
      "rate",
      [
        { name: "free", role: "free" },
        { name: "30", role: "capped", level: 30 },
      ],
      [{ arm: 0, trace: run(46, 120) }],
      { tied: false, nativeFps: 60, targetFps: 60 },
    );
    expect(screen.getByText(/free: 4[56]\.\d.fps/)).toBeTruthy();
    expect(cells(/^30.fps/).join(" ")).toMatch(/(99|100)\.\d.%/);
    expect(cells(/^60.fps/).join(" ")).toMatch(/^.*\b0\.0.%/);
  });
});

describe("a clock ladder's evidence", () => {
  it("says how long each step ran clean, and what that rules out", async () => {
    await shown(
      "clocks",
      [
        { name: "quiet", level: 1, conditions: { clocks: "quiet" } },
        { name: "forced", level: 2, conditions: { clocks: "forced" } },
      ],
      [{ arm: 0, trace: run(50, 600, { temperature: () => 70 }) }],
      { plan: { soakMinutes: 10 } },
    );
    expect(document.body.textContent).toMatch(/(9\.\d|10\.0).min clean/);
    expect(document.body.textContent).toMatch(/not soaked/);
    expect(document.body.textContent).toMatch(/maker/);
  });
});

it("runs made up by a stand-in are read as any others", async () => {
  const made = [8, 16].map((_, arm) => ({
    arm,
    trace: standInRun({
      ...{
        spec: exampleSpec,
        title: "Tin Harbour",
        engine: "Plait",
        build: "5.1",
        scale: 2,
        seconds: 60,
        seed: arm,
      },
      powerMode: arm === 0 ? "low" : "high",
    }).trace,
  }));
  await shown("power", [{ name: "low" }, { name: "high" }], made);
  expect(
    screen.getAllByRole("row").filter(({ textContent }) => /\d.W/.test(textContent)).length,
  ).toBeGreaterThan(1);
});
