"use client";
import type { SheetProps } from "./sheetProps";
import { onceOpen } from "./onceOpen";

/** A sheet laid over the page; Escape puts it away. `side` makes it a drawer. */
export const Sheet = onceOpen<SheetProps>(async () => (await import("./OpenSheet")).OpenSheet);
