"use client";
import { useRef, useState, type ReactNode } from "react";
import { useChartKeys } from "./chartKeys";
import { ChartMenu } from "./ChartMenu";
import { download, fileNameOf } from "./csv";
import { downloadCsv } from "./downloadCsv";
import { pngOf, svgOf } from "./picture";

export type ChartCell = string | number | null;

/** What a chart draws, as columns and rows. */
export interface ChartData {
  columns: string[];
  rows: ChartCell[][];
}

/** Rows of a chart's table that are shown; the file holds all of them. */
const mostRows = 400;

const shown = (cell: ChartCell) =>
  typeof cell === "number"
    ? cell.toLocaleString("en-GB", { maximumFractionDigits: 3, useGrouping: false })
    : (cell ?? "");

/** Round a chart: what it draws as a picture, as a file of figures, and as a table on the page. */
export function ChartFrame({
  name,
  data,
  children,
}: {
  name: string;
  data: () => ChartData;
  children: ReactNode;
}) {
  const frame = useRef<HTMLDivElement>(null);
  const [table, setTable] = useState(false);
  const drawn = () =>
    frame.current?.querySelector<SVGSVGElement>("svg[data-chart], [data-chart] svg.recharts-surface") ?? null;
  const file = fileNameOf(name);
  const saveSvg = () => {
    const svg = drawn();
    if (svg) download(`${file}.svg`, svgOf(svg), "image/svg+xml");
  };
  const savePng = async () => {
    const svg = drawn();
    if (svg) download(`${file}.png`, await pngOf(svg));
  };
  const saveCsv = () => {
    const { columns, rows } = data();
    void downloadCsv(name, columns, rows);
  };
  useChartKeys(frame, { png: () => void savePng(), svg: saveSvg, csv: saveCsv });
  const made = table ? data() : null;
  return (
    <div ref={frame} className="relative min-w-0">
      <div className="absolute -top-1 right-0 z-10">
        <ChartMenu
          name={name}
          actions={[
            ["Save the picture as PNG", () => void savePng()],
            ["Save the picture as SVG", saveSvg],
            ["Save the figures as CSV", saveCsv],
            [table ? "Put the table away" : "Show the figures as a table", () => setTable(!table)],
          ]}
        />
      </div>
      {children}
      {made && (
        <div
          tabIndex={0}
          role="region"
          aria-label={`${name}, as a table`}
          className="mt-2 max-h-72 overflow-auto"
        >
          <table className="w-full text-left text-[12px]">
            <thead className="sticky top-0 bg-ground text-soft">
              <tr>
                {made.columns.map((column) => (
                  <th key={column} className="px-2 py-1 font-normal">
                    {column}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody className="figure divide-y divide-line">
              {made.rows.slice(0, mostRows).map((row, at) => (
                <tr key={at}>
                  {row.map((cell, column) => (
                    <td key={column} className="whitespace-nowrap px-2 py-0.5">
                      {shown(cell)}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
          {made.rows.length > mostRows && (
            <p className="p-2 text-[12px] text-soft">
              {made.rows.length - mostRows} more rows stand in the CSV file.
            </p>
          )}
        </div>
      )}
    </div>
  );
}
