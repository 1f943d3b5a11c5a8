/** @jest-environment jsdom */
import { act, fireEvent, render, screen } from "@testing-library/react";
import { ProblemPanel } from "./ProblemPanel";

const refresh = jest.fn();
jest.mock("next/navigation", () => ({ useRouter: () => ({ refresh: () => refresh() }) }));
beforeEach(() => {
  refresh.mockReset();
  jest.useFakeTimers();
});
afterEach(() => jest.useRealTimers());
const wait = (ms: number) => act(() => jest.advanceTimersByTime(ms));

it("says what happened under a heading of its own, and what to do", () => {
  render(<ProblemPanel title="There is no such job." fix="Choose another." />);
  expect(screen.getByRole("alert").textContent).toBe("There is no such job.Choose another.");
  expect(screen.getByRole("heading", { level: 1 }).textContent).toBe("There is no such job.");
});
it("where waiting doesn't help it tries nothing", () => {
  render(<ProblemPanel title="There is no such job." fix="Choose another." />);
  wait(60_000);
  expect(screen.queryByRole("button")).toBeNull();
  expect(refresh).not.toHaveBeenCalled();
});
it("where waiting helps it tries every few seconds and at a press, and stops once it is gone", () => {
  const { unmount } = render(<ProblemPanel title="The database doesn't answer." fix="Wait." retry />);
  wait(3_999);
  expect(refresh).not.toHaveBeenCalled();
  wait(1);
  fireEvent.click(screen.getByRole("button", { name: "Try again now" }));
  expect(refresh).toHaveBeenCalledTimes(2);
  unmount();
  wait(60_000);
  expect(refresh).toHaveBeenCalledTimes(2);
});
