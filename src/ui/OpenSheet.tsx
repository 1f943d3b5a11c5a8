"use client";
import { clsx } from "clsx";
import { X } from "lucide-react";
import { Dialog } from "radix-ui";
import type { SheetProps } from "./sheetProps";

/** A sheet over the page, with what stands in it. */
export function OpenSheet({ open, onOpenChange, title, side, children }: SheetProps) {
  return (
    <Dialog.Root open={open} onOpenChange={onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-(--shade)" />
        <Dialog.Content
          aria-describedby={undefined}
          className={clsx(
            "fixed z-50 overflow-auto bg-panel p-5 shadow-xl",
            side === "left" && "inset-y-0 left-0 w-[min(340px,90vw)]",
            side === "right" && "inset-y-0 right-0 w-[min(340px,90vw)]",
            !side &&
              "left-1/2 top-[12vh] max-h-[76vh] w-[min(560px,92vw)] -translate-x-1/2 rounded-(--radius-panel) border border-line",
          )}
        >
          <div className="mb-3 flex items-center justify-between">
            <Dialog.Title className="text-lg font-semibold">{title}</Dialog.Title>
            <Dialog.Close aria-label="Close" className="rounded p-1 text-soft hover:bg-raised">
              <X size={18} aria-hidden />
            </Dialog.Close>
          </div>
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
