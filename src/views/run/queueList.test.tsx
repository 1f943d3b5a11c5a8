/** @jest-environment jsdom */
import { fireEvent, render, screen, within } from "@testing-library/react";
import { QueueList } from "./QueueList";
import type { QueuedLog } from "./useLogQueue";

const log = (id: string, state: unknown, more: Partial<QueuedLog> = {}) =>
  ({
    id,
    file: { name: `${id}.csv` } as File,
    options: {},
    state,
    refusal: null,
    again: false,
    ...more,
  }) as QueuedLog;
const read = { step: "read", preview: { averageFps: 58.7, durationMs: 65_200, verdict: { grade: "steady" } } };
const calls = { onSelect: jest.fn(), onArm: jest.fn(), onMove: jest.fn(), onRemove: jest.fn() };
beforeEach(() => Object.values(calls).forEach((each) => each.mockReset()));
const shown = (logs: QueuedLog[], more: Partial<Parameters<typeof QueueList>[0]> = {}) =>
  render(<QueueList logs={logs} arms={null} twice={new Set()} selected={null} {...calls} {...more} />);
const row = (at: number) => screen.getAllByRole("listitem")[at]!;

describe("logs in running order", () => {
  it("a read one shows its light, rate and length; one being read how far it is; a refused one that it is", () => {
    shown([log("one", read), log("two", { step: "reading", share: 0.42 }), log("three", { step: "refused" })]);
    expect(row(0).textContent).toMatch(/1.*Steady.*one\.csv.*58\.7.fps 1:05\.2/);
    expect(row(1).textContent).toMatch(/2.*42.% read.*two\.csv/);
    expect(row(2).textContent).toMatch(/3.*refused.*three\.csv/);
  });
  it("a row is chosen, and put away, by buttons that say which", () => {
    shown([log("one", read), log("two", read)], { selected: "two" });
    const buttons = (at: number) => within(row(at)).getAllByRole("button");
    expect(buttons(1)[1]!.getAttribute("aria-pressed")).toBe("true");
    fireEvent.click(buttons(0)[1]!);
    fireEvent.click(screen.getByRole("button", { name: "Put two.csv away" }));
    expect([calls.onSelect.mock.calls, calls.onRemove.mock.calls]).toEqual([[["one"]], [["two"]]]);
  });
  it("each says its arm where they are a trial's, and nothing of arms where they aren't", () => {
    const arms = {
      names: ["as it is", "lighter"],
      of: (id: string) => (id === "one" ? 0 : 1),
      ticked: new Set<string>(),
      onTick: () => {},
    };
    const { unmount } = shown([log("one", read), log("two", read)], { arms });
    expect(screen.getByRole("combobox", { name: "Arm of one.csv" }).textContent).toBe("as it is");
    expect(screen.getByRole("combobox", { name: "Arm of two.csv" }).textContent).toBe("lighter");
    unmount();
    shown([log("one", read)]);
    expect(screen.queryByRole("combobox")).toBeNull();
  });
  it("the same file twice is said and left out, unless it was insisted on; a refusal stands in its row", () => {
    shown(
      [
        log("one", read),
        log("two", read, { again: true }),
        log("three", read, { refusal: { title: "This file is run 1 of this job already." } as never }),
      ],
      { twice: new Set(["one", "two"]) },
    );
    const said = "the same file stands before it: left out";
    expect(screen.getAllByText(said)).toHaveLength(1);
    expect(row(0).textContent).toContain(said);
    expect(row(2).textContent).toContain("This file is run 1 of this job already.");
  });
  it("each can be moved by keys: its handle says what and where", () => {
    shown([log("one", read), log("two", read)]);
    const handle = screen.getByRole("button", { name: "Move two.csv, at place 2" });
    expect(handle.getAttribute("tabindex")).toBe("0");
  });
});
