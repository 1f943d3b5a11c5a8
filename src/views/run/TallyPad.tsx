"use client";
import type { SentBody } from "@/contract";
import { Undo2 } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import { readTyped, readingKinds, type ReadingKind, type Yardstick } from "@/core/metrics";
import type { HouseRules } from "@/core/verdict";
import { Button, ChoiceField, Keys, say, toast } from "@/ui";
import { sendLater } from "@/views/live";
import { call, type Refusal } from "@/contract/client";
import { blocksOf, nearReadings, type TallyReading } from "./blocks";
import { BesideFields, channelsIn, type TypedChannels } from "./BesideFields";
import { FromMemory, seenOn } from "./FromMemory";
import { TallyTold } from "./TallyTold";
import { kindNames, shownAs, takenFor, typedWords } from "./typedWords";
import { useTallyDraft } from "./useTallyDraft";

const paces = [3, 5, 8, 10];

/** Keys of the page of a new run: outcomes, what was heard, the bench, the other arm. */
const pageKeys = new Set(["w", "f", "k", "a", "h", "b", "s"]);

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
  yardstick,
  rules,
  scenes,
  arms,
  firstArm,
  draft,
  begin,
  onKept,
}: {
  yardstick: Yardstick;
  rules: HouseRules;
  scenes: string[];
  arms: string[] | null;
  firstArm: number;
  /** Whose tally it is: what is typed is kept in the browser under this name. */
  draft: string;
  /** Asked once before it is kept: makes a run of an arm; null where something is still missing. */
  begin: () => Promise<((arm: number | null) => SentBody<"tallyRun">["run"]) | null>;
  onKept: (run: { id: string; number: number }) => void;
}) {
  const [scene, setScene] = useState("");
  const [arm, setArm] = useState(firstArm);
  const { startedAt, readings, restored, put, forget } = useTallyDraft(draft);
  const setReadings = (now: TallyReading[]) => put({ startedAt, readings: now });
  const [text, setText] = useState("");
  const [pace, setPace] = useState(5);
  const [kind, setKind] = useState<ReadingKind>("rate");
  const [beside, setBeside] = useState<TypedChannels>({});
  const [since, setSince] = useState(0);
  const [refusal, setRefusal] = useState<Refusal | null>(null);
  const [keeping, setKeeping] = useState(false);
  const [day, setDay] = useState<string | null>(null);
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

  const typed = readTyped(text, kind, yardstick.nativeFps);
  const fields = channelsIn(beside);
  // What stands in the fields was read with the last of them.
  const told = (typed.ok ? typed.readings : []).map((reading, at, all) =>
    fields && at === all.length - 1 ? { ...reading, channels: { ...fields, ...reading.channels } } : reading,
  );
  const fits = told.length > 0;
  /** Enter alone goes on to the next scene, and from the last to the first. */
  const step = () => setScene(scenes[(scenes.indexOf(scene) + 1) % scenes.length] ?? "");
  const goesOn = text.trim() === "" && scenes.length > 0;
  const add = () => {
    if (goesOn) return step();
    if (fits) take(told);
  };
  const take = (told: Omit<TallyReading, "second" | "scene" | "arm">[]) => {
    const now = Date.now();
    sound.current ??= typeof AudioContext === "undefined" ? null : new AudioContext();
    // Several typed at once were read at the tick's pace.
    const behind = (told.length - 1) * pace;
    const first = startedAt === null ? 0 : (now - startedAt) / 1000;
    put({
      startedAt: (startedAt ?? now) - 1000 * behind,
      readings: [
        ...readings,
        ...told.map((reading, at) => ({ ...reading, second: first + at * pace, scene, arm })),
      ],
    });
    setText("");
    setBeside({});
    field.current?.focus();
  };
  const keep = async () => {
    if (keeping || readings.length === 0 || day === "") return;
    setKeeping(true);
    const runOf = await begin();
    if (!runOf) return setKeeping(false);
    let left = blocksOf(readings);
    let kept: { id: string; number: number } | null = null;
    let later = 0;
    for (let [block] = left; block; [block] = left) {
      const key = crypto.randomUUID();
      const run = runOf(arms ? block.arm : null);
      const body = {
        run: day === null ? run : { ...run, fromMemory: true },
        readings: block.readings,
        ...(day !== null && { madeAt: seenOn(day) }),
      };
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
    <div className="grid gap-4 md:grid-cols-[320px_1fr] md:items-start">
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
            <ChoiceField
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
        <div className="flex items-center gap-2 text-[13px] text-soft">
          A number is{" "}
          <ChoiceField
            quiet
            label="What a number is"
            value={kind}
            options={readingKinds.map((value) => ({ value, label: kindNames[value].label }))}
            onChange={(value) => {
              setKind(value as ReadingKind);
              field.current?.focus();
            }}
          />
        </div>
        <label className="text-[13px] text-soft" htmlFor="tally">
          Look when it ticks, type the number, press Enter. What stands beside it goes into the same line: “24
          gpu 97 cpu 88 15 W 71 C”.
        </label>
        <input
          ref={field}
          id="tally"
          inputMode="decimal"
          autoComplete="off"
          autoFocus
          value={text}
          onKeyDown={(event) => {
            // No reading begins with a letter: in an empty field it is the page's key.
            if (text !== "" || !pageKeys.has(event.key) || event.ctrlKey || event.metaKey || event.altKey)
              return;
            event.preventDefault();
            field.current?.blur();
            const { key, code } = event;
            document.body.dispatchEvent(new KeyboardEvent("keydown", { key, code, bubbles: true }));
          }}
          onChange={(event) => setText(event.target.value)}
          placeholder={kindNames[kind].unit}
          aria-describedby="taken-for"
          className="figure h-24 w-full rounded-(--radius-panel) border border-edge bg-ground text-center text-6xl"
        />
        <p
          id="taken-for"
          role="status"
          className={`min-h-5 text-center text-[13px] ${typed.ok ? "text-soft" : "text-caution"}`}
        >
          {typed.ok ? takenFor(told) : `“${typed.part}” isn't a reading.`}
        </p>
        {kind === "rate" && (
          <div role="group" aria-label="Near the last reading" className="grid grid-cols-5 gap-2 md:hidden">
            {nearReadings(readings.at(-1)?.fps ?? null, yardstick.targetFps).map((fps) => (
              <button
                key={fps}
                type="button"
                className="figure min-h-14 rounded-md border border-edge text-2xl"
                onClick={() => take([{ fps }])}
              >
                {fps}
              </button>
            ))}
          </div>
        )}
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
          {/* An empty field goes on: a button that can't be pressed would keep Enter from it. */}
          <Button type="submit" look="lit" className="min-h-12 flex-1" disabled={!fits && !goesOn} hint="Enter">
            {goesOn ? "Next scene" : "Add"}
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
        <BesideFields beside={beside} onChange={setBeside} />
        <div className="flex items-center justify-between text-[13px] text-soft">
          <span>
            A tick every{" "}
            <ChoiceField
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
        {readings.length > 0 ? (
          <>
            <TallyTold readings={readings} yardstick={yardstick} rules={rules} arms={arms} arm={arm} />
            <ol className="figure mt-3 flex flex-wrap gap-2" aria-label="Readings">
              {readings.map((reading, index) => (
                <li
                  key={index}
                  title={
                    [arms?.[reading.arm], reading.scene, typedWords(reading)].filter(Boolean).join(", ") ||
                    undefined
                  }
                  className={`rounded px-2 py-1 ${arms && reading.arm !== arm ? "border border-line" : "bg-raised"}`}
                >
                  {shownAs(reading)}
                  {arms && (
                    <span className="ml-1 text-[10px] text-soft">{String.fromCharCode(65 + reading.arm)}</span>
                  )}
                </li>
              ))}
            </ol>
            {refusal && (
              <p role="alert" className="mt-3 rounded-md border border-caution p-3">
                <b>{refusal.title}</b> {refusal.fix}
              </p>
            )}
            <div className="mt-3">
              <FromMemory day={day} onDay={setDay} />
            </div>
            <div className="sticky bottom-0 mt-4 flex flex-wrap items-center gap-3 bg-ground py-2">
              <Button
                look="lit"
                hint="Ctrl Enter"
                className="max-sm:min-h-12 max-sm:flex-1"
                disabled={keeping || day === ""}
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
            Choose the moments before you look, not by what you see: that is what makes the average honest.
            Three looks earn a light; a slow title shows at the first.
          </p>
        )}
      </div>
    </div>
  );
}
