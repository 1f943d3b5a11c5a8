"use client";
import { Film } from "lucide-react";
import { useCallback, useEffect, useRef, useState } from "react";
import { toast } from "sonner";
import type { CaptureResult, Region } from "@/core/capture";
import type { Yardstick } from "@/core/metrics";
import type { Mark } from "@/core/trace";
import { lightWords, words } from "@/core/words";
import { Button, EmptyPanel, Figure, FileInput, Keys, Panel, say } from "@/ui";
import { VerdictLamp } from "@/views/verdict/VerdictLamp";
import { useDrops } from "@/views/drop";
import { callback, startCaptureReader, type KeepOutcome, type OpenedCapture } from "@/workers";
import { Marks } from "./Marks";
import { Picture } from "./Picture";
import { Regions, type Regional } from "./Regions";
import { Strip } from "./Strip";

type Working = ReturnType<typeof startCaptureReader>;
const videos = "video/*,.mkv,.mov,.mp4,.webm";
const nothing: Regional = { area: null, box: null, masks: [] };

/** A run from a video of the screen: opened, watched and measured on this machine, never sent. */
export function CaptureDesk({
  yardstick,
  begin,
  onKept,
}: {
  yardstick: Yardstick;
  /** What is said of the run. */
  begin: () => object;
  onKept: (run: { id: string }) => void;
}) {
  const [worker, setWorker] = useState<Working | null>(null);
  const [file, setFile] = useState<File | null>(null);
  const [opened, setOpened] = useState<OpenedCapture | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [regional, setRegional] = useState<Regional>(nothing);
  const [moment, setMoment] = useState(0);
  const [bitmap, setBitmap] = useState<ImageBitmap | null>(null);
  const [progress, setProgress] = useState<{ seconds: number; of: number | null } | null>(null);
  const [result, setResult] = useState<CaptureResult | null>(null);
  const [marks, setMarks] = useState<Mark[]>([]);
  const [keeping, setKeeping] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  const start = useCallback(() => {
    const started = startCaptureReader();
    setWorker(() => started);
    return started;
  }, []);
  useEffect(() => {
    const started = start();
    return () => started.end();
  }, [start]);

  const open = async (given: File, by = worker) => {
    if (!by) return;
    const told = await by.call.open(given);
    setResult(null);
    if (!told.ok) {
      setFile(null);
      setOpened(null);
      return setProblem(`${given.name}: ${told.problem}.`);
    }
    setProblem(null);
    setFile(given);
    setOpened(told);
    setMoment(0);
  };
  useDrops((files) => {
    const [first] = files;
    if (first) void open(first);
  });
  useEffect(() => {
    if (!worker || !opened) return;
    let current = true;
    void worker.call.pictureAt(moment).then((made) => current && made && setBitmap(made));
    return () => {
      current = false;
    };
  }, [worker, opened, moment]);

  const measure = async () => {
    if (!worker || !file) return;
    setProblem(null);
    setResult(null);
    setProgress({ seconds: 0, of: opened?.seconds ?? null });
    const { nativeFps, targetFps, tied } = yardstick;
    const told = await worker.call.measure(
      { ...regional, yardstick: { nativeFps, targetFps, tied } },
      callback((seconds: number, of: number | null) => setProgress({ seconds, of })),
    );
    setProgress(null);
    if (told.ok) setResult(told.result);
    else setProblem(`${file.name}: ${told.problem}. Marks and regions are still here.`);
  };
  const cancel = () => {
    worker?.end();
    setProgress(null);
    const again = start();
    if (file) void open(file, again);
  };
  const keep = async () => {
    if (!worker || !result) return;
    setKeeping(true);
    const kept: KeepOutcome = await worker.call.keep(begin(), marks);
    setKeeping(false);
    if (kept.ok) return onKept(kept);
    toast.error(kept.title, { description: kept.fix });
  };
  const lengthMs = 1000 * (opened?.seconds ?? (result ? result.durationMs / 1000 : 0));
  const stepMs = 1000 / (result?.captureFps ?? 60);
  const to = (ms: number) => setMoment(Math.max(0, Math.min(lengthMs || ms, ms)));
  const nextUnsure = () => {
    const next = result?.unsureMs.find((ms) => ms > moment + 1) ?? result?.unsureMs[0];
    if (next !== undefined) to(next);
  };
  const region: Region | null = regional.box ?? result?.foundCounter ?? null;
  if (!file || !opened)
    return (
      <div className="grid gap-3">
        {problem && (
          <p role="alert" className="rounded-md border border-caution p-3 text-[13px] [overflow-wrap:anywhere]">
            {problem} Nothing was kept.
          </p>
        )}
        <EmptyPanel
          title="Drop a video of the screen here."
          action={
            <Button look="lit" disabled={!worker} onClick={() => input.current?.click()}>
              <Film size={16} aria-hidden /> Choose a video
            </Button>
          }
        >
          A screen recording or a capture card&apos;s file: MP4, WebM, MOV or MKV. It is measured on this
          machine and never sent; only its frame times are kept.
        </EmptyPanel>
        <FileInput ref={input} label="Video file" accept={videos} onFile={(given) => void open(given)} />
      </div>
    );
  return (
    <div className="grid gap-4">
      <Keys
        actions={[
          { keys: "m", shown: "M", label: "measure the video", run: () => void measure() },
          { keys: "i", shown: "I", label: "next unsure picture", run: nextUnsure },
          ...(result
            ? [{ keys: "mod&enter", shown: "Ctrl Enter", label: "keep this run", run: () => void keep() }]
            : []),
        ]}
      />
      <FileInput ref={input} label="Video file" accept={videos} onFile={(given) => void open(given)} />
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
      </div>
      {problem && (
        <p role="alert" className="rounded-md border border-caution p-3 text-[13px] [overflow-wrap:anywhere]">
          {problem}
        </p>
      )}
      <Picture
        bitmap={bitmap}
        opened={opened}
        regional={regional}
        found={region}
        onStep={(steps) => to(moment + steps * stepMs)}
        onDrawn={(kind, drawn) =>
          setRegional(
            kind === "mask"
              ? { ...regional, masks: [...regional.masks, drawn] }
              : { ...regional, [kind]: drawn },
          )
        }
      />
      <Strip result={result} moment={moment} lengthMs={lengthMs} onMoment={to} />
      <div className="grid gap-4 sm:grid-cols-2">
        <Regions regional={regional} onChange={setRegional} />
        <Marks marks={marks} moment={moment} onChange={setMarks} />
      </div>
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
            </span>
            <Button onClick={cancel}>Stop</Button>
          </>
        ) : (
          <Button look={result ? "plain" : "lit"} hint="M" onClick={() => void measure()}>
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
            {result.unsureMs.length > 0 && (
              <Button hint="I" onClick={nextUnsure}>
                Look at the next unsure picture
              </Button>
            )}
          </div>
        </Panel>
      )}
    </div>
  );
}

/** What a capture came to, with what it can't say. */
function Measured({ result }: { result: CaptureResult }) {
  const { verdict, counter, averageFpsInterval: interval } = result;
  return (
    <div className="grid gap-3">
      <div className="flex flex-wrap items-center gap-x-8 gap-y-2">
        <VerdictLamp grade={verdict.grade} size={36} ran />
        <p className="figure text-2xl">
          {say.number(result.averageFps, 2)}
          <span className="ml-1.5 text-[13px] text-soft">
            fps ({say.number(interval[0], 2)} to {say.number(interval[1], 2)})
          </span>
        </p>
        <span className="text-[13px] text-soft">{lightWords(verdict.grade).meaning}</span>
      </div>
      {verdict.remarks.map((remark) => (
        <p key={remark.code} className="text-[13px]">
          {words(remark)}
        </p>
      ))}
      {result.cutShort && (
        <p className="text-[13px] text-caution">
          The file can&apos;t be read to its end: what is here was measured up to there.
        </p>
      )}
      {result.stampFaults > 0 && (
        <p className="text-[13px] text-caution">
          {say.count(result.stampFaults, "picture")} without a time of their own left out.
        </p>
      )}
      <dl className="grid grid-cols-4 gap-3 max-sm:grid-cols-2">
        <Figure
          name="Pictures shown"
          value={String(result.frames)}
          note={`of ${result.capturedFrames} captured`}
        />
        <Figure name="Unsure" value={String(result.unsureFrames)} />
        <Figure name="Left out as still" value={say.number(result.stillMs / 1000)} unit="s" />
        <Figure
          name="Counter"
          value={counter?.averageFps == null ? "–" : say.number(counter.averageFps)}
          unit={counter?.averageFps == null ? undefined : "fps"}
          note={
            counter ? `${counter.readings.length} readings, ${counter.dropped.length} dropped` : "none read"
          }
        />
      </dl>
    </div>
  );
}
