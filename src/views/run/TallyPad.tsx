"use client";
import { Undo2 } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import { tallyFigures } from "@/core/metrics";
import { Button, Choice, Keys, say, toast } from "@/ui";
import { sendLater } from "@/views/live";
import { call, type Refusal } from "@/contract/client";
import { blocksOf, type TallyReading } from "./blocks";
import { useTallyDraft } from "./useTallyDraft";

const paces = [3, 5, 8, 10];

/** A short, soft tick; silent where sound is not allowed. */
function tick(context: AudioContext): void {
  const tone = context.createOscillator(),
    volume = context.createGain();
  tone.frequency.value = 660;
  volume.gain.setValueAtTime(0.06, context.currentTime);
  volume.gain.exponentialRampToValueAtTime(0.0001, context.currentTime + 0.08);
  tone.connect(volume).connect(context.destination);
  tone.start();
  tone.stop(context.currentTime + 0.09);
}

/**
 * Numbers read off a screen at a steady tick: type one, press Enter. The mean stands beside its uncertainty
 * from the start.
 */
export function TallyPad({
  targetFps,
  scenes,
  arms,
  firstArm,
  draft,
  begin,
  onKept,
}: {
  targetFps: number;
  scenes: string[];
  arms: string[] | null;
  firstArm: number;
  /** Whose tally it is: what is typed is kept in the browser under this name. */
  draft: string;
  /** Asked once before it is kept: makes a run of an arm; null where something is still missing. */
  begin: () => Promise<((arm: number | null) => unknown) | null>;
  onKept: (run: { id: string; number: number }) => void;
}) {
  const [scene, setScene] = useState("");
  const [arm, setArm] = useState(firstArm);
  const { startedAt, readings, restored, put, forget } = useTallyDraft(draft);
  const setReadings = (now: TallyReading[]) => put({ startedAt, readings: now });
  const [text, setText] = useState("");
  const [pace, setPace] = useState(5);
  const [since, setSince] = useState(0);
  const [refusal, setRefusal] = useState<Refusal | null>(null);
  const [keeping, setKeeping] = useState(false);
  const sound = useRef<AudioContext | null>(null);
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (startedAt === null) return;
    const timer = setInterval(() => {
      const seconds = (Date.now() - startedAt) / 1000;
      setSince((before) => {
        if (Math.floor(seconds / pace) > Math.floor(before / pace) && sound.current) tick(sound.current);
        return seconds;
      });
    }, 100);
    return () => clearInterval(timer);
  }, [startedAt, pace]);
  // Figures typed anywhere on the page are a reading: none of them is another action's key here.
  useEffect(() => {
    const catchFigure = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      if (!/^[\d.,]$/.test(event.key) || event.ctrlKey || event.metaKey || event.altKey) return;
      if (target.closest("input, textarea, select, [contenteditable], [role=dialog]")) return;
      event.preventDefault();
      event.stopPropagation();
      setText((before) => before + event.key);
      field.current?.focus();
    };
    document.addEventListener("keydown", catchFigure, true);
    return () => document.removeEventListener("keydown", catchFigure, true);
  }, []);
  useEffect(() => () => void sound.current?.close(), []);

  const fps = Number(text.replace(",", "."));
  const fits = text.trim() !== "" && fps >= 0 && fps <= 1000;
  const add = () => {
    if (!fits) return;
    const now = Date.now();
    sound.current ??= typeof AudioContext === "undefined" ? null : new AudioContext();
    const second = startedAt === null ? 0 : (now - startedAt) / 1000;
    put({ startedAt: startedAt ?? now, readings: [...readings, { fps, second, scene, arm }] });
    setText("");
    field.current?.focus();
  };
  const figuresOf = (own: TallyReading[]) =>
    own.length > 0
      ? tallyFigures(
          own.map((reading) => reading.fps),
          targetFps,
        )
      : null;
  const figures = figuresOf(arms ? readings.filter((reading) => reading.arm === arm) : readings);
  const keep = async () => {
    if (keeping || readings.length === 0) return;
    setKeeping(true);
    const runOf = await begin();
    if (!runOf) return setKeeping(false);
    let left = blocksOf(readings);
    let kept: { id: string; number: number } | null = null;
    let later = 0;
    for (let [block] = left; block; [block] = left) {
      const key = crypto.randomUUID();
      const body = { run: runOf(arms ? block.arm : null), readings: block.readings };
      const sent = await call("tallyRun", { body, key });
      if (!sent.ok && sent.refusal.status === 0) {
        const label = `a tally of ${say.count(block.readings.length, "reading")}`;
        sendLater({ key, name: "tallyRun", asking: { body }, label });
        later++;
        left = left.slice(1);
        continue;
      }
      if (!sent.ok) {
        // What was kept is kept; what wasn't stays on the pad.
        setReadings(left.flatMap((block) => block.readings.map((reading) => ({ ...reading, arm: block.arm }))));
        setRefusal(sent.refusal);
        break;
      }
      kept = sent.answer;
      left = left.slice(1);
    }
    setKeeping(false);
    if (left.length > 0) return;
    forget();
    if (later > 0) toast("Kept on this device: it is sent when the application answers.");
    else if (kept) onKept(kept);
  };
  const toNext = pace - (since % pace);
  return (
    <div className="grid gap-4 md:grid-cols-[320px_1fr]">
      <Keys
        actions={[
          { keys: "mod&enter", shown: "Ctrl Enter", label: "keep the tally", run: () => void keep() },
          ...(arms
            ? [{ keys: "s", shown: "S", label: "the other arm", run: () => setArm((arm + 1) % arms.length) }]
            : []),
        ]}
      />
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          add();
        }}
      >
        {arms && (
          <div
            role="group"
            aria-label="Arm that runs now"
            className="flex flex-wrap items-center gap-2 text-[13px]"
          >
            <span className="text-soft">Running now:</span>
            {arms.map((name, index) => (
              <button
                key={name}
                type="button"
                aria-pressed={index === arm}
                onClick={() => {
                  setArm(index);
                  field.current?.focus();
                }}
                className={`min-h-10 rounded-md border px-3 ${index === arm ? "border-lit bg-raised" : "border-line text-soft"}`}
              >
                {name}
              </button>
            ))}
          </div>
        )}
        {scenes.length > 0 && (
          <div className="flex items-center gap-2 text-[13px] text-soft">
            Scene{" "}
            <Choice
              quiet
              label="Scene of the readings"
              value={scene || "none named"}
              options={[
                { value: "none named", label: "none named" },
                ...scenes.map((name) => ({ value: name, label: name })),
              ]}
              onChange={(name) => setScene(name === "none named" ? "" : name)}
            />
          </div>
        )}
        <label className="text-[13px] text-soft" htmlFor="tally">
          Look when it ticks, type the number, press Enter.
        </label>
        <input
          ref={field}
          id="tally"
          inputMode="decimal"
          autoComplete="off"
          autoFocus
          value={text}
          onChange={(event) => setText(event.target.value.replace(/[^\d.,]/g, ""))}
          placeholder="fps"
          className="figure h-24 w-full rounded-(--radius-panel) border border-edge bg-ground text-center text-6xl"
        />
        <div className="grid grid-cols-3 gap-2 md:hidden">
          {["7", "8", "9", "4", "5", "6", "1", "2", "3", ".", "0", "⌫"].map((key) => (
            <button
              key={key}
              type="button"
              className="figure min-h-14 rounded-md bg-raised text-2xl"
              onClick={() => setText(key === "⌫" ? text.slice(0, -1) : text + key)}
            >
              {key}
            </button>
          ))}
        </div>
        <div className="flex gap-2">
          <Button type="submit" look="lit" className="min-h-12 flex-1" disabled={!fits} hint="Enter">
            Add
          </Button>
          <Button
            aria-label="Take the last reading back"
            className="min-h-12"
            disabled={readings.length === 0}
            onClick={() => setReadings(readings.slice(0, -1))}
          >
            <Undo2 size={16} aria-hidden />
          </Button>
        </div>
        <div className="flex items-center justify-between text-[13px] text-soft">
          <span>
            A tick every{" "}
            <Choice
              quiet
              label="Seconds between ticks"
              value={String(pace)}
              options={paces.map((seconds) => ({ value: String(seconds), label: `${seconds} s` }))}
              onChange={(value) => setPace(Number(value))}
            />
          </span>
          {startedAt !== null && <span className="figure">next in {toNext.toFixed(0)} s</span>}
        </div>
      </form>
      <div>
        {figures ? (
          <>
            <p className="figure text-4xl">
              {say.number(figures.mean)}
              <span className="ml-2 text-lg text-soft">fps, by eye{arms && `, ${arms[arm]}`}</span>
            </p>
            <p className="mt-1 text-soft">
              {figures.interval
                ? `95 % between ${say.number(figures.interval.low)} and ${say.number(figures.interval.high)} fps`
                : "One reading says nothing of the spread yet"}
              ; {say.number(figures.min)} to {say.number(figures.max)}; {say.count(figures.readings, "reading")}
              , worth {say.number(figures.effective)} independent; at target{" "}
              {say.number(100 * figures.atTarget.share, 0)} % of looks (
              {say.number(100 * figures.atTarget.low, 0)} to {say.number(100 * figures.atTarget.high, 0)} %).
            </p>
            <ol className="figure mt-3 flex flex-wrap gap-2" aria-label="Readings">
              {readings.map((reading, index) => (
                <li
                  key={index}
                  title={[arms?.[reading.arm], reading.scene].filter(Boolean).join(", ") || undefined}
                  className={`rounded px-2 py-1 ${arms && reading.arm !== arm ? "border border-line" : "bg-raised"}`}
                >
                  {reading.fps}
                  {arms && (
                    <span className="ml-1 text-[10px] text-soft">{String.fromCharCode(65 + reading.arm)}</span>
                  )}
                </li>
              ))}
            </ol>
            {arms && (
              <p className="mt-2 text-[13px] text-soft">
                {arms
                  .map((name, index) => {
                    const own = figuresOf(readings.filter((reading) => reading.arm === index));
                    return own
                      ? `${name}: ${say.number(own.mean)} fps${own.interval ? ` (${say.number(own.interval.low)} to ${say.number(own.interval.high)})` : ""}, ${say.count(own.readings, "reading")}`
                      : `${name}: none yet`;
                  })
                  .join("; ")}
                . Each stretch with one arm is kept as a run.
              </p>
            )}
            {refusal && (
              <p role="alert" className="mt-3 rounded-md border border-caution p-3">
                <b>{refusal.title}</b> {refusal.fix}
              </p>
            )}
            <div className="sticky bottom-0 mt-4 flex flex-wrap items-center gap-3 bg-ground py-2">
              <Button
                look="lit"
                hint="Ctrl Enter"
                className="max-sm:min-h-12 max-sm:flex-1"
                disabled={keeping}
                onClick={() => void keep()}
              >
                Keep this tally
              </Button>
              <Button look="quiet" onClick={forget}>
                Throw these readings away
              </Button>
              {restored && <span className="text-[13px] text-soft">Readings from before are still here.</span>}
            </div>
          </>
        ) : (
          <p className="text-soft">
            Choose the moments before you look, not by what you see: that is what makes the mean honest. Ten
            readings or more give a usable interval.
          </p>
        )}
      </div>
    </div>
  );
}
