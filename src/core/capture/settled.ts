import type { Kind, Classified } from "./classify";
import type { RawReading } from "./readings";

/** What a person said of a capture after looking: of unsure pictures, and of readings that failed. */
export interface Settled {
  /** By the place of the picture, the first being 0. */
  pictures: ReadonlyMap<number, Kind>;
  /**
   * By the moment of the reading, ms: what the counter shows there, fps; null for one that is to be dropped.
   */
  readings: ReadonlyMap<number, number | null>;
}

/** An unsure picture: where it stands, what it was taken for, and the one before that it is held against. */
export interface UnsurePicture {
  /** Its place among the captured pictures, the first being 0. */
  place: number;
  atMs: number;
  beforeMs: number;
  takenFor: Kind;
}

/** Pictures as they were told apart, with what a person saw put in; none of those is unsure any more. */
export function settledPictures(told: Classified, pictures: Settled["pictures"]): Classified {
  const kinds = [...told.kinds],
    unsure = told.unsure.slice();
  for (const [place, kind] of pictures) {
    if (place < 1 || place > kinds.length) throw new RangeError(`there is no picture ${place}`);
    kinds[place - 1] = kind;
    unsure[place - 1] = 0;
  }
  return { ...told, kinds, unsure };
}

/** Readings with those put in that a person typed. */
export const settledReadings = (raw: readonly RawReading[], readings: Settled["readings"]): RawReading[] =>
  raw.map((reading) => {
    const typed = readings.get(reading.atMs);
    return typed === undefined
      ? reading
      : { atMs: reading.atMs, text: typed === null ? "" : String(typed), confidence: 100, byHand: true };
  });

/** Unsure pictures in their order. */
export const unsurePictures = (told: Classified, times: Float64Array): UnsurePicture[] =>
  [...told.unsure.keys()].flatMap((at) =>
    told.unsure[at] === 1
      ? [
          {
            place: at + 1,
            atMs: 1000 * (times[at + 1] ?? 0),
            beforeMs: 1000 * (times[at] ?? 0),
            takenFor: told.kinds[at] ?? "repeat",
          },
        ]
      : [],
  );
