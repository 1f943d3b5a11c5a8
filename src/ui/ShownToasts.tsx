"use client";
import { useEffect } from "react";
import { toast, Toaster } from "sonner";
import { sayWaiting } from "./toast";

/** Short messages as they stand in the corner. */
export function ShownToasts({ dark }: { dark: boolean }) {
  useEffect(() => sayWaiting(toast), []);
  return (
    <Toaster
      theme={dark ? "dark" : "light"}
      position="bottom-right"
      toastOptions={{
        style: {
          background: "var(--raised)",
          color: "var(--text)",
          border: "1px solid var(--line)",
          fontFamily: "var(--font-sans)",
        },
      }}
    />
  );
}
