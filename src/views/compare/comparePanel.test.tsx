/** @jest-environment jsdom */
import { render, screen } from "@testing-library/react";
import type { JobRow } from "@/core/records";
import type { ThreadRun } from "@/contract";
import { lendingDesk } from "@/core/verdict";
import { ComparePanel } from "./ComparePanel";
import { useComparison } from "./useComparison";

jest.mock("./useComparison", () => ({ useComparison: jest.fn() }));
const compared = useComparison as unknown as jest.Mock;

const run = (number: number, cold: boolean, scale: number) =>
  ({
    id: `run ${number}`,
    number,
    cold,
    cacheState: cold ? "cold" : "warm",
    crashed: false,
    settings: { scale },
    conditions: { powerMode: "usual" },
  }) as unknown as ThreadRun;
const shown = (upper: ThreadRun, lower: ThreadRun) =>
  render(
    <ComparePanel
      job={{ rules: lendingDesk } as JobRow}
      runs={[upper, lower]}
      run={upper}
      over={lower}
      noise={{ sd: 0.02, freedom: 3 }}
      measured
      catalogue={[]}
    />,
  );

describe("one run laid over another", () => {
  beforeEach(() => compared.mockReturnValue({ state: { step: "working" }, stop: jest.fn(), start: jest.fn() }));
  it.each([
    ["a warm over a cold one", run(2, false, 2), run(1, true, 3), /A warm run lies over one that compiled/],
    [
      "a cold over a warm one",
      run(2, true, 2),
      run(1, false, 3),
      /compiled effects on first sight lies over warm/,
    ],
  ])("%s says that the cache may be all that differs", (_, upper, lower, words) => {
    shown(upper, lower);
    expect(screen.getByText(words)).toBeTruthy();
  });
  it("two of one kind say nothing of caches", () => {
    shown(run(2, false, 2), run(1, false, 3));
    expect(screen.queryByText(/cache/)).toBeNull();
    expect(screen.getByText(/scale: 3 → 2; 1.run against 1.run/)).toBeTruthy();
  });
  it("what its figures say stands with its interval, a share of time in points", () => {
    compared.mockReturnValue({
      state: {
        step: "made",
        outcome: {
          pairs: [
            {
              a: 0,
              b: 1,
              by: "frames",
              decision: "better",
              comparison: {
                averageFps: { ratio: 1.1, low: 1.05, high: 1.15 },
                worstTimeLow: null,
                fullSpeedTime: { difference: 60, low: 42.5, high: 75 },
                hitchesPerMinute: null,
                moreRunsPerSide: 0,
                chanceSettled: 1,
                notes: [],
              },
            },
          ],
        },
      },
      stop: jest.fn(),
      start: jest.fn(),
    });
    shown(run(2, false, 2), run(1, false, 3));
    expect(screen.getByText("Average fps")).toBeTruthy();
    expect(screen.getByText("+60.0 points, 95 % +42.5 to +75.0")).toBeTruthy();
    expect(screen.getByText("Better")).toBeTruthy();
  });
});
