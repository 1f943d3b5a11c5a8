"use client";
import type { ReactNode } from "react";
import { onceOpen } from "./onceOpen";

export interface SheetProps {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  title: string;
  side?: "left" | "right";
  children: ReactNode;
}

/** A sheet laid over the page; Escape puts it away. `side` makes it a drawer. */
export const Sheet = onceOpen<SheetProps>(async () => (await import("./OpenSheet")).OpenSheet);
