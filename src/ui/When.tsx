"use client";
import { useEffect, useState } from "react";
import { ago, dateTime } from "./format";

const minute = 60_000;

/**
 * A moment as the reader's own clock has it, or how long ago it was. The server, which doesn't know that clock,
 * writes it in UTC.
 */
export function When({ at, as = "date" }: { at: Date | string; as?: "date" | "ago" }) {
  const iso = new Date(at).toISOString();
  const [text, setText] = useState(`${iso.slice(0, 16).replace("T", " ")} UTC`);
  useEffect(() => {
    const put = () => setText(as === "ago" ? ago(iso) : dateTime(iso));
    put();
    if (as !== "ago") return;
    const timer = setInterval(put, minute);
    return () => clearInterval(timer);
  }, [iso, as]);
  return (
    <time dateTime={iso} className="whitespace-nowrap">
      {text}
    </time>
  );
}
