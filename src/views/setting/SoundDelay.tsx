import { useState } from "react";
import { audioQueueDelayMs } from "@/core/sweep";
import { say } from "@/ui";

/** What a sound queue of so many frames or samples delays, ms; what a frame holds and how often is asked. */
export function SoundDelay({ label, value }: { label: string; value: number }) {
  const inSamples = /sample/i.test(label);
  const [samples, setSamples] = useState(inSamples ? "1" : "32");
  const [hertz, setHertz] = useState("48000");
  const ms = audioQueueDelayMs(value, Number(samples), Number(hertz));
  const field = (name: string, of: string, set: (text: string) => void) => (
    <input
      aria-label={name}
      inputMode="numeric"
      value={of}
      onChange={(event) => set(event.target.value.replace(/\D/g, ""))}
      className="figure w-16 rounded border border-line bg-ground px-1"
    />
  );
  return (
    <span className="col-span-full flex flex-wrap items-center gap-1.5 text-[12px] text-soft">
      {label}: {field("Samples in a frame of the queue", samples, setSamples)} samples each at{" "}
      {field("Samples a second, Hz", hertz, setHertz)} Hz delay by{" "}
      <b className="figure text-text">{Number.isFinite(ms) ? `${say.number(ms)} ms` : "–"}</b>
    </span>
  );
}
