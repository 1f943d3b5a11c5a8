"use client";
import { Undo2 } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import { tallyFigures } from "@/core/metrics";
import { Button, Choice, say } from "@/ui";
import { send, type Refusal } from "@/views/send";

interface TallyReading {
  fps: number;
  second: number;
}

const paces = [3, 5, 8, 10];

/** A short, soft tick; silent where sound is not allowed. */
function tick(context: AudioContext): void {
  const tone = context.createOscillator(), volume = context.createGain();
  tone.frequency.value = 660;
  volume.gain.setValueAtTime(0.06, context.currentTime);
  volume.gain.exponentialRampToValueAtTime(0.0001, context.currentTime + 0.08);
  tone.connect(volume).connect(context.destination);
  tone.start();
  tone.stop(context.currentTime + 0.09);
}

/** Numbers read off a screen at a steady tick: type one, press Enter. The mean stands beside its uncertainty from the start. */
export function TallyPad({ targetFps, particulars, onKept }: { targetFps: number; particulars: () => unknown; onKept: (run: { id: string; number: number }) => void }) {
  const [readings, setReadings] = useState<TallyReading[]>([]);
  const [text, setText] = useState("");
  const [pace, setPace] = useState(5);
  const [started, setStarted] = useState<number | null>(null);
  const [since, setSince] = useState(0);
  const [refusal, setRefusal] = useState<Refusal | null>(null);
  const [keeping, setKeeping] = useState(false);
  const sound = useRef<AudioContext | null>(null);
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (started === null) return;
    const timer = setInterval(() => {
      const seconds = (performance.now() - started) / 1000;
      setSince((before) => {
        if (Math.floor(seconds / pace) > Math.floor(before / pace) && sound.current) tick(sound.current);
        return seconds;
      });
    }, 100);
    return () => clearInterval(timer);
  }, [started, pace]);
  useEffect(() => () => void sound.current?.close(), []);

  const fps = Number(text.replace(",", "."));
  const fits = text.trim() !== "" && fps >= 0 && fps <= 1000;
  const add = () => {
    if (!fits) return;
    const now = performance.now();
    if (started === null) {
      setStarted(now);
      sound.current ??= typeof AudioContext === "undefined" ? null : new AudioContext();
    }
    const second = started === null ? 0 : (now - started) / 1000;
    setReadings([...readings, { fps, second }]);
    setText("");
    field.current?.focus();
  };
  const figures = readings.length > 0 ? tallyFigures(readings.map((reading) => reading.fps), targetFps) : null;
  const keep = async () => {
    setKeeping(true);
    const sent = await send<{ id: string; number: number }>("POST", "tallies", { run: particulars(), readings });
    setKeeping(false);
    if (sent.ok) onKept(sent.answer);
    else setRefusal(sent.refusal);
  };
  const toNext = pace - (since % pace);
  return (
    <div className="grid gap-4 md:grid-cols-[320px_1fr]">
      <form className="grid gap-3" onSubmit={(event) => { event.preventDefault(); add(); }}>
        <label className="text-[13px] text-soft" htmlFor="tally">Look when it ticks, type the number, press Enter.</label>
        <input ref={field} id="tally" inputMode="decimal" autoComplete="off" autoFocus value={text} onChange={(event) => setText(event.target.value.replace(/[^\d.,]/g, ""))} placeholder="fps" className="figure h-24 w-full rounded-(--radius-panel) border border-edge bg-ground text-center text-6xl" />
        <div className="grid grid-cols-3 gap-2 md:hidden">
          {["7", "8", "9", "4", "5", "6", "1", "2", "3", ".", "0", "⌫"].map((key) => <button key={key} type="button" className="figure min-h-14 rounded-md bg-raised text-2xl" onClick={() => setText(key === "⌫" ? text.slice(0, -1) : text + key)}>{key}</button>)}
        </div>
        <div className="flex gap-2">
          <Button type="submit" look="lit" className="min-h-12 flex-1" disabled={!fits} hint="Enter">Add</Button>
          <Button aria-label="Take the last reading back" className="min-h-12" disabled={readings.length === 0} onClick={() => setReadings(readings.slice(0, -1))}><Undo2 size={16} aria-hidden /></Button>
        </div>
        <div className="flex items-center justify-between text-[13px] text-soft">
          <span>A tick every <Choice quiet label="Seconds between ticks" value={String(pace)} options={paces.map((seconds) => ({ value: String(seconds), label: `${seconds} s` }))} onChange={(value) => setPace(Number(value))} /></span>
          {started !== null && <span className="figure">next in {toNext.toFixed(0)} s</span>}
        </div>
      </form>
      <div>
        {figures ? (
          <>
            <p className="figure text-4xl">{say.number(figures.mean)}<span className="ml-2 text-lg text-soft">fps, by eye</span></p>
            <p className="mt-1 text-soft">
              {figures.interval ? `95 % between ${say.number(figures.interval.low)} and ${say.number(figures.interval.high)} fps` : "One reading says nothing of the spread yet"}; {say.number(figures.min)} to {say.number(figures.max)};
              {" "}{say.count(figures.readings, "reading")}, worth {say.number(figures.effective)} independent; at target {say.number(100 * figures.atTarget.share, 0)} % of looks ({say.number(100 * figures.atTarget.low, 0)} to {say.number(100 * figures.atTarget.high, 0)} %).
            </p>
            <ol className="figure mt-3 flex flex-wrap gap-2" aria-label="Readings">{readings.map((reading, index) => <li key={index} className="rounded bg-raised px-2 py-1">{reading.fps}</li>)}</ol>
            {refusal && <p role="alert" className="mt-3 rounded-md border border-caution p-3"><b>{refusal.title}</b> {refusal.fix}</p>}
            <Button look="lit" className="mt-4" disabled={keeping} onClick={() => void keep()}>Keep this tally</Button>
          </>
        ) : (
          <p className="text-soft">Choose the moments before you look, not by what you see: that is what makes the mean honest. Ten readings or more give a usable interval.</p>
        )}
      </div>
    </div>
  );
}
