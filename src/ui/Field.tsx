import { clsx } from "clsx";
import { useId, type ComponentProps, type ReactNode } from "react";

const box =
  "w-full rounded-md border border-edge bg-ground px-2.5 min-h-9 text-[14px] text-text placeholder:text-soft aria-invalid:border-caution";

/** A labelled place for one value: its unit inside, its error under it. */
export function Field({
  label,
  unit,
  error,
  help,
  className,
  children,
}: {
  label: string;
  unit?: string;
  error?: string;
  help?: ReactNode;
  className?: string;
  children: (ids: { id: string; "aria-invalid"?: boolean; "aria-describedby"?: string }) => ReactNode;
}) {
  const id = useId();
  return (
    <div className={clsx("flex flex-col gap-1", className)}>
      <label htmlFor={id} className="text-[13px] text-soft">
        {label}
        {unit && <span className="figure ml-1 text-[12px]">({unit})</span>}
      </label>
      {children({
        id,
        "aria-invalid": error ? true : undefined,
        "aria-describedby": error || help ? `${id}-note` : undefined,
      })}
      {(error || help) && (
        <p id={`${id}-note`} className={clsx("text-[12px]", error ? "text-caution" : "text-soft")}>
          {error ?? help}
        </p>
      )}
    </div>
  );
}

export function Input({ className, ...rest }: ComponentProps<"input">) {
  return (
    <input
      {...rest}
      className={clsx(box, (rest.inputMode === "decimal" || rest.type === "number") && "figure", className)}
    />
  );
}

export function TextArea({ className, ...rest }: ComponentProps<"textarea">) {
  return <textarea rows={3} {...rest} className={clsx(box, "py-1.5", className)} />;
}
