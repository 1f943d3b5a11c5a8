"use client";
import { isSingle, useKeySettings } from "./keySettings";

/** The key that does the same; not on touch screens, and not while single keys are switched off. */
export function KeyHint({ children }: { children: string }) {
  const { settings } = useKeySettings();
  const own = children.length === 1 ? children.toLowerCase() : children;
  if (settings.off && isSingle(own)) return null;
  return (
    <kbd
      aria-hidden
      className="figure rounded border border-current px-1 text-[10px] leading-4 pointer-coarse:hidden"
    >
      {settings.changed[own]?.toUpperCase() ?? children}
    </kbd>
  );
}
