/** @jest-environment jsdom */
import { fireEvent, render, screen } from "@testing-library/react";
import { createRef } from "react";
import { SearchForm, TableFrame, TableHead } from ".";

it("a table's head names its columns, and is saved with the table", () => {
  render(
    <TableFrame name="Modes">
      <table>
        <TableHead names={["Mode", "Watts", ""]} tight />
        <tbody>
          <tr>
            <td>Even</td>
            <td>9 W</td>
            <td />
          </tr>
        </tbody>
      </table>
    </TableFrame>,
  );
  expect(screen.getAllByRole("columnheader").map(({ textContent }) => textContent)).toEqual([
    "Mode",
    "Watts",
    "",
  ]);
  expect(screen.getByRole("button", { name: "Save Modes as CSV" })).toBeTruthy();
});

describe("a list's search", () => {
  const made = () => {
    const told: string[] = [];
    const field = createRef<HTMLInputElement>();
    render(
      <SearchForm
        field={field}
        label="Find a title"
        placeholder="find"
        value="har"
        onChange={(value) => told.push(`typed ${value}`)}
        onSend={() => told.push("sent")}
      >
        <span>every rig</span>
      </SearchForm>,
    );
    return { told, field };
  };
  it("asks for nothing while it is typed, and once when it is sent", () => {
    const { told } = made();
    fireEvent.change(screen.getByRole("textbox", { name: "Find a title" }), { target: { value: "harbour" } });
    expect(told).toEqual(["typed harbour"]);
    fireEvent.submit(screen.getByRole("search"));
    expect(told).toEqual(["typed harbour", "sent"]);
  });
  it("hands its field out, for the key that leads to it, and shows what narrows the list", () => {
    const { field } = made();
    expect(field.current?.value).toBe("har");
    expect(screen.getByText("every rig")).toBeTruthy();
  });
});
