/** @jest-environment jsdom */
import { render } from "@testing-library/react";
import Papa from "papaparse";
import { csvOf } from "@/core/document";
import { tableText, fileNameOf } from "./csv";

describe("figures as CSV", () => {
  it("quotes what has to be (RFC 4180), and comes back as it was", () => {
    const rows = [
      ["a, b", 1.5, null],
      ['say "so"', -2, "two\nlines"],
    ];
    const text = csvOf(["name, kind", "value", "note"], rows);
    expect(Papa.parse(text.trim()).data).toEqual([
      ["name, kind", "value", "note"],
      ["a, b", "1.5", ""],
      ['say "so"', "-2", "two\nlines"],
    ]);
  });
  it("what a spreadsheet would run is text; a negative figure stays one", () => {
    const text = csvOf(["a"], [["=1+1"], ["@now"], ["-2+3"], ["-2.5"], ["+4"]]);
    expect(text.split("\n").slice(1, 6)).toEqual(['"\'=1+1"', '"\'@now"', '"\'-2+3"', "-2.5", "+4"]);
  });
  it("a table gives its heads and what its cells show, without columns that have no head", () => {
    const { container } = render(
      <table>
        <thead>
          <tr>
            <th>Arm</th>
            <th />
            <th>Average</th>
          </tr>
        </thead>
        <tbody>
          <tr>
            <td>
              as it is <b>kept</b>
            </td>
            <td>x</td>
            <td>60.0 fps</td>
          </tr>
        </tbody>
      </table>,
    );
    expect(tableText(container.querySelector("table")!)).toEqual({
      columns: ["Arm", "Average"],
      rows: [["as it is kept", "60.0 fps"]],
    });
  });
  it("any name makes a file's name", () => {
    expect(fileNameOf("Frame time, run 3")).toBe("frame-time-run-3");
    expect(fileNameOf("../../etc")).toBe("etc");
    expect(fileNameOf("…")).toBe("file");
  });
});
