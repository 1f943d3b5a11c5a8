"use client";
import { clsx } from "clsx";
import type { ComponentProps } from "react";

/** A name that opens what it means; on touch screens a finger's width around it opens it too. */
export function ExplainedButton({ className, ...button }: ComponentProps<"button">) {
  return (
    <button
      type="button"
      aria-haspopup="dialog"
      data-explained
      {...button}
      className={clsx(
        "relative max-w-full truncate text-left underline decoration-soft decoration-dotted underline-offset-[3px] hover:decoration-text pointer-coarse:before:absolute pointer-coarse:before:-inset-2.5",
        className,
      )}
    />
  );
}
