import { clsx } from "clsx";
import { ChevronDown } from "lucide-react";
import type { ComponentProps, ReactNode } from "react";

/** The button that a list of choices opens from. `quiet` is the look inside the bench strip. */
export function ListButton({
  quiet = false,
  children,
  ...button
}: ComponentProps<"button"> & { quiet?: boolean; children: ReactNode }) {
  return (
    <button
      type="button"
      role="combobox"
      aria-expanded={false}
      aria-haspopup="listbox"
      {...button}
      className={clsx(
        "inline-flex items-center justify-between gap-1.5 rounded-md text-left",
        quiet
          ? "min-h-7 px-2 text-[13px] hover:bg-raised"
          : "min-h-9 w-full border border-edge bg-ground px-2.5 text-[14px] aria-invalid:border-caution",
      )}
    >
      <span className="truncate">{children}</span>
      <ChevronDown size={14} className="shrink-0 text-soft" aria-hidden />
    </button>
  );
}
