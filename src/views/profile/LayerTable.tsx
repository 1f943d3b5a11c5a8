import { NoCatalogue } from "@/views/kit/NoCatalogue";
import { clsx } from "clsx";
import { useRef, type KeyboardEvent } from "react";
import { layers, type ProfileRow } from "@/core/profile";
import type { ProfileView } from "@/contract";
import { valueWords } from "@/core/words";
import { ChoiceField, TableFrame, say, Explained } from "@/ui";
import { openLayers, type LayerCell } from "./place";

export const rowFilters = ["all", "differs", "untested", "stale"] as const;
export type RowFilter = (typeof rowFilters)[number];
const filterNames: Record<RowFilter, string> = {
  all: "every setting",
  differs: "what differs from the default",
  untested: "what isn't tested",
  stale: "what is stale",
};

export const shows: Record<RowFilter, (row: ProfileRow) => boolean> = {
  all: () => true,
  differs: ({ value, default: own }) => value !== own,
  untested: ({ standing }) => standing === "untested",
  stale: ({ standing }) => standing === "stale",
};

const layerNames = { rig: "Rig", system: "System on rig", title: "Title on rig" } as const;

/** How far a value is proven, in words. */
export function standingWords({
  standing,
  stale,
  from,
  cells,
  together = [],
}: Pick<ProfileRow, "standing" | "stale"> & Partial<ProfileRow>): string {
  const origin = from && cells?.[from]?.origin.kind;
  if (standing === "untested" && origin === "run") return "as a run was made, held against nothing";
  if (standing === "proven" && together.length > 0)
    return `proven, along with ${say.count(together.length, "other")}`;
  if (standing === "default") return "the default";
  if (standing === "checked") return "checked since: nothing speaks against it";
  if (standing === "against") return "kept against what the runs say";
  if (standing === "stale") return `stale: another ${stale.join(" and ")}`;
  return standing === "proven" ? "proven" : "not tested here";
}

/** Settings as rows, layers as columns; arrows move, Enter edits, Backspace has a layer inherit. */
export function LayerTable({
  view,
  filter,
  onFilter,
  cell,
  onCell,
  onEdit,
  onInherit,
}: {
  view: ProfileView;
  filter: RowFilter;
  onFilter: (filter: RowFilter) => void;
  cell: LayerCell | null;
  onCell: (cell: LayerCell) => void;
  onEdit: (cell: LayerCell) => void;
  onInherit: (cell: LayerCell) => void;
}) {
  const table = useRef<HTMLTableElement>(null);
  const shown = view.rows.filter(shows[filter]);
  const open = openLayers(view);
  const move = (event: KeyboardEvent, row: number, column: number) => {
    const steps: Record<string, [number, number]> = {
      ArrowUp: [-1, 0],
      ArrowDown: [1, 0],
      ArrowLeft: [0, -1],
      ArrowRight: [0, 1],
    };
    const step = steps[event.key];
    if (step) {
      event.preventDefault();
      const next = table.current?.querySelector<HTMLButtonElement>(
        `[data-cell="${row + step[0]} ${column + step[1]}"]`,
      );
      next?.focus();
      return;
    }
    const here = shown[row],
      layer = layers[column];
    if (!here || !layer) return;
    if ((event.key === "Backspace" || event.key === "Delete") && here.cells[layer]) {
      event.preventDefault();
      onInherit({ key: here.key, layer });
    }
  };
  const first = shown[0];
  const isHere = (one: LayerCell | null) => one !== null && shown.some(({ key }) => key === one.key);
  return (
    <div className="min-w-0">
      <div className="mb-2 flex flex-wrap items-center gap-3 text-[13px]">
        <ChoiceField
          quiet
          label="Which settings"
          value={filter}
          options={rowFilters.map((value) => ({ value, label: filterNames[value] }))}
          onChange={(value) => onFilter(rowFilters.find((each) => each === value) ?? "all")}
        />
        <span className="text-soft">{say.count(shown.length, "setting")}</span>
        <span className="text-[12px] text-soft max-sm:hidden">
          Enter sets a value, Backspace has the layer inherit it.
        </span>
      </div>
      {shown.length === 0 ? (
        <div className="rounded-(--radius-panel) border border-dashed border-line p-6 text-soft">
          {view.rows.length === 0 ? (
            <NoCatalogue engineId={view.engine.id} rigId={view.rig.id} />
          ) : (
            `Nothing here is ${filter === "differs" ? "set otherwise than the default" : filter}.`
          )}
        </div>
      ) : (
        <TableFrame name="Layers">
          <table ref={table} aria-label="Layers" className="w-full text-left text-[13px]">
            <thead className="text-[12px] text-soft">
              <tr>
                <th className="px-2 py-1.5 font-normal">Setting</th>
                <th className="px-2 font-normal">Default</th>
                {layers.map((layer) => (
                  <th key={layer} className="px-2 font-normal">
                    {layerNames[layer]}
                  </th>
                ))}
                <th className="px-2 font-normal">
                  <Explained by="Holds">In force</Explained>
                </th>
              </tr>
            </thead>
            <tbody className="divide-y divide-line">
              {shown.map((row, at) => (
                <tr key={row.key} className="hover:bg-panel">
                  <th scope="row" className="px-2 py-1 font-normal [overflow-wrap:anywhere]" dir="auto">
                    {row.label}
                  </th>
                  <td className={clsx("figure px-2", row.from !== null && "text-soft")}>
                    <Value lit={row.from === null}>{valueWords(row.default)}</Value>
                  </td>
                  {layers.map((layer, column) => {
                    const held = row.cells[layer];
                    const isChosen = cell?.key === row.key && cell.layer === layer;
                    const isFirst = !isHere(cell) && row === first && layer === open.at(-1);
                    const canSet = open.includes(layer);
                    return (
                      <td key={layer} className="px-1">
                        <button
                          type="button"
                          data-cell={`${at} ${column}`}
                          tabIndex={isChosen || isFirst ? 0 : -1}
                          disabled={!canSet}
                          aria-label={`${row.label}, ${layerNames[layer]}: ${held ? `${valueWords(held.value)}${row.from === layer ? ", holds" : ""}` : "inherits"}`}
                          onFocus={() => onCell({ key: row.key, layer })}
                          onKeyDown={(event) => move(event, at, column)}
                          onClick={() => onEdit({ key: row.key, layer })}
                          className="figure min-h-8 w-full rounded px-1.5 text-left hover:bg-raised disabled:hover:bg-transparent"
                        >
                          {held ? (
                            <Value lit={row.from === layer}>
                              {valueWords(held.value)}
                              {held.buildId !== null && <span className="text-soft"> (this build)</span>}
                            </Value>
                          ) : (
                            <span className="text-soft">{canSet ? "·" : ""}</span>
                          )}
                        </button>
                      </td>
                    );
                  })}
                  <td className="px-2">
                    <span className="figure">{valueWords(row.value)}</span>{" "}
                    <span
                      className={clsx("text-[12px]", row.standing === "stale" ? "text-caution" : "text-soft")}
                    >
                      {standingWords(row)}
                      {view.titleId === null &&
                        row.confirmations.length > 0 &&
                        ` by ${say.count(new Set(row.confirmations.map(({ titleId }) => titleId)).size, "title")}`}
                    </span>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </TableFrame>
      )}
    </div>
  );
}

/** A layer's value; the one that holds is lit, and says so by a mark too. */
function Value({ lit, children }: { lit: boolean; children: React.ReactNode }) {
  return lit ? (
    <span className="inline-flex items-center gap-1.5 rounded border border-lit px-1.5 py-0.5 font-semibold text-lit">
      <span aria-hidden className="size-1.5 rounded-full bg-lit" />
      {children}
    </span>
  ) : (
    <span className="px-1.5 line-through decoration-line">{children}</span>
  );
}
