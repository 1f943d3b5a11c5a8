import { sha256 } from "@noble/hashes/sha2.js";
import { bytesToHex } from "@noble/hashes/utils.js";
import { expose, transfer } from "comlink";
import { ALL_FORMATS, BlobSource, Input, VideoSampleSink } from "mediabunny";
import type { CaptureResult } from "@/core/capture";
import type { FrameTrace, Mark } from "@/core/trace";
import { CaptureProblem, measureCapture, trackIn, type CaptureOptions } from "./capture/measure";
import { startRecogniser } from "./capture/recognise";
import { keepTrace } from "./keepTrace";
import type { KeepOutcome } from "./logImport.worker";

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
let hash: string | null = null;

async function saying<Made extends object>(work: () => Promise<Made>): Promise<CaptureOutcome<Made>> {
  try {
    return { ok: true, ...(await work()) };
  } catch (error) {
    if (error instanceof CaptureProblem) return { ok: false, problem: error.message };
    return { ok: false, problem: `the file can't be read any more: ${(error as Error).message}` };
  }
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
      input?.dispose();
      [file, result, hash] = [given, null, null];
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
    const sample = await sink?.getSample(zero + ms / 1000 + 1e-6).catch(() => null);
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
        result = await measureCapture(
          new BlobSource(file),
          options,
          recogniser?.read ?? null,
          ({ seconds, of }) => onProgress(seconds, of),
        );
        return { result };
      } finally {
        await recogniser?.end();
      }
    }),

  /** Sends what was measured to be kept; the video stays where it is. */
  async keep(run: object, marks: Mark[]): Promise<KeepOutcome> {
    if (!result || !file) return { ok: false, title: "No video has been measured.", fix: "Measure it first." };
    const { frameTimes, captureFps, capturedFrames, unsureFrames, lostFrames } = result;
    const { averageFps, averageFpsInterval, ceiling, stillMs, counter, counterDisagrees } = result;
    const trace: FrameTrace = { form: "frames", frameTimes, channels: [], marks };
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
      fileBytes: file.size,
    };
    return keepTrace(trace, { ...run, fileName: file.name.slice(0, 255), fileHash: hash, capture }, lost);
  },
};

export type CaptureReader = typeof api;
expose(api);
