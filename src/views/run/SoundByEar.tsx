"use client";
import { useEffect, useState } from "react";
import { Button, Keys, say } from "@/ui";

/** Dropouts as they are heard, a key each, as a rate; noted as a fault of the run that is kept next. */
export function SoundByEar({
  onHeard,
}: {
  onHeard: (heard: { dropouts: number; minutes: number } | null) => void;
}) {
  const [began, setBegan] = useState<number | null>(null);
  const [dropouts, setDropouts] = useState(0);
  const [now, setNow] = useState(0);
  useEffect(() => {
    if (began === null) return;
    const timer = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(timer);
  }, [began]);
  const minutes = began === null ? 0 : Math.max(1 / 60, (Math.max(now, began) - began) / 60_000);
  const heard = () => {
    const at = Date.now();
    setBegan(began ?? at);
    setNow(at);
    setDropouts(dropouts + 1);
    onHeard({ dropouts: dropouts + 1, minutes: Math.max(1 / 60, (at - (began ?? at)) / 60_000) });
  };
  return (
    <div className="flex flex-wrap items-center gap-2 text-[13px]">
      <Keys actions={[{ keys: "h", shown: "H", label: "a dropout was heard", run: heard }]} />
      <Button hint="H" onClick={heard}>
        Dropout heard
      </Button>
      <span className="figure text-soft" role="status">
        {began === null
          ? "Listen, and press at every dropout."
          : `${say.count(dropouts, "dropout")} in ${say.number(minutes)} min: ${say.number(dropouts / minutes)} a minute`}
      </span>
      {began !== null && (
        <Button
          look="quiet"
          onClick={() => {
            setBegan(null);
            setDropouts(0);
            onHeard(null);
          }}
        >
          Begin anew
        </Button>
      )}
    </div>
  );
}
