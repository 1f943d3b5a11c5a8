/** @jest-environment jsdom */
import { fireEvent, render, screen, within } from "@testing-library/react";
import { useState } from "react";
import { DataTable } from "./DataTable";

const rows = ["Heron", "Wren", "Pipit"].map((name, at) => ({ id: `r${at}`, name, hz: 60 * (at + 1) }));
const calls = { onSort: jest.fn(), onOpen: jest.fn(), onChoose: jest.fn() };
beforeEach(() => Object.values(calls).forEach((each) => each.mockReset()));

function Shelf({ descending = false, choosing = true }) {
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  return (
    <DataTable
      label="Rigs"
      columns={[
        { name: "Name", sort: "name", cell: ({ name }) => name },
        { name: "Refresh", cell: ({ hz }) => `${hz} Hz` },
        { name: "Memory", sort: "memory", cell: () => "8 GB" },
      ]}
      rows={rows}
      sort="name"
      descending={descending}
      onSort={calls.onSort}
      onOpen={calls.onOpen}
      {...(choosing
        ? {
            chosen,
            onChoose: (next: ReadonlySet<string>) => {
              setChosen(next);
              calls.onChoose([...next].sort());
            },
          }
        : {})}
    />
  );
}
const row = (name: string) => screen.getByRole("row", { name: new RegExp(name) });

describe("a list in rows", () => {
  it("keeps a figure with its unit in every cell", () => {
    render(<Shelf />);
    expect(within(row("Wren")).getAllByRole("cell").at(-2)!.textContent).toBe("120\u00a0Hz");
  });
  it("sorts by the heading that is pressed: the same one the other way round, another one upwards", () => {
    const { rerender } = render(<Shelf />);
    fireEvent.click(screen.getByRole("button", { name: /Name/ }));
    fireEvent.click(screen.getByRole("button", { name: "Memory" }));
    rerender(<Shelf descending />);
    fireEvent.click(screen.getByRole("button", { name: /Name/ }));
    expect(calls.onSort.mock.calls).toEqual([
      ["name", true],
      ["memory", false],
      ["name", false],
    ]);
  });
  it("says which column it is sorted by, and a column without an order is no button", () => {
    render(<Shelf descending />);
    const heads = screen.getAllByRole("columnheader");
    expect(heads.map((head) => head.getAttribute("aria-sort"))).toEqual([null, "descending", null, null]);
    expect(screen.queryByRole("button", { name: "Refresh" })).toBeNull();
  });
  it("arrows walk the rows and stop at both ends; Enter opens", () => {
    render(<Shelf />);
    row("Heron").focus();
    fireEvent.keyDown(row("Heron"), { key: "ArrowUp" });
    expect(document.activeElement).toBe(row("Heron"));
    fireEvent.keyDown(row("Heron"), { key: "ArrowDown" });
    fireEvent.keyDown(row("Wren"), { key: "ArrowDown" });
    fireEvent.keyDown(row("Pipit"), { key: "ArrowDown" });
    expect(document.activeElement).toBe(row("Pipit"));
    fireEvent.keyDown(row("Pipit"), { key: "Enter" });
    expect(calls.onOpen).toHaveBeenCalledWith(rows[2]);
  });
  it("Space chooses and lets go, the head chooses all of the page", () => {
    render(<Shelf />);
    fireEvent.keyDown(row("Wren"), { key: " " });
    fireEvent.keyDown(row("Heron"), { key: " " });
    fireEvent.keyDown(row("Wren"), { key: " " });
    fireEvent.click(screen.getByRole("checkbox", { name: "Choose all on this page" }));
    fireEvent.click(screen.getByRole("checkbox", { name: "Choose Pipit" }));
    fireEvent.click(screen.getByRole("checkbox", { name: "Choose all on this page" }));
    fireEvent.click(screen.getByRole("checkbox", { name: "Choose all on this page" }));
    expect(calls.onChoose.mock.calls.flat()).toEqual([
      ["r1"],
      ["r0", "r1"],
      ["r0"],
      ["r0", "r1", "r2"],
      ["r0", "r1"],
      ["r0", "r1", "r2"],
      [],
    ]);
  });
  it("a key in a cell's own control is that control's", () => {
    render(<Shelf />);
    fireEvent.keyDown(screen.getByRole("checkbox", { name: "Choose Wren" }), { key: "Enter" });
    expect(calls.onOpen).not.toHaveBeenCalled();
  });
  it("without choosing there is nothing to tick, and Space does nothing", () => {
    render(<Shelf choosing={false} />);
    expect(screen.queryByRole("checkbox")).toBeNull();
    fireEvent.keyDown(row("Wren"), { key: " " });
    expect(calls.onChoose).not.toHaveBeenCalled();
  });
});
