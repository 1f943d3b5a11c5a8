import { clsx } from "clsx";
import type { ExplainedName } from "@/core/explained";
import { Explained } from "./Explained";

/** A figure with its name and unit. */
export function NamedFigure({
  name,
  value,
  unit,
  note,
  large,
}: {
  name: ExplainedName;
  value: string;
  unit?: string;
  /** What it was counted from, or the longest of it. */
  note?: string;
  large?: boolean;
}) {
  return (
    <div className="min-w-0">
      <dt className="truncate text-[12px] text-soft">
        <Explained by={name}>{name}</Explained>
      </dt>
      <dd className={clsx("figure", large ? "text-2xl" : "text-[14px]")}>
        <span className="whitespace-nowrap">
          {value}
          {unit && <span className="ml-1 text-[12px] text-soft">{unit}</span>}
        </span>
        {note && <span className="ml-1.5 whitespace-nowrap text-[12px] text-soft">{note}</span>}
      </dd>
    </div>
  );
}
