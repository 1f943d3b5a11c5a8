import { clsx } from "clsx";
import type { ComponentProps } from "react";
import { KeyHint } from "./KeyHint";

type Look = "lit" | "plain" | "quiet";

const looks: Record<Look, string> = {
  lit: "bg-lit text-on-lit font-semibold hover:brightness-110",
  plain: "bg-raised text-text hover:bg-line",
  quiet: "text-soft hover:text-text hover:bg-raised",
};

/** `lit` is the one main action of a page. `hint` names its key. */
export const buttonLook = (look: Look = "plain") =>
  clsx(
    "inline-flex items-center justify-center gap-2 rounded-md px-3 min-h-8 text-[13px] whitespace-nowrap print:hidden aria-pressed:inset-ring-2 aria-pressed:inset-ring-lit aria-pressed:text-text",
    looks[look],
  );

export function Button({
  look = "plain",
  hint,
  className,
  children,
  ...rest
}: ComponentProps<"button"> & { look?: Look; hint?: string }) {
  return (
    <button type="button" {...rest} className={clsx(buttonLook(look), className)}>
      {children}
      {hint && <KeyHint>{hint}</KeyHint>}
    </button>
  );
}
