"use client";
import { lazy, Suspense, useEffect, useState } from "react";
import { whenToldOf } from "./toast";

const ShownToasts = lazy(async () => ({ default: (await import("./ShownToasts")).ShownToasts }));

/** Where short messages stand; loaded with the first of them. */
export function Toasts({ dark }: { dark: boolean }) {
  const [wanted, setWanted] = useState(false);
  useEffect(() => whenToldOf(() => setWanted(true)), []);
  return wanted ? (
    <Suspense fallback={null}>
      <ShownToasts dark={dark} />
    </Suspense>
  ) : null;
}
