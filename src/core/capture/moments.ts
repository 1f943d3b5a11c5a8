import type { Mark } from "@/core/trace";
import { pictureAt, type Pictures } from "./pictures";
import type { RawReading } from "./readings";
import type { UnsurePicture } from "./settled";
import { standing } from "./stills";

/** Why a moment of a video stands out. */
export const momentKinds = ["long", "doubtful", "lost", "marked"] as const;
export type MomentKind = (typeof momentKinds)[number];

/** A moment of a video that stands out. */
export interface CaptureMoment {
  atMs: number;
  kind: MomentKind;
  /** How long the picture stood there, ms. */
  lastsMs: number;
  /** A mark's name; what was read of a counter where it was lost; else empty. */
  label: string;
}

/** Moments of one kind at most: further ones are found from picture to picture. */
const mostOfAKind = 100;

/**
 * What stands out in a measured video, in the order of time: pictures that stood long, those that are doubtful,
 * a counter's readings that were lost, and where marks begin.
 */
export function momentsOf(
  {
    startsMs,
    frameTimes,
    unsure,
    counter,
  }: Pick<Pictures, "startsMs" | "frameTimes"> & {
    unsure: readonly UnsurePicture[];
    counter: { dropped: readonly RawReading[] } | null;
  },
  marks: readonly Mark[],
): CaptureMoment[] {
  const moment = (kind: MomentKind, atMs: number, label = ""): CaptureMoment => {
    const at = pictureAt(startsMs, atMs);
    return { atMs, kind, label, lastsMs: at < 0 ? 0 : frameTimes[at] };
  };
  const some = <Each>(all: readonly Each[]) => all.slice(0, mostOfAKind);
  return [
    ...some(marks).map(({ label, startMs }) => moment("marked", startMs, label)),
    ...some(standing(frameTimes)).map((at) => moment("long", startsMs[at])),
    ...some(unsure).map(({ atMs }) => moment("doubtful", atMs)),
    ...some(counter?.dropped ?? []).map(({ atMs, text }) => moment("lost", atMs, text.trim())),
  ].sort((a, b) => a.atMs - b.atMs);
}
