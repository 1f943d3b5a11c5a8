import { parse } from "csv-parse/sync";
import fc from "fast-check";
import { cellText, csvCell, csvOf } from ".";

const rowsOf = (text: string): string[][] => parse(text, {});

describe("cells that leave as CSV", () => {
  // OWASP, "CSV Injection": a cell that begins with one of these is run by a spreadsheet (the list from memory).
  it.each([
    "=1+1",
    "=1",
    "=",
    "+cmd",
    "-2+3",
    "@SUM(A1)",
    "\tx",
    "\rx",
    "\nx",
    "＝1",
    "＋1",
    "－1",
    "＠x",
    "-",
    "+",
    "--1",
    "-1.2.3",
  ])("%j is made text, and is read back as it was", (text) => {
    const [[cell = ""]] = rowsOf(csvCell(text));
    expect(cell).toBe(`'${text}`);
    expect(cellText(cell)).toBe(text);
  });
  it.each([-2.5, "-2.5", "+4", "-.5", "60", "a=b", "it's", "'quoted'", ""])("%j stays as it is", (cell) =>
    expect(parse(csvOf(["head"], [[cell]]), { from_line: 2, skip_records_with_empty_values: false })).toEqual([
      [String(cell)],
    ]),
  );
  it("heads are cells as well", () => expect(csvOf(["=1+1"], [])).toBe(`"'=1+1"\n`));
  it("every table comes back from another reader as it was (RFC 4180)", () => {
    const cell = fc.string({
      unit: fc.constantFrom("=", "+", "-", "@", "\t", "'", '"', ",", "\n", "a", "1", " "),
    });
    fc.assert(
      fc.property(fc.array(fc.tuple(cell, cell), { minLength: 1 }), (rows) => {
        const back = rowsOf(csvOf(["a", "b"], rows));
        const read = back.slice(1).map((each) => each.map(cellText));
        // A text that begins with the sign itself, before one of these, is the one that can't be told apart.
        const wanted = rows.map((each) => each.map(cellText));
        expect(read).toEqual(wanted);
      }),
    );
  });
});
