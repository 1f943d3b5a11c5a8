import { clsx } from "clsx";
import type { ReactNode } from "react";

export function Panel({
  title,
  aside,
  className,
  children,
}: {
  title?: ReactNode;
  aside?: ReactNode;
  className?: string;
  children: ReactNode;
}) {
  return (
    <section className={clsx("rounded-(--radius-panel) bg-panel p-4", className)}>
      {(title || aside) && (
        <header className="mb-3 flex items-center justify-between gap-3">
          <h2 className="text-[15px] font-semibold">{title}</h2>
          {aside}
        </header>
      )}
      {children}
    </section>
  );
}

/** What belongs here, and the first step. */
export function EmptyPanel({
  title,
  children,
  action,
}: {
  title: string;
  children: ReactNode;
  action?: ReactNode;
}) {
  return (
    <div className="rounded-(--radius-panel) border border-dashed border-line p-8 text-center">
      <p className="text-lg">{title}</p>
      <p className="mx-auto mt-1 max-w-prose text-soft">{children}</p>
      {action && <div className="mt-4 flex justify-center">{action}</div>}
    </div>
  );
}

/** A figure with its name and unit. */
export function NamedFigure({
  name,
  value,
  unit,
  note,
  title,
  large,
}: {
  name: string;
  value: string;
  unit?: string;
  /** What it was counted from, or the longest of it. */
  note?: string;
  title?: string;
  large?: boolean;
}) {
  return (
    <div title={title} className="min-w-0">
      <dt className="truncate text-[12px] text-soft">{name}</dt>
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
