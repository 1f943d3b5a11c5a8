import { summarise, type Summary } from "@/core/metrics";
import type { FrameTrace } from "@/core/trace";
import { judge, type Verdict } from "@/core/verdict";
import type { Region } from "./cells";
import type { Change } from "./change";
import { tell } from "./classify";
import { picturesFrom, type Pictures, type Stamps } from "./pictures";
import { plausible, type Counter, type RawReading } from "./readings";

/** What a capture is judged by. */
export interface CaptureYardstick {
  nativeFps: number;
  targetFps: number;
  tied: boolean;
}

/** Why a capture's run has no light. */
export type OpenBecause = "ceiling" | "unsure" | "short" | null;

export interface CaptureResult extends Pictures {
  /** How far repeats and new pictures lie apart; null where there is one kind only. */
  separation: number | null;
  counter: Counter | null;
  /** Whether counter and pictures say different rates; null where it can't be told. */
  counterDisagrees: boolean | null;
  /** A counter that was found and left out, where none was named. */
  foundCounter: Region | null;
  stampFaults: number;
  /** Unsure pictures, in ms from the beginning. */
  unsureMs: number[];
  summary: Summary;
  verdict: Verdict;
  openBecause: OpenBecause;
}

/** Over this share of unsure pictures a capture can't be trusted. */
const mostUnsure = 0.02;
/** A counter that is off by this share of the pictures' rate disagrees, %; common practice. */
const tolerance = 3;

/** The pictures' rate over about a second round a moment. */
function rateIn({ startsMs, frameTimes }: Pictures): (ms: number) => number | null {
  return (ms) => {
    let [count, span] = [0, 0];
    for (let k = 0; k < startsMs.length; k++) {
      if (startsMs[k] + frameTimes[k] < ms - 600) continue;
      if (startsMs[k] > ms + 300) break;
      count++;
      span += frameTimes[k];
    }
    return count > 1 && span > 0 ? (1000 * count) / span : null;
  };
}

/** A run from what was seen in a capture: its pictures, its counter where there is one, and what can be said of it. */
export function captureResult(
  changes: readonly Change[],
  stamps: Stamps,
  raw: readonly RawReading[] | null,
  foundCounter: Region | null,
  { nativeFps, targetFps, tied }: CaptureYardstick,
): CaptureResult {
  const told = tell(changes);
  const pictures = picturesFrom(stamps, told);
  const counter = raw && plausible(raw, rateIn(pictures));
  const trace: FrameTrace = { form: "frames", frameTimes: pictures.frameTimes, channels: [], marks: [] };
  const summary = summarise(trace, {
    nativeFps,
    tied,
    targetFps,
    refreshHz: Math.max(10, pictures.captureFps),
  });
  const verdict = judge(summary);
  const unsureShare = pictures.unsureFrames / Math.max(1, pictures.capturedFrames);
  const openBecause: OpenBecause =
    verdict.grade === null
      ? "short"
      : unsureShare > mostUnsure
        ? "unsure"
        : pictures.ceiling && pictures.captureFps < 0.98 * targetFps
          ? "ceiling"
          : null;
  return {
    ...pictures,
    separation: told.separation,
    counter,
    counterDisagrees: disagreement(counter, pictures),
    foundCounter,
    stampFaults: stamps.faults,
    unsureMs: [...told.unsure.keys()].flatMap((k) => (told.unsure[k] ? [1000 * stamps.times[k + 1]] : [])),
    summary,
    verdict: openBecause === null ? verdict : { ...verdict, grade: null },
    openBecause,
  };
}

function disagreement(counter: Counter | null, pictures: Pictures): boolean | null {
  const shown = counter?.averageFps ?? null;
  if (shown === null || pictures.averageFps <= 0 || (counter?.readings.length ?? 0) < 3) return null;
  const [low, high] = pictures.averageFpsInterval;
  // A capture that shows every picture it can says nothing of a counter above it.
  if (pictures.ceiling && shown >= low) return null;
  const slack = (tolerance / 100) * pictures.averageFps;
  return shown < low - slack || shown > high + slack;
}
