import Papa from "papaparse";
import { hardnesses } from "@/core/kit";

/** A title as a line of pasted text names it. */
export interface PastedTitle {
  /** Line of the text, from 1. */
  line: number;
  name: string;
  /** Empty where the line names none. */
  system: string;
  /** Its own rate; null where the line names none. */
  nativeFps: number | null;
  region: string;
  hardness: (typeof hardnesses)[number];
  scenes: string[];
}

export interface PastedTitles {
  titles: PastedTitle[];
  /** Lines that name no title, with what stands there. */
  left: { line: number; text: string }[];
  /** What each column was taken for, in their order. */
  columns: Role[];
}

type Role = "name" | "system" | "rate" | "region" | "hardness" | "scenes" | "nothing";

/** What a head may call a column. */
const heads: [Exclude<Role, "nothing">, RegExp][] = [
  ["name", /^(name|title|game|titel|nom|nombre)s?$/i],
  ["system", /^(system|console|platform|machine|plattform|système|sistema)s?$/i],
  ["rate", /^(rate|own rate|fps|hz|frame rate|bildrate)$/i],
  ["region", /^(region|country|version)$/i],
  ["hardness", /^(hardness|difficulty|demand)$/i],
  ["scenes", /^(scene|area|place|level)s?$/i],
];

const rateOf = (cell: string): number | null => {
  const found = /^(\d{1,4}(?:[.,]\d+)?)\s*(fps|hz)?$/i.exec(cell.trim());
  const rate = found ? Number(found[1]?.replace(",", ".")) : NaN;
  return rate >= 1 && rate <= 1000 ? rate : null;
};
const hardnessOf = (cell: string) => hardnesses.find((each) => each === cell.trim().toLowerCase()) ?? null;
const regions = /^(europe|america|japan|world|asia|pal|ntsc(-[juc])?|eu|us|usa|jp)$/i;

/** The separator that parts most lines alike; a comma last, since names hold them. */
function separatorOf(lines: string[]): string {
  const counted = ["\t", ";", "|", ","].map((separator) => ({
    separator,
    lines: lines.filter((line) => line.includes(separator)).length,
  }));
  const [best] = counted.filter((each) => each.lines * 2 >= lines.length).sort((a, b) => b.lines - a.lines);
  return best?.separator ?? "\t";
}

/** What columns are: by their head, else by what stands in them. */
function rolesOf(rows: string[][], head: string[] | null, systems: readonly string[]): Role[] {
  const width = Math.max(0, ...rows.map((row) => row.length));
  const known = new Set(systems.map((name) => name.toLowerCase()));
  const taken = new Set<Role>();
  const roles: Role[] = Array.from({ length: width }, (_, at) => {
    const named = head && heads.find(([, words]) => words.test(head[at]?.trim() ?? ""));
    if (!named || (taken.has(named[0]) && named[0] !== "scenes")) return "nothing";
    taken.add(named[0]);
    return named[0];
  });
  const share = (at: number, is: (cell: string) => boolean) => {
    const cells = rows.map((row) => row[at]?.trim() ?? "").filter(Boolean);
    return cells.length === 0 ? 0 : cells.filter(is).length / cells.length;
  };
  const most = 0.6;
  const take = (role: Role, fits: (at: number) => boolean) => {
    if (taken.has(role)) return;
    const at = roles.findIndex((each, column) => each === "nothing" && fits(column));
    if (at < 0) return;
    roles[at] = role;
    taken.add(role);
  };
  take("rate", (at) => share(at, (cell) => rateOf(cell) !== null) >= most);
  take("hardness", (at) => share(at, (cell) => hardnessOf(cell) !== null) >= most);
  take("system", (at) => share(at, (cell) => known.has(cell.toLowerCase())) >= most);
  take("region", (at) => share(at, (cell) => regions.test(cell)) >= most);
  take("name", () => true);
  // Where no system of these names is on the shelf, the column beside the name that repeats itself is one.
  take("system", (at) => {
    const cells = rows.map((row) => row[at]?.trim().toLowerCase() ?? "").filter(Boolean);
    return cells.length > 2 ? new Set(cells).size <= cells.length / 2 : at === roles.indexOf("name") + 1;
  });
  return roles.map((role) => (role === "nothing" && !head ? "scenes" : role));
}

/**
 * Titles of pasted lines: any separator, columns by their head or by what stands in them.
 * @param systems names on the shelf, by which a column of systems is known
 */
export function titlesIn(text: string, systems: readonly string[]): PastedTitles {
  const numbered = text
    .split(/\r\n|\r|\n/)
    .map((line, at) => ({ line: at + 1, text: line.trim() }))
    .filter((each) => each.text !== "" && !each.text.startsWith("#"));
  const delimiter = separatorOf(numbered.map((each) => each.text));
  const rows = numbered.map((each) => ({
    ...each,
    cells:
      Papa.parse<string[]>(each.text, { delimiter, quoteChar: '"' }).data[0]?.map((cell) => cell.trim()) ?? [],
  }));
  const [first] = rows;
  const isHead =
    first !== undefined &&
    first.cells.filter((cell) => heads.some(([, words]) => words.test(cell))).length >=
      Math.min(2, first.cells.length);
  const body = isHead ? rows.slice(1) : rows;
  const columns = rolesOf(
    body.map(({ cells }) => cells),
    isHead ? first.cells : null,
    systems,
  );
  const titles: PastedTitle[] = [],
    left: PastedTitles["left"] = [];
  for (const { line, cells, text: all } of body) {
    const of = (role: Role) => cells.filter((_, at) => columns[at] === role).filter(Boolean);
    const [name = ""] = of("name");
    if (name === "" || name.length > 120) {
      left.push({ line, text: all });
      continue;
    }
    titles.push({
      line,
      name,
      system: of("system")[0] ?? "",
      nativeFps: rateOf(of("rate")[0] ?? ""),
      region: (of("region")[0] ?? "").slice(0, 40),
      hardness: hardnessOf(of("hardness")[0] ?? "") ?? "typical",
      scenes: of("scenes").flatMap((cell) =>
        cell
          .split(delimiter === "," ? "/" : /[,/]/)
          .map((scene) => scene.trim().slice(0, 120))
          .filter(Boolean),
      ),
    });
  }
  return { titles, left, columns };
}
