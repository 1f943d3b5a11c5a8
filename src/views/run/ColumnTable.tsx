import {
  channelUnits,
  roles,
  unitsFor,
  type Column,
  type ReadOptions,
  type Role,
  type Unit,
} from "@/core/trace";
import { ChoiceField } from "@/ui";

const roleNames: Record<Role, string> = {
  frameTime: "frame time",
  presentTime: "clock",
  rate: "rate",
  speed: "engine speed",
  cpu: "processor load",
  cpuBusiest: "busiest core",
  gpu: "graphics load",
  cpuClock: "processor clock",
  gpuClock: "graphics clock",
  watts: "power",
  temperature: "temperature",
  gpuTemperature: "graphics temperature",
  memory: "memory",
  videoMemory: "video memory",
  battery: "battery",
  dropouts: "sound dropouts",
  scene: "scene",
  pass: "pass",
  ignore: "leave out",
};
const unitNames: Partial<Record<Unit, string>> = { us: "µs", C: "°C", F: "°F", clock: "h:min:s" };
const keptIn = (role: Role) =>
  role === "frameTime" || role === "presentTime" ? "ms" : (channelUnits as Partial<Record<Role, string>>)[role];

/** What each column was taken for, and its first cells; every guess can be corrected. */
export function ColumnTable({
  columns,
  sample,
  onCorrect,
}: {
  columns: Column[];
  sample: string[][];
  onCorrect: (map: NonNullable<ReadOptions["map"]>) => void;
}) {
  // What only one column can be leaves the column that was it.
  const correct = (column: Column, role: Role, unit: Unit | null) =>
    onCorrect({
      ...Object.fromEntries(
        columns
          .filter((other) => other.name !== column.name && other.role === role && role !== "ignore")
          .map((other) => [other.name, { role: "ignore" as const, unit: null }]),
      ),
      [column.name]: { role, unit },
    });
  return (
    <div className="overflow-x-auto rounded-md border border-line">
      <table className="min-w-full text-[13px]">
        <thead>
          <tr className="align-top">
            {columns.map((column, index) => {
              const units = unitsFor(column.role);
              return (
                <th
                  key={index}
                  className="min-w-36 border-r border-line p-2 text-left font-normal last:border-r-0"
                >
                  <p className="max-w-44 truncate font-semibold" title={column.name}>
                    {column.name}
                  </p>
                  <ChoiceField
                    quiet
                    label={`What ${column.name} is`}
                    value={column.role}
                    options={roles.map((role) => ({ value: role, label: roleNames[role] }))}
                    onChange={(role) => correct(column, role as Role, null)}
                  />
                  {units.length > 1 && (
                    <ChoiceField
                      quiet
                      label={`Unit of ${column.name}`}
                      value={column.unit ?? ""}
                      placeholder={keptIn(column.role) ?? "unit"}
                      options={units.map((unit) => ({ value: unit, label: unitNames[unit] ?? unit }))}
                      onChange={(unit) => correct(column, column.role, unit as Unit)}
                    />
                  )}
                  {column.unitFrom === "values" && (
                    <p className="px-2 text-[11px] text-caution">unit judged from values</p>
                  )}
                </th>
              );
            })}
          </tr>
        </thead>
        <tbody>
          {sample.map((cells, row) => (
            <tr key={row} className="border-t border-line">
              {columns.map((column, index) => (
                <td
                  key={index}
                  className={`figure border-r border-line px-2 py-1 last:border-r-0 ${column.role === "ignore" ? "text-soft" : ""}`}
                >
                  {cells[index] ?? ""}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
