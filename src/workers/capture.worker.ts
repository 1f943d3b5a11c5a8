import { sha256 } from "@noble/hashes/sha2.js";
import { bytesToHex } from "@noble/hashes/utils.js";
import { expose, transfer } from "comlink";
import { ALL_FORMATS, BlobSource, Input, VideoSampleSink } from "mediabunny";
import {
  captureResult,
  clockOnScreen,
  keptTrace,
  runTime,
  stillMoments,
  stillPixels,
  type CaptureResult,
  type ClockSpeed,
  type Observed,
  type Region,
  type Settled,
} from "@/core/capture";
import type { Mark } from "@/core/trace";
import { DigitWindow, drawnDigits, inks } from "./capture/digits";
import { CaptureProblem, measureCapture, readingFault, trackIn, type CaptureOptions } from "./capture/measure";
import { startRecogniser } from "./capture/recognise";
import { keepTrace } from "./keepTrace";
import type { KeepOutcome } from "./keepTrace";

/** A video as it was opened. */
export interface OpenedCapture {
  width: number;
  height: number;
  codec: string;
  /** As the file says; null where it doesn't. */
  seconds: number | null;
}
export type CaptureOutcome<Made> = ({ ok: true } & Made) | { ok: false; problem: string };

/** Text recognition as the application serves it. */
const ocr = { worker: "/ocr/worker.js", core: "/ocr/core", language: "/ocr/language" };

let file: File | null = null;
let input: Input | null = null;
let sink: VideoSampleSink | null = null;
let zero = 0;
let result: CaptureResult | null = null;
let observed: Observed | null = null;
let hash: string | null = null;

async function saying<Made extends object>(work: () => Promise<Made>): Promise<CaptureOutcome<Made>> {
  try {
    return { ok: true, ...(await work()) };
  } catch (error) {
    if (error instanceof CaptureProblem) return { ok: false, problem: error.message };
    return { ok: false, problem: `it can't be read any more: ${readingFault(error)}` };
  }
}

/** As sure as this a clock's digits are taken; else they are asked for. */
const clockConfidence = 60;

/** The captured picture that is shown at a moment; null where there is none. */
const sampleAt = async (ms: number) =>
  (await sink?.getSample(zero + ms / 1000 + 1e-6).catch(() => null)) ?? null;

/** Red, green and blue of every pixel as base64. */
function pixelsOf({ data }: ImageData): string {
  let text = "";
  for (let k = 0; k < data.length; k += 4)
    text += String.fromCharCode(data[k] ?? 0, data[k + 1] ?? 0, data[k + 2] ?? 0);
  return btoa(text);
}

/** Sends a run's stills. @returns whether all there are were kept */
async function keepStills(runId: string, measured: CaptureResult, marks: Mark[]): Promise<boolean> {
  const stills: object[] = [];
  const own = runTime(measured);
  for (const moment of stillMoments(measured, marks)) {
    const sample = await sampleAt(moment.atMs);
    if (!sample) continue;
    const { displayWidth, displayHeight } = sample;
    const scale = Math.min(1, stillPixels / Math.max(displayWidth, displayHeight));
    const [width, height] = [displayWidth, displayHeight].map((side) => Math.max(1, Math.round(side * scale)));
    const canvas = new OffscreenCanvas(width ?? 1, height ?? 1);
    const context = canvas.getContext("2d", { willReadFrequently: true });
    if (context) {
      sample.draw(context, 0, 0, canvas.width, canvas.height);
      const pixels = pixelsOf(context.getImageData(0, 0, canvas.width, canvas.height));
      stills.push({ ...moment, atMs: own(moment.atMs), width: canvas.width, height: canvas.height, pixels });
    }
    sample.close();
  }
  if (stills.length === 0) return true;
  const response = await fetch(`/api/v1/runs/${runId}/stills`, {
    method: "POST",
    headers: { "content-type": "application/json", "idempotency-key": crypto.randomUUID() },
    body: JSON.stringify({ stills }),
  });
  return response.ok;
}

/** SHA-256 of a file, read piece by piece. */
async function hashOf(of: File): Promise<string> {
  const made = sha256.create();
  const reader = of.stream().getReader();
  for (;;) {
    const { value, done } = await reader.read();
    if (done) return bytesToHex(made.digest());
    made.update(value);
  }
}

const api = {
  open: (given: File): Promise<CaptureOutcome<OpenedCapture>> =>
    saying(async () => {
      if (given.size === 0) throw new CaptureProblem("the file is empty");
      input?.dispose();
      [file, result, observed, hash] = [given, null, null, null];
      input = new Input({ formats: ALL_FORMATS, source: new BlobSource(given) });
      const track = await trackIn(input);
      sink = new VideoSampleSink(track);
      zero = await track.getFirstTimestamp();
      return {
        width: await track.getDisplayWidth(),
        height: await track.getDisplayHeight(),
        codec: (await track.getCodec()) ?? "",
        seconds: await input.getDurationFromMetadata().catch(() => null),
      };
    }),

  /** The picture that is shown at a moment; null where there is none. */
  async pictureAt(ms: number): Promise<ImageBitmap | null> {
    const sample = await sampleAt(ms);
    if (!sample) return null;
    const canvas = new OffscreenCanvas(sample.displayWidth, sample.displayHeight);
    const context = canvas.getContext("2d");
    if (context) sample.draw(context, 0, 0);
    sample.close();
    const bitmap = canvas.transferToImageBitmap();
    return transfer(bitmap, [bitmap]);
  },

  /** Measures the video that was opened, telling how far it is; cancelled by ending the worker. */
  measure: (
    options: CaptureOptions,
    onProgress: (seconds: number, of: number | null) => void,
  ): Promise<CaptureOutcome<{ result: CaptureResult }>> =>
    saying(async () => {
      if (!file) throw new CaptureProblem("no video was opened");
      const recogniser = options.box ? await startRecogniser(ocr) : null;
      try {
        const measured = await measureCapture(
          new BlobSource(file),
          options,
          recogniser?.read ?? null,
          ({ seconds, of }) => onProgress(seconds, of),
        );
        ({ observed, result } = measured);
        return { result };
      } finally {
        await recogniser?.end();
      }
    }),

  /** Makes the figures anew with what a person saw put in. */
  settle: (settled: Settled): Promise<CaptureOutcome<{ result: CaptureResult }>> =>
    saying(async () => {
      if (!observed) throw new CaptureProblem("no video has been measured");
      result = captureResult(observed, settled);
      return { result };
    }),

  /** What a clock in the picture shows at a moment; null where it can't be read. */
  readClock: (ms: number, box: Region): Promise<CaptureOutcome<{ text: string | null }>> =>
    saying(async () => {
      const sample = await sampleAt(ms);
      if (!sample) return { text: null };
      const window = new DigitWindow(box);
      window.add(sample);
      sample.close();
      const picture = window.take();
      if (!picture) return { text: null };
      const recogniser = await startRecogniser(ocr);
      try {
        for (const way of inks) {
          const { text, confidence } = await recogniser.read(drawnDigits(picture, way, 40));
          if (clockOnScreen(text) && confidence >= clockConfidence) return { text };
        }
        return { text: null };
      } finally {
        await recogniser.end();
      }
    }),

  /** Sends what was measured to be kept; the video stays where it is. */
  async keep(
    run: object,
    marks: Mark[],
    clock: ClockSpeed | null,
  ): Promise<KeepOutcome & { stills?: boolean }> {
    if (!result || !file) return { ok: false, title: "No video has been measured.", fix: "Measure it first." };
    const { captureFps, capturedFrames, unsureFrames, lostFrames } = result;
    const { averageFps, averageFpsInterval, ceiling, stillMs, counter, counterDisagrees } = result;
    const trace = keptTrace(result, marks);
    const lost = {
      title: "The application doesn't answer, or the video has gone.",
      fix: "What was measured is still here: try again.",
    };
    try {
      hash ??= await hashOf(file);
    } catch {
      return { ok: false, ...lost };
    }
    const capture = {
      captureFps,
      capturedFrames,
      unsureFrames,
      lostFrames,
      averageFps,
      averageFpsInterval,
      ceiling,
      stillMs,
      counter: counter && {
        averageFps: counter.averageFps,
        readings: counter.readings.length,
        dropped: counter.dropped.length,
      },
      counterDisagrees,
      clock,
      fileBytes: file.size,
    };
    const kept = await keepTrace(
      trace,
      { ...run, fileName: file.name.slice(0, 255), fileHash: hash, capture },
      lost,
    );
    // The run is kept, whatever becomes of its pictures.
    return kept.ok ? { ...kept, stills: await keepStills(kept.id, result, marks).catch(() => false) } : kept;
  },
};

export type CaptureReader = typeof api;
expose(api);
