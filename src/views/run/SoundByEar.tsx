"use client";
import { useEffect, useState } from "react";
import { Button, Keys, say } from "@/ui";

/** Dropouts as they are heard, a key each, as a rate; noted as a fault of the run that is kept next. */
export function SoundByEar({
  heard: before,
  onHeard,
}: {
  /** What was heard so far; it outlives a reload. */
  heard: { dropouts: number; minutes: number } | null;
  onHeard: (heard: { dropouts: number; minutes: number } | null) => void;
}) {
  const [began, setBegan] = useState<number | null>(null);
  const dropouts = before?.dropouts ?? 0;
  const [now, setNow] = useState(0);
  useEffect(() => {
    if (began === null) return;
    const timer = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(timer);
  }, [began]);
  const minutes =
    began === null ? (before?.minutes ?? 0) : Math.max(1 / 60, (Math.max(now, began) - began) / 60_000);
  const heard = () => {
    const at = Date.now();
    // After a reload listening goes on where it stopped: what went by meanwhile wasn't listened to.
    const start = began ?? at - minutes * 60_000;
    setBegan(start);
    setNow(at);
    onHeard({ dropouts: dropouts + 1, minutes: Math.max(1 / 60, (at - start) / 60_000) });
  };
  return (
    <div className="flex flex-wrap items-center gap-2 text-[13px]">
      <Keys actions={[{ keys: "h", shown: "H", label: "a dropout was heard", run: heard }]} />
      <Button hint="H" onClick={heard}>
        Dropout heard
      </Button>
      <span className="figure text-soft" role="status">
        {dropouts === 0
          ? "Listen, and press at every dropout."
          : `${say.count(dropouts, "dropout")} in ${say.number(minutes)} min: ${say.number(dropouts / minutes)} a minute`}
      </span>
      {dropouts > 0 && (
        <Button
          look="quiet"
          onClick={() => {
            setBegan(null);
            onHeard(null);
          }}
        >
          Begin anew
        </Button>
      )}
    </div>
  );
}
