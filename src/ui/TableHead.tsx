import clsx from "clsx";
import { ExplainedHead } from "./ExplainedHead";

/** A table's head: names of its columns. `tight` in tables of few rows beside something else. */
export const TableHead = ({ names, tight = false }: { names: readonly string[]; tight?: boolean }) => (
  <thead className="text-[12px] text-soft">
    <tr>
      {names.map((name) => (
        <th key={name} className={clsx("px-2 font-normal", tight ? "py-1" : "py-1.5")}>
          <ExplainedHead>{name}</ExplainedHead>
        </th>
      ))}
    </tr>
  </thead>
);
