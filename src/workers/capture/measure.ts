import {
  ALL_FORMATS,
  EncodedPacketSink,
  Input,
  VideoSampleSink,
  type InputVideoTrack,
  type Source,
  type VideoSample,
} from "mediabunny";
import {
  ChangeMeter,
  NothingMoves,
  captureResult,
  cellCount,
  cellsIn,
  cellsOf,
  counterDigits,
  regionOfTiles,
  type CaptureResult,
  type CaptureYardstick,
  type Observed,
  type LumaPlane,
  type RawReading,
  type Region,
} from "@/core/capture";
import { DigitWindow, digitsLike, drawnDigits, inks, mostLooks, type DigitPicture, type Ink } from "./digits";

export interface CaptureOptions {
  /** The part that is watched; null for all of it. */
  area: Region | null;
  masks: Region[];
  /** Where a counter stands; null where none is read. */
  box: Region | null;
  yardstick: CaptureYardstick;
}

/** Why a file can't be measured, as one sentence. */
export class CaptureProblem extends Error {}

/**
 * Why a file's bytes or pictures don't come, in words where the browser's own don't help (File API:
 * NotFoundError, NotReadableError).
 */
export const readingFault = (error: unknown): string =>
  error instanceof DOMException && /^Not(Found|Readable)Error$/.test(error.name)
    ? "the file is gone, or has changed since it was opened"
    : (error as Error).message;

/** Reads one line of digits off a picture. */
export type ReadDigits = (picture: OffscreenCanvas) => Promise<{ text: string; confidence: number }>;

/** A counter is read so often, s. */
const readingSeconds = 0.5;
/** A codec's name as people know it. */
const codecNames: Record<string, string> = { avc: "H.264", hevc: "H.265", vp8: "VP8", vp9: "VP9", av1: "AV1" };

/** The pictures of a file. @throws CaptureProblem for one that has none, or none that can be decoded here */
export async function trackIn(input: Input): Promise<InputVideoTrack> {
  if (!(await input.canRead())) throw new CaptureProblem("this is no video in MP4, WebM, MOV or MKV");
  const track = await input.getPrimaryVideoTrack();
  if (!track) throw new CaptureProblem("there is no picture in it, only sound or nothing at all");
  const codec = await track.getCodec();
  if (!(await track.canDecode()))
    throw new CaptureProblem(
      codec
        ? `its pictures are ${codecNames[codec] ?? codec}, which can't be decoded here: convert it to H.264 in MP4, or to VP9 in WebM`
        : "its pictures are encrypted, or of a codec that isn't known here: record it unprotected, or convert it to H.264 in MP4 or VP9 in WebM",
    );
  return track;
}

/** The brightness of a picture as its decoder holds it; the buffer is used again. */
async function lumaOf(sample: VideoSample, held: { bytes: Uint8Array<ArrayBuffer> }): Promise<LumaPlane> {
  const { width, height } = sample.visibleRect;
  const { format } = sample;
  if (format !== null && /^(I4|NV)/.test(format)) {
    const size = sample.allocationSize();
    if (held.bytes.length < size) held.bytes = new Uint8Array(size);
    const [plane] = await sample.copyTo(held.bytes);
    const { offset = 0, stride = width } = plane ?? {};
    if (!/P1[02]/.test(format)) return { bytes: held.bytes, offset, stride, width, height };
    // Ten or twelve bits a sample: the upper eight are enough.
    const shift = format.includes("P12") ? 4 : 2;
    const narrow = new Uint8Array(width * height);
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        const at = offset + y * stride + 2 * x;
        narrow[y * width + x] = ((held.bytes[at] ?? 0) | ((held.bytes[at + 1] ?? 0) << 8)) >> shift;
      }
    return { bytes: narrow, offset: 0, stride: width, width, height };
  }
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext("2d", { willReadFrequently: true });
  if (!context) throw new CaptureProblem("this browser gives no canvas to read pictures from");
  const frame = sample.toVideoFrame();
  context.drawImage(frame, 0, 0, width, height);
  frame.close();
  const { data } = context.getImageData(0, 0, width, height);
  const luma = new Uint8Array(width * height);
  // ITU-R BT.601 weights.
  for (let k = 0; k < luma.length; k++)
    luma[k] = 0.299 * (data[4 * k] ?? 0) + 0.587 * (data[4 * k + 1] ?? 0) + 0.114 * (data[4 * k + 2] ?? 0);
  return { bytes: luma, offset: 0, stride: width, width, height };
}

/**
 * Moments of pictures that were coded by themselves, in tenths of a millisecond; read from the file's index,
 * without the pictures.
 */
async function keyPictures(track: InputVideoTrack): Promise<Set<number>> {
  const moments = new Set<number>();
  const sink = new EncodedPacketSink(track);
  let packet = await sink.getFirstKeyPacket({ metadataOnly: true });
  while (packet) {
    moments.add(Math.round(1e4 * packet.timestamp));
    packet = await sink.getNextKeyPacket(packet, { metadataOnly: true });
  }
  return moments;
}

/** A region of the picture as it is shown, in the pixels that it is coded in. */
function coded({ x, y, w, h }: Region, sample: VideoSample): Region {
  const { width, height } = sample.visibleRect;
  const turned = sample.rotation === 90 || sample.rotation === 270;
  const [shownWidth, shownHeight] = [sample.displayWidth, sample.displayHeight];
  const [sx, sy] = turned
    ? [height / shownWidth, width / shownHeight]
    : [width / shownWidth, height / shownHeight];
  const [left, top, wide, high] = [x * sx, y * sy, w * sx, h * sy];
  const back: Record<number, [number, number, number, number]> = {
    0: [left, top, wide, high],
    90: [top, height - left - wide, high, wide],
    180: [width - left - wide, height - top - high, wide, high],
    270: [width - top - high, left, high, wide],
  };
  const [a, b, c, d] = (back[sample.rotation] ?? [left, top, wide, high]).map(Math.round);
  const clampedX = Math.max(0, Math.min(width - 1, a ?? 0)),
    clampedY = Math.max(0, Math.min(height - 1, b ?? 0));
  return {
    x: clampedX,
    y: clampedY,
    w: Math.max(1, Math.min(width - clampedX, c ?? 1)),
    h: Math.max(1, Math.min(height - clampedY, d ?? 1)),
  };
}

function refuseOutside(regions: readonly (Region | null)[], sample: VideoSample): void {
  for (const region of regions)
    if (
      region &&
      (region.x >= sample.displayWidth || region.y >= sample.displayHeight || region.w < 1 || region.h < 1)
    )
      throw new CaptureProblem(
        `a region at ${region.x},${region.y} lies outside the picture, which has ${sample.displayWidth} × ${sample.displayHeight} pixels`,
      );
}

/** What can be told of a capture while it is measured. */
export interface CaptureProgress {
  seconds: number;
  of: number | null;
}

/**
 * Measures a capture: its pictures one by one, and its counter twice a second. The file is read as a stream and
 * never held whole.
 * @param read reads digits; asked only where a box is named
 * @throws CaptureProblem in one sentence for a file that can't be measured
 */
export async function measureCapture(
  source: Source,
  { area, masks, box, yardstick }: CaptureOptions,
  read: ReadDigits | null,
  tell: (progress: CaptureProgress) => void = () => {},
  signal?: AbortSignal,
): Promise<{ observed: Observed; result: CaptureResult }> {
  const input = new Input({ formats: ALL_FORMATS, source });
  try {
    const track = await trackIn(input);
    const of = await input.getDurationFromMetadata().catch(() => null);
    const sink = new VideoSampleSink(track);
    const keys = await keyPictures(track);
    const held = { bytes: new Uint8Array(0) };
    const cells = new Float32Array(cellCount);
    const times: number[] = [];
    /** Of every half second its two halves. */
    const looks: Look[][] = [];
    const window = box && new DigitWindow(box);
    let half = -1,
      looked = 0,
      lookedAt = -1,
      halfMs = 0;
    const close = () => {
      const picture = window?.take();
      if (picture && half >= 0) (looks[Math.floor(half / 2)] ??= []).push({ atMs: halfMs / looked, picture });
      looked = 0;
      halfMs = 0;
    };
    let meter: ChangeMeter | null = null,
      watched: Region | null = null,
      faults = 0,
      cutShort = false,
      last = 0;
    try {
      for await (const sample of sink.samples()) {
        if (signal?.aborted) {
          sample.close();
          throw new CaptureProblem("stopped");
        }
        const first = times[0] ?? sample.timestamp;
        const at = sample.timestamp - first;
        const before = times.length > 0 ? (times.at(-1) ?? 0) - first : -1;
        // A stamp that stands still or goes back says nothing of when its picture was shown.
        if (!(at > before)) {
          faults++;
          sample.close();
          continue;
        }
        if (!meter) {
          refuseOutside([area, box, ...masks], sample);
          const whole = { x: 0, y: 0, w: sample.visibleRect.width, h: sample.visibleRect.height };
          watched = area ? coded(area, sample) : whole;
          const out = [...masks, ...(box ? [box] : [])].map((region) => coded(region, sample));
          meter = new ChangeMeter(cellsIn(out, watched), box === null);
        }
        times.push(sample.timestamp);
        last = sample.duration;
        cellsOf(await lumaOf(sample, held), watched, cells);
        meter.add(cells, at, keys.has(Math.round(1e4 * sample.timestamp)));
        if (window) {
          const now = Math.floor((2 * at) / readingSeconds);
          if (now !== half) close();
          half = now;
          // Spread over the while: what moves behind the digits has to have moved.
          const step = times.length > 1 ? (readingSeconds / 2 / mostLooks) * 0.999 : 0;
          if (looked < mostLooks && at - lookedAt >= step) {
            lookedAt = at;
            window.add(sample);
            looked++;
            halfMs += 1000 * at;
          }
        }
        sample.close();
        if (times.length % 30 === 0) tell({ seconds: at, of });
      }
    } catch (error) {
      if (error instanceof CaptureProblem) throw error;
      // What came before a fault in the file is measured; nothing at all is a file that can't be.
      if (times.length < 2) throw new CaptureProblem(`its pictures can't be read: ${readingFault(error)}`);
      cutShort = true;
    }
    if (!meter || times.length === 0) throw new CaptureProblem("there isn't one picture in it");
    if (times.length === 1) throw new CaptureProblem("it holds a single picture: nothing moves in it");
    const zero = times[0] ?? 0;
    close();
    const changes = meter.end();
    const raw = box && read ? await readAll(looks.filter(Boolean), read, signal) : null;
    const spans = times.map((time) => time - zero);
    const usual = (spans.at(-1) ?? 0) / (spans.length - 1);
    const lastSeconds = last > 0 && last < 10 * usual ? last : usual;
    const observed: Observed = {
      changes,
      stamps: { times: Float64Array.from(spans), lastSeconds, faults, cutShort, saidSeconds: of },
      raw,
      foundCounter: watched ? regionOfTiles(meter.counterTiles, watched) : null,
      yardstick,
    };
    try {
      return { observed, result: captureResult(observed) };
    } catch (error) {
      if (error instanceof NothingMoves) throw new CaptureProblem(error.message);
      throw error;
    }
  } finally {
    input.dispose();
  }
}

/** A look at the counter's box, with the moment it is of. */
interface Look {
  atMs: number;
  picture: DigitPicture;
}

/**
 * What recognition makes of one look: the best of the ways to see its ink, the one that worked last before the
 * others.
 */
interface Reader {
  read: ReadDigits;
  way: Ink;
  before: { picture: DigitPicture; text: string; confidence: number } | null;
}

/** As sure as this is taken at once; below it two looks have to agree. */
const surely = 93;
/** Heights that digits are drawn at for reading, pixels. */
const heights = [40, 30];

async function readLook({ picture }: Look, reader: Reader): Promise<{ text: string; confidence: number }> {
  if (reader.before && digitsLike(reader.before.picture, picture, reader.way)) return reader.before;
  let best = { text: "", confidence: 0 };
  const seen = new Map<number, number>();
  for (const height of heights)
    for (const way of [reader.way, ...inks.filter((other) => other !== reader.way)]) {
      const told = await reader.read(drawnDigits(picture, way, height));
      const number = counterDigits(told.text);
      if (number === null) continue;
      const agrees = seen.has(number);
      seen.set(number, Math.max(told.confidence, seen.get(number) ?? 0));
      if (told.confidence > best.confidence) best = told;
      if (told.confidence < surely && !(agrees && told.confidence >= 60)) continue;
      reader.way = way;
      const sure = { text: told.text, confidence: Math.max(told.confidence, seen.get(number) ?? 0) };
      reader.before = { picture, ...sure };
      return sure;
    }
  reader.before = null;
  // Looks that don't agree: no surer than the best of them alone, and less where others say otherwise.
  return seen.size > 1 ? { ...best, confidence: best.confidence / seen.size } : best;
}

/**
 * Reads the counter twice a second: the first half of every half second, and the second where the first can't
 * be read.
 */
async function readAll(looks: Look[][], read: ReadDigits, signal?: AbortSignal): Promise<RawReading[]> {
  const made: RawReading[] = [];
  const reader: Reader = { read, way: "bright", before: null };
  for (const [first, second] of looks) {
    if (signal?.aborted) throw new CaptureProblem("stopped");
    if (!first) continue;
    const told = await readLook(first, reader);
    if (told.confidence >= surely || !second) {
      made.push({ atMs: first.atMs, ...told });
      continue;
    }
    const other = await readLook(second, reader);
    made.push(
      other.confidence > told.confidence ? { atMs: second.atMs, ...other } : { atMs: first.atMs, ...told },
    );
  }
  return made;
}
