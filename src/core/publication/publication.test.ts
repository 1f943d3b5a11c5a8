import { createHash } from "node:crypto";
import { parse } from "@xml-tools/parser";
import {
  mostCells,
  publicationFormat,
  publicationHtml,
  publicationJsonSchema,
  publicationMarkdown,
  publicationSchema,
  type Publication,
} from ".";

const hostile = `<script>alert("x")</script> & 'quoted' | *bold* \`code\``;
const publication: Publication = {
  format: publicationFormat,
  kind: "campaign",
  name: `Names ${hostile}`,
  madeAt: "2026-11-26T10:00:00.000Z",
  said: [`One wins. ${hostile}`],
  conditions: [{ name: "House rules", value: hostile }],
  tables: [
    {
      name: `Titles ${hostile}`,
      columns: ["Title", `Arm ${hostile}`, "fps"],
      rows: [
        [hostile, "Steady", 59.9],
        ["b", null, 8],
      ],
    },
  ],
  leftOut: ["names of devices"],
};
const fonts = { sans: "AAAA", mono: "BBBB" };

describe("a published page", () => {
  const page = publicationHtml(publication, fonts);
  it("asks nothing of the network and lets no script run but its own, by the SHA-256 of what stands in it", () => {
    const [, script = ""] = /<script>([\s\S]*?)<\/script>/.exec(page) ?? [];
    const hash = createHash("sha256").update(script).digest("base64");
    expect(page).toContain(`script-src &#39;sha256-${hash}&#39;`);
    expect(page).toContain("default-src &#39;none&#39;");
    expect(page.replace(/data:font[^)]*/g, "")).not.toMatch(/https?:|src="|href="/);
  });
  it("says hostile text as text", () => {
    expect(page.match(/<script/g)).toHaveLength(1);
    expect(page).toContain("&lt;script&gt;alert(&quot;x&quot;)&lt;/script&gt;");
  });
  it("is whole: an independent parser finds every element closed", () => {
    const body = page.slice(page.indexOf("<main>"), page.indexOf("</main>") + "</main>".length);
    const { lexErrors, parseErrors } = parse(body);
    expect([lexErrors, parseErrors]).toEqual([[], []]);
  });
  it("runs nothing in a preview", () =>
    expect(publicationHtml(publication, fonts, { sorts: false })).not.toContain("<script"));
});

it("as Markdown has a table of as many cells in every row, whatever they hold", () => {
  const rows = publicationMarkdown(publication)
    .split("\n")
    .filter((line) => line.startsWith("| "));
  expect(rows).toHaveLength(4);
  for (const row of rows) expect(row.match(/(?<!\\)\|/g)).toHaveLength(4);
});

it("as JSON reads back the same, by a schema that is published; what isn't one is refused", () => {
  expect(publicationSchema.parse(JSON.parse(JSON.stringify(publication)))).toEqual(publication);
  expect(publicationJsonSchema()).toMatchObject({ $id: publicationFormat, type: "object" });
  for (const wrong of [
    { format: "other/1" },
    { madeAt: "yesterday" },
    { tables: [{ name: "t", columns: ["a"], rows: [["1", "2"]] }] },
    { tables: [{ name: "t", columns: ["a"], rows: [[{ x: 1 }]] }] },
  ])
    expect(publicationSchema.safeParse({ ...publication, ...wrong }).success).toBe(false);
});

it("holds so many cells in all tables and no more, however they are spread", () => {
  const table = (rows: number) => ({
    name: "t",
    columns: ["a", "b", "c", "d", "e"],
    rows: Array.from({ length: rows }, (_, k) => [k, k, null, "text", 1]),
  });
  const of = (...rows: number[]) => publicationSchema.safeParse({ ...publication, tables: rows.map(table) });
  expect(mostCells).toBe(100_000);
  expect(of(20_000).success).toBe(true);
  expect(of(10_000, 10_000).success).toBe(true);
  const { error } = of(10_000, 10_000, 1);
  expect(error?.issues[0]).toMatchObject({ path: ["tables"], message: "At most 100,000 cells in all tables." });
  const ragged = publicationSchema.safeParse({
    ...publication,
    tables: [{ ...table(1), rows: [[1, 2, 3, 4, 5], [1]] }],
  });
  expect(ragged.error?.issues[0]?.message).toBe("A row has a cell a column.");
});
