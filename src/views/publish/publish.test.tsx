/** @jest-environment jsdom */
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { fireEvent, render, screen } from "@testing-library/react";
import { call } from "@/contract/client";
import type { OtherPublication, OtherView } from "@/core/records";
import { OthersPanel } from "./OthersPanel";

jest.mock("next/navigation", () => ({ useRouter: () => ({ refresh: jest.fn() }) }));
jest.mock("@/contract/client", () => ({ call: jest.fn() }));
const called = call as unknown as jest.Mock;
beforeEach(() => called.mockReset());

const other: OtherPublication = {
  id: "a",
  from: "the harbour",
  addedAt: "2026-11-20T10:00:00.000Z",
  kind: "board",
  name: "Their board",
  madeAt: "2026-11-19T10:00:00Z",
};
const table = (name: string, rows: number) => ({
  name,
  columns: ["Title", "fps"],
  rows: Array.from({ length: rows }, (_, at) => [`${name} ${at}`, at]),
});
const whole = {
  ...other,
  publication: { said: ["It runs."], conditions: [], tables: [table("Long", 2), table("Short", 3)] },
  rowsInAll: [12_000, 3],
} as unknown as OtherView;

const opened = () => {
  render(
    <QueryClientProvider client={new QueryClient()}>
      <OthersPanel rows={[other]} />
    </QueryClientProvider>,
  );
  expect(called).not.toHaveBeenCalled();
  fireEvent.click(screen.getByRole("button", { name: "Show" }));
};

describe("what somebody else published", () => {
  it("is fetched when it is looked at; a table that goes on says how far", async () => {
    called.mockResolvedValue({ ok: true, answer: whole });
    opened();
    expect(await screen.findByText("It runs.")).toBeTruthy();
    expect(screen.getAllByRole("table")).toHaveLength(2);
    expect(screen.getAllByText(/rows;/).map(({ textContent }) => textContent)).toEqual([
      "2 of 12,000 rows; the rest is in the file that it came from.",
    ]);
    expect(called).toHaveBeenCalledWith("viewOther", { id: "a" });
  });
  it("that was taken away meanwhile is said to be", async () => {
    called.mockResolvedValue({ ok: false, refusal: { title: "No such publication.", fix: "Look again." } });
    opened();
    expect(await screen.findByText("No such publication.")).toBeTruthy();
  });
});
