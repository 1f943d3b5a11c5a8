import type { CaptureFacts } from "@/core/kit";
import type { Summary } from "@/core/metrics";
import type { Verdict } from "@/core/verdict";
import { said } from "./codes";
import type { Said } from "@/core/said";

/** Why a capture's run has no light. */
export type OpenBecause = "ceiling" | "unsure" | "short" | null;

/** Over this share of unsure pictures a capture can't be trusted. */
const mostUnsure = 0.02;

type Seen = Pick<
  CaptureFacts,
  | "captureFps"
  | "capturedFrames"
  | "unsureFrames"
  | "averageFps"
  | "averageFpsInterval"
  | "ceiling"
  | "counterDisagrees"
  | "counter"
  | "clock"
>;

function openReason(
  { capturedFrames, unsureFrames, ceiling, captureFps }: Seen,
  { grade }: Verdict,
  targetFps: number,
): OpenBecause {
  if (grade === null) return "short";
  if (unsureFrames / Math.max(1, capturedFrames) > mostUnsure) return "unsure";
  return ceiling && captureFps < 0.98 * targetFps ? "ceiling" : null;
}

/** What a person should know beside a verdict that comes from a video. */
function remarksOf(seen: Seen, why: OpenBecause): Said[] {
  const {
    captureFps,
    averageFps,
    averageFpsInterval: [low, high],
    counter,
    counterDisagrees,
    unsureFrames,
    capturedFrames,
    clock,
  } = seen;
  return [
    said("capture.measured", { captureFps, low, high }),
    ...(why === "ceiling" ? [said("capture.ceiling", { averageFps })] : []),
    ...(why === "unsure" ? [said("capture.unsure", { unsure: unsureFrames, of: capturedFrames })] : []),
    ...(counterDisagrees && counter?.averageFps
      ? [said("capture.counter", { shown: counter.averageFps, averageFps })]
      : []),
    ...(clock ? [said("capture.clock", clock)] : []),
  ];
}

/**
 * A run from a video as it can be judged: no figure finer than the capture, and no light where the capture is
 * too slow or too unsure to tell.
 */
export function judgedCapture(
  summary: Summary,
  verdict: Verdict,
  seen: Seen,
  targetFps: number,
): { summary: Summary; verdict: Verdict; openBecause: OpenBecause } {
  const openBecause = openReason(seen, verdict, targetFps);
  const intervalMs = 1000 / seen.captureFps;
  const told = (ms: number | null) => (ms !== null && ms >= 2 * intervalMs ? ms : null);
  const slow = told(summary.p99FrameTimeMs);
  return {
    openBecause,
    summary: {
      ...summary,
      medianFrameTimeMs: told(summary.medianFrameTimeMs),
      p95FrameTimeMs: told(summary.p95FrameTimeMs),
      p99FrameTimeMs: slow,
      lows: slow === null ? null : summary.lows,
    },
    verdict: {
      ...verdict,
      grade: openBecause === null ? verdict.grade : null,
      remarks: [...verdict.remarks, ...remarksOf(seen, openBecause)],
    },
  };
}
