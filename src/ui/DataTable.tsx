"use client";
import { clsx } from "clsx";
import { flexRender, getCoreRowModel, useReactTable, type ColumnDef } from "@tanstack/react-table";
import { ArrowDown, ArrowUp, Check } from "lucide-react";
import { Checkbox } from "radix-ui";
import type { KeyboardEvent } from "react";
import { TableFrame } from "./TableFrame";

/** What a list shows of a row; `sort` is the name the server knows the column by. */
export interface TableColumn<Row> {
  name: string;
  cell: (row: Row) => React.ReactNode;
  sort?: string;
}

interface Props<Row> {
  label: string;
  columns: TableColumn<Row>[];
  rows: Row[];
  sort: string;
  descending: boolean;
  onSort: (sort: string, descending: boolean) => void;
  onOpen: (row: Row) => void;
  chosen?: ReadonlySet<string>;
  onChoose?: (chosen: ReadonlySet<string>) => void;
}

/**
 * A list in rows: arrows move, Enter opens, Space chooses, headings sort. Sorting and paging are the server's.
 */
export function DataTable<Row extends { id: string; name: string }>({
  label,
  columns,
  rows,
  sort,
  descending,
  onSort,
  onOpen,
  chosen,
  onChoose,
}: Props<Row>) {
  const table = useReactTable({
    data: rows,
    columns: columns.map((column): ColumnDef<Row> => ({
      id: column.name,
      header: column.name,
      cell: ({ row }) => <>{column.cell(row.original)}</>,
    })),
    getCoreRowModel: getCoreRowModel(),
    getRowId: ({ id }) => id,
    manualSorting: true,
    manualPagination: true,
  });
  const toggle = (ids: string[], on: boolean) => {
    if (!onChoose || !chosen) return;
    const next = new Set(chosen);
    for (const id of ids) {
      if (on) next.add(id);
      else next.delete(id);
    }
    onChoose(next);
  };
  const onKey = (event: KeyboardEvent<HTMLTableRowElement>, row: Row) => {
    const to =
      event.key === "ArrowDown"
        ? event.currentTarget.nextElementSibling
        : event.key === "ArrowUp"
          ? event.currentTarget.previousElementSibling
          : null;
    if (to) (to as HTMLElement).focus();
    else if (event.target === event.currentTarget && event.key === "Enter") onOpen(row);
    else if (event.target === event.currentTarget && event.key === " ") toggle([row.id], !chosen?.has(row.id));
    else return;
    event.preventDefault();
  };
  const tick = (name: string, checked: boolean, ids: string[]) => (
    <Checkbox.Root
      aria-label={name}
      checked={checked}
      onCheckedChange={(on) => toggle(ids, on === true)}
      className="grid h-4.5 w-4.5 place-items-center rounded border border-edge bg-ground data-[state=checked]:bg-lit data-[state=checked]:text-on-lit"
    >
      <Checkbox.Indicator>
        <Check size={13} aria-hidden />
      </Checkbox.Indicator>
    </Checkbox.Root>
  );
  return (
    <TableFrame name={label}>
      <table aria-label={label} className="w-full text-left text-[13px]">
        <thead className="text-[12px] text-soft">
          <tr>
            {onChoose && (
              <th className="w-8 px-2 py-1">
                {tick(
                  "Choose all on this page",
                  rows.length > 0 && rows.every(({ id }) => chosen?.has(id)),
                  rows.map(({ id }) => id),
                )}
              </th>
            )}
            {table.getFlatHeaders().map((header) => {
              const by = columns.find(({ name }) => name === header.id)?.sort;
              const active = by === sort;
              return (
                <th
                  key={header.id}
                  aria-sort={active ? (descending ? "descending" : "ascending") : undefined}
                  className="px-2 py-1 font-normal"
                >
                  {by ? (
                    <button
                      type="button"
                      onClick={() => onSort(by, active && !descending)}
                      className={clsx("inline-flex items-center gap-1 hover:text-text", active && "text-text")}
                    >
                      {flexRender(header.column.columnDef.header, header.getContext())}
                      {active &&
                        (descending ? <ArrowDown size={12} aria-hidden /> : <ArrowUp size={12} aria-hidden />)}
                    </button>
                  ) : (
                    flexRender(header.column.columnDef.header, header.getContext())
                  )}
                </th>
              );
            })}
          </tr>
        </thead>
        <tbody className="divide-y divide-line">
          {table.getRowModel().rows.map((row) => (
            <tr
              key={row.id}
              tabIndex={0}
              onKeyDown={(event) => onKey(event, row.original)}
              onDoubleClick={() => onOpen(row.original)}
              className={clsx("hover:bg-raised", chosen?.has(row.id) && "bg-raised")}
            >
              {onChoose && (
                <td className="px-2 py-2 align-top">
                  {tick(`Choose ${row.original.name}`, chosen?.has(row.id) ?? false, [row.id])}
                </td>
              )}
              {row.getVisibleCells().map((cell) => (
                <td key={cell.id} className="px-2 py-2 align-top">
                  {flexRender(cell.column.columnDef.cell, cell.getContext())}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </TableFrame>
  );
}
