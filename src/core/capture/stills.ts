import type { StillMoment } from "./shape";
import type { Mark } from "@/core/trace";
import { pictureAt, type Pictures } from "./pictures";

/** Stills are so few, and so small: longest side, pixels. */
export const mostStills = 12,
  stillPixels = 256;
/** Marks take so many of them at most. */
const mostMarks = 6;
/** A picture that stands so many times as long as the usual one is seen to stand; ours. */
const slowFrom = 2.5;
/** Two slow pictures nearer than this are one moment, ms. */
const apartMs = 1000;

/**
 * The moments of a run that are kept as small pictures: where its marks begin, and where pictures stood
 * longest. In the order of time.
 */
export function stillMoments(
  { startsMs, frameTimes }: Pick<Pictures, "startsMs" | "frameTimes">,
  marks: readonly Mark[],
  most = mostStills,
): StillMoment[] {
  const lasting = (ms: number) => {
    const at = pictureAt(startsMs, ms);
    return at < 0 ? 0 : frameTimes[at];
  };
  const made: StillMoment[] = marks
    .slice(0, Math.min(mostMarks, most))
    .map(({ label, startMs }) => ({ atMs: startMs, why: "mark", label, lastsMs: lasting(startMs) }));
  for (const at of standing(frameTimes)) {
    if (made.length >= most) break;
    const atMs = startsMs[at];
    if (made.every((other) => other.why === "mark" || Math.abs(other.atMs - atMs) >= apartMs))
      made.push({ atMs, why: "slow", label: "", lastsMs: frameTimes[at] });
  }
  return made.sort((a, b) => a.atMs - b.atMs);
}

/** Pictures that are seen to stand, the longest first, by their place. */
export function standing(frameTimes: Pictures["frameTimes"]): number[] {
  const usual = Float64Array.from(frameTimes).sort()[frameTimes.length >> 1] ?? 0;
  return [...frameTimes.keys()]
    .filter((at) => frameTimes[at] > slowFrom * usual)
    .sort((a, b) => frameTimes[b] - frameTimes[a]);
}
