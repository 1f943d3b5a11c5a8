/** @jest-environment jsdom */
import { act, fireEvent, render, screen } from "@testing-library/react";
import { useState } from "react";
import { SearchChoice } from "./SearchChoice";
import { whenLoaded } from "@/testing/whenLoaded";
import { withoutLayout } from "@/testing/withoutLayout";

beforeAll(withoutLayout);

const options = (...names: string[]) => names.map((name) => ({ value: name.toLowerCase(), label: name }));
const chosen = jest.fn();
beforeEach(() => chosen.mockReset());

/** A chooser whose answers come when the test says so. */
let answer: (names: string[]) => void;
function Asking({ onAdd }: { onAdd?: (typed: string) => void }) {
  const [found, setFound] = useState(["Aria", "Brook"]);
  const [finding, setFinding] = useState(false);
  answer = (names) => {
    setFound(names);
    setFinding(false);
  };
  return (
    <SearchChoice
      label="Title"
      value={null}
      options={options(...found)}
      onChange={chosen}
      onSearch={(typed) => setFinding(typed !== "")}
      finding={finding}
      onAdd={onAdd}
    />
  );
}
const opened = async () => {
  fireEvent.click(screen.getByRole("combobox", { name: "Title" }));
  await whenLoaded();
  return screen.getByPlaceholderText("type to find");
};
const soon = () => act(async () => new Promise((resolve) => setTimeout(resolve, 20)));

describe("one of very many, found by typing", () => {
  it("Enter before the answer takes the first of the answer, not of what stood there before", async () => {
    render(<Asking />);
    const line = await opened();
    fireEvent.change(line, { target: { value: "moth" } });
    fireEvent.keyDown(line, { key: "Enter" });
    await soon();
    expect(chosen).not.toHaveBeenCalled();
    act(() => answer(["Moth Parade", "Mothlight"]));
    await soon();
    expect(chosen.mock.calls).toEqual([["moth parade"]]);
  });
  it("while an answer is on its way only rows that hold what is typed stand there, and one pressed is taken", async () => {
    render(<Asking />);
    const line = await opened();
    const rows = () => screen.queryAllByRole("option").map(({ textContent }) => textContent);
    expect(rows()).toEqual(["Aria", "Brook"]);
    fireEvent.change(line, { target: { value: "bro " } });
    expect(rows()).toEqual(["Brook"]);
    fireEvent.change(line, { target: { value: "moth" } });
    expect(rows()).toEqual([]);
    expect(screen.getByText("Looking …")).toBeTruthy();
    // An answer may have found what is typed elsewhere than in a name.
    act(() => answer(["By its system"]));
    await soon();
    expect(rows()).toEqual(["By its system"]);
    fireEvent.click(screen.getByRole("option"));
    expect(chosen.mock.calls).toEqual([["by its system"]]);
  });
  it("after the answer Enter takes what is lit, though all that was lit before is gone", async () => {
    render(<Asking />);
    const line = await opened();
    fireEvent.change(line, { target: { value: "moth" } });
    act(() => answer(["Moth Parade", "Mothlight"]));
    await soon();
    expect(screen.getByRole("option", { selected: true }).textContent).toBe("Moth Parade");
    fireEvent.keyDown(line, { key: "ArrowDown" });
    fireEvent.keyDown(line, { key: "Enter" });
    await soon();
    expect(chosen.mock.calls).toEqual([["mothlight"]]);
  });
  it("typed on, an Enter that waited is forgotten; what isn't there can be added", async () => {
    const added = jest.fn();
    render(<Asking onAdd={added} />);
    const line = await opened();
    fireEvent.change(line, { target: { value: "mo" } });
    fireEvent.keyDown(line, { key: "Enter" });
    fireEvent.change(line, { target: { value: "mox" } });
    act(() => answer([]));
    await soon();
    expect([chosen, added].map((each) => each.mock.calls.length)).toEqual([0, 0]);
    fireEvent.keyDown(line, { key: "Enter" });
    await soon();
    expect(added.mock.calls).toEqual([["mox"]]);
  });
});
