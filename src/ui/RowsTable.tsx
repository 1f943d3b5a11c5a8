import type { ReactNode } from "react";
import { TableFrame } from "./TableFrame";

/** A table of few rows as they are, cards on a phone; a head without a name is that of what is done with a row. */
export function RowsTable({ name, heads, rows }: { name: string; heads: string[]; rows: ReactNode[][] }) {
  return (
    <TableFrame name={name} cards>
      <table className="w-full text-[13px]">
        <thead>
          <tr>
            {heads.map((head) => (
              <th key={head} scope="col" className="px-2 py-1 text-left font-normal text-soft">
                {head || <span className="sr-only">Action</span>}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((cells, at) => (
            <tr key={at} className="border-t border-line">
              {cells.map((cell, place) => (
                <td key={heads[place]} className="px-2 py-1 [overflow-wrap:anywhere]" dir="auto">
                  {cell}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </TableFrame>
  );
}
