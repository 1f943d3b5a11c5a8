"use client";
import { Film } from "lucide-react";
import { useDeferredValue, useEffect, useMemo, useRef, useState } from "react";
import { momentsOf } from "@/core/capture";
import type { Yardstick } from "@/core/metrics";
import { Button, EmptyPanel, FileInput, Keys, Panel, say, toast, Link } from "@/ui";
import { heldFiles, holdFiles, useDrops } from "@/views/drop";
import { ClockPanel } from "./ClockPanel";
import { Failed } from "./Failed";
import { Marks } from "./Marks";
import { Measured } from "./Measured";
import { Moments } from "./Moments";
import { Picture } from "./Picture";
import { Regions } from "./Regions";
import { Timeline } from "./Timeline";
import { Unsure } from "./Unsure";
import { endCapture, firstOfTwo, sessionFor, takeInHand, useInHand } from "./session";

/** What a chooser of videos offers. */
export const videos = "video/*,.mkv,.mov,.mp4,.webm";

const videoKinds = ["video"] as const;

/** A run from a video of the screen: opened, watched and measured on this machine, never sent. */
export function CaptureDesk({
  place,
  yardstick,
  begin,
  onKept,
}: {
  /** What the video is for; it is in hand again when the screen is. */
  place: string;
  yardstick: Yardstick;
  /** What is said of the run; null where that has to be mended first. */
  begin: () => object | null | Promise<object | null>;
  onKept: (run: { id: string }) => void;
}) {
  const [session] = useState(() => sessionFor(place));
  const inHand = useInHand(session);
  const { file, opened, problem, regional, moment, progress, marks } = inHand;
  // What was measured is drawn bit by bit: the page stays free for hands meanwhile.
  const result = useDeferredValue(inHand.result);
  const [bitmap, setBitmap] = useState<ImageBitmap | null>(null);
  const [keeping, setKeeping] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  const [lost, setLost] = useState<string | null>(null);
  const heldAs = `video ${place}`;
  const open = (given: File) => {
    setLost(null);
    void session.open(given).then(() => session.read().opened && holdFiles(heldAs, [given]));
  };
  // A reload ends the session: the video that was in hand comes back, or is named where it was too large to be held.
  useEffect(() => {
    if (session.read().file) return;
    void heldFiles(heldAs).then(({ files: [held], named: [name] }) => {
      if (held && !session.read().file) void session.open(held);
      setLost(name ?? null);
    });
  }, [session, heldAs]);
  useDrops((files) => {
    const [first] = files;
    if (first) open(first);
  }, videoKinds);
  useEffect(() => {
    if (!opened) return;
    let current = true;
    void session.call.pictureAt(moment).then((made) => current && made && setBitmap(made));
    return () => {
      current = false;
    };
  }, [session, opened, moment]);
  // Decoded pictures are large; the one before goes at once.
  useEffect(() => () => bitmap?.close(), [bitmap]);

  const measure = () => void session.measure(yardstick);
  const keep = async () => {
    if (!result) return;
    const run = await begin();
    if (!run) return;
    setKeeping(true);
    const kept = await session.keep(run);
    setKeeping(false);
    if (!kept.ok) return void toast.error(kept.title, { description: kept.fix });
    if (kept.stills === false)
      toast.error("The run is kept; its small pictures aren't.", { description: "Nothing else is missing." });
    endCapture(place);
    await holdFiles(heldAs, []);
    onKept(kept);
  };
  const lengthMs = 1000 * (opened?.seconds ?? (result ? result.durationMs / 1000 : 0));
  const stepMs = 1000 / (result?.captureFps ?? 60);
  const moments = useMemo(() => (result ? momentsOf(result, marks) : []), [result, marks]);
  const to = (ms: number) => session.put({ moment: Math.max(0, Math.min(lengthMs || ms, ms)) });
  const chooser = <FileInput ref={input} label="Video file" accept={videos} onFile={open} />;
  if (!file || !opened)
    return (
      <div className="grid gap-3">
        {problem && (
          <p role="alert" className="rounded-md border border-caution p-3 text-[13px] [overflow-wrap:anywhere]">
            {problem} Nothing was kept.
          </p>
        )}
        {lost !== null && (
          <p className="text-[13px] text-soft [overflow-wrap:anywhere]">
            Chosen before, and too large to be held: {lost}. Choose it again.
          </p>
        )}
        <EmptyPanel
          title="Drop a video of the screen here."
          action={
            <Button look="lit" onClick={() => input.current?.click()}>
              <Film size={16} aria-hidden /> Choose a video
            </Button>
          }
        >
          A screen recording or a capture card&apos;s file: MP4, WebM, MOV or MKV. It is measured on this
          machine and never sent; only its frame times and up to twelve small pictures are kept.
        </EmptyPanel>
        {chooser}
      </div>
    );
  return (
    <div className="grid gap-4">
      <Keys
        actions={[
          { keys: "m", shown: "M", label: "measure the video", run: measure },
          ...(result
            ? [{ keys: "mod&enter", shown: "Ctrl Enter", label: "keep this run", run: () => void keep() }]
            : []),
        ]}
      />
      {chooser}
      <div className="flex flex-wrap items-center gap-3 text-[13px]">
        <b dir="auto" className="[overflow-wrap:anywhere]">
          {file.name}
        </b>
        <span className="text-soft">
          {opened.width} × {opened.height}
          {opened.seconds !== null && `, ${say.number(opened.seconds)} s`}
        </span>
        <Button look="quiet" onClick={() => input.current?.click()}>
          Another video
        </Button>
        <Link
          href="/beside"
          onClick={() => takeInHand(firstOfTwo, file)}
          className="underline decoration-line underline-offset-4 hover:decoration-text"
        >
          beside another
        </Link>
      </div>
      {problem && (
        <p role="alert" className="rounded-md border border-caution p-3 text-[13px] [overflow-wrap:anywhere]">
          {problem}
        </p>
      )}
      <div
        className={
          result ? "grid items-start gap-4 md:grid-cols-[minmax(0,1.5fr)_minmax(15rem,1fr)]" : "grid gap-2"
        }
      >
        <div className="grid min-w-0 grid-cols-[minmax(0,1fr)] gap-2">
          <Picture
            bitmap={bitmap}
            opened={opened}
            regional={regional}
            found={result?.foundCounter ?? null}
            onStep={(steps) => to(moment + steps * stepMs)}
            onDrawn={(kind, drawn) =>
              session.put({
                regional:
                  kind === "mask"
                    ? { ...regional, masks: [...regional.masks, drawn] }
                    : { ...regional, [kind]: drawn },
              })
            }
          />
          <Timeline
            moments={moments}
            marks={marks}
            moment={moment}
            lengthMs={lengthMs}
            stepMs={stepMs}
            onMoment={to}
          />
          <div className="flex flex-wrap items-center gap-3">
            {progress ? (
              <>
                <progress
                  aria-label="Measuring the video"
                  className="h-2 w-56 accent-(--lit)"
                  value={progress.of ? Math.min(1, progress.seconds / progress.of) : undefined}
                />
                <span className="figure text-[13px]">
                  {say.number(progress.seconds)} s{progress.of ? ` of ${say.number(progress.of)} s` : ""}
                  {leftOf(progress)}
                </span>
                <Button onClick={() => void session.cancel()}>Stop</Button>
              </>
            ) : (
              <Button look={result ? "plain" : "lit"} hint="M" onClick={measure}>
                {result ? "Measure again" : "Measure it"}
              </Button>
            )}
          </div>
          {result && (
            <Panel title="Preview">
              <Measured result={result} />
              <div className="mt-3 flex flex-wrap gap-2">
                <Button look="lit" disabled={keeping} hint="Ctrl Enter" onClick={() => void keep()}>
                  Keep this run
                </Button>
                {result.foundCounter && !regional.box && (
                  <Button
                    onClick={() => {
                      session.put({ regional: { ...regional, box: result.foundCounter } });
                      measure();
                    }}
                  >
                    Read what looks like a counter
                  </Button>
                )}
              </div>
            </Panel>
          )}
        </div>
        {result && (
          <Moments session={session} moments={moments} stepMs={stepMs} moment={moment} onMoment={to} />
        )}
      </div>
      {result && <Unsure session={session} result={result} onMoment={to} />}
      {result?.counter && regional.box && (
        <Failed session={session} counter={result.counter} box={regional.box} />
      )}
      <div className="grid gap-4 sm:grid-cols-2">
        <Regions regional={regional} onChange={(changed) => session.put({ regional: changed })} />
        <Marks marks={marks} moment={moment} onChange={(changed) => session.put({ marks: changed })} />
      </div>
      <ClockPanel session={session} inHand={inHand} />
    </div>
  );
}

/** Measured for so long before it is told how long it will take, in ms. */
const knownAfterMs = 4000;

/** What is left of a measurement, at the pace it has had. */
function leftOf({ seconds, of, tookMs }: { seconds: number; of: number | null; tookMs: number }): string {
  if (of === null || seconds <= 0 || seconds >= of || tookMs < knownAfterMs) return "";
  return `, about ${say.lasting((tookMs * (of - seconds)) / seconds)} left`;
}
