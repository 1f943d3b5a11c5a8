"use client";
import { useEffect } from "react";
import { whenToldOf } from "./toast";
import { useReached } from "./useReached";

const load = async () => (await import("./ShownToasts")).ShownToasts;

/** Where short messages stand; loaded with the first of them. */
export function Toasts({ dark }: { dark: boolean }) {
  const { Reached, reach } = useReached(load);
  useEffect(() => whenToldOf(reach), [reach]);
  return Reached && <Reached dark={dark} />;
}
