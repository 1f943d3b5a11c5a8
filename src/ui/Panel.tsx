import { clsx } from "clsx";
import type { ReactNode } from "react";
import { ExplainedHead } from "./ExplainedHead";

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
        <header className="mb-3 flex flex-wrap items-center justify-between gap-x-3 gap-y-1">
          <h2 className="min-w-0 text-[15px] font-semibold [&_[data-explained]]:whitespace-normal">
            <ExplainedHead>{title}</ExplainedHead>
          </h2>
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
