import { useSyncExternalStore } from "react";
import { clockOnScreen, speedByClock, type CaptureResult, type ClockSpeed, type Settled } from "@/core/capture";
import type { Yardstick } from "@/core/metrics";
import type { Mark } from "@/core/trace";
import { callback, startCaptureReader, type KeepOutcome, type OpenedCapture } from "@/workers";
import type { Regional } from "./Regions";

/** All that is known of a video in hand. */
export interface InHand {
  file: File | null;
  opened: OpenedCapture | null;
  problem: string | null;
  regional: Regional;
  /** The moment that is looked at, ms. */
  moment: number;
  /** Seconds measured, of how many, and how long that took. */
  progress: { seconds: number; of: number | null; tookMs: number } | null;
  result: CaptureResult | null;
  marks: Mark[];
  settled: Settled;
  /** What the title's own clock shows, at up to two moments. */
  clock: { atMs: number; text: string }[];
}

const nothing: InHand = {
  file: null,
  opened: null,
  problem: null,
  regional: { area: null, box: null, clock: null, masks: [] },
  moment: 0,
  progress: null,
  result: null,
  marks: [],
  settled: { pictures: new Map(), readings: new Map() },
  clock: [],
};

/**
 * A video in hand, with the worker that reads it. It outlives the screen it was opened on: a measurement goes
 * on, and marks, boxes and what was settled are there on the way back.
 */
export class CaptureSession {
  private state = nothing;
  private readonly listeners = new Set<() => void>();
  private reader = startCaptureReader();

  readonly subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  readonly read = () => this.state;
  readonly put = (change: Partial<InHand>) => {
    this.state = { ...this.state, ...change };
    for (const listener of this.listeners) listener();
  };

  get call() {
    return this.reader.call;
  }

  end(): void {
    this.reader.end();
  }

  /** Opens a video; marks and regions of the one before go with it, unless it is the same again. */
  async open(file: File): Promise<void> {
    const told = await this.call.open(file);
    const before = this.state.file;
    const isSame = before !== null && before.name === file.name && before.size === file.size;
    if (!told.ok)
      return this.put({ ...(isSame ? {} : nothing), problem: `${file.name}: ${told.problem}.`, result: null });
    const { regional, marks, moment } = this.state;
    this.put({ ...nothing, ...(isSame && { regional, marks, moment }), file, opened: told });
  }

  async measure({ nativeFps, targetFps, tied }: Yardstick): Promise<void> {
    const { file, opened, progress } = this.state;
    if (!file || progress) return;
    const { area, box, masks } = this.state.regional;
    this.put({
      problem: null,
      result: null,
      settled: nothing.settled,
      progress: { seconds: 0, of: opened?.seconds ?? null, tookMs: 0 },
    });
    const reader = this.reader,
      begun = performance.now();
    const told = await reader.call.measure(
      { area, box, masks, yardstick: { nativeFps, targetFps, tied } },
      callback((seconds: number, of: number | null) => {
        // What a cancelled one still says is of no interest.
        if (reader === this.reader && this.state.progress)
          this.put({ progress: { seconds, of, tookMs: performance.now() - begun } });
      }),
    );
    if (reader !== this.reader) return;
    this.put(
      told.ok
        ? { progress: null, result: told.result }
        : { progress: null, problem: `${file.name}: ${told.problem}. Marks and regions are still here.` },
    );
  }

  /** Stops measuring; marks and regions stay. */
  async cancel(): Promise<void> {
    this.reader.end();
    this.reader = startCaptureReader();
    this.put({ progress: null });
    if (this.state.file) await this.call.open(this.state.file);
  }

  async settle(change: Partial<Settled>): Promise<void> {
    const settled = { ...this.state.settled, ...change };
    const told = await this.call.settle(settled);
    this.put(told.ok ? { settled, result: told.result } : { problem: `${told.problem}.` });
  }

  /** Speed by the clock, once it was read at two moments; null before, and why where it can't be told. */
  clockSpeed(): { speed: ClockSpeed | null; why: string | null } {
    const [one, other] = this.state.clock.map(({ atMs, text }) => {
      const read = clockOnScreen(text);
      return read && { atMs, ...read };
    });
    if (!one || !other) return { speed: null, why: null };
    try {
      return { speed: speedByClock(one, other, this.state.result?.captureFps ?? 60), why: null };
    } catch (error) {
      return { speed: null, why: (error as Error).message };
    }
  }

  keep(run: object): Promise<KeepOutcome & { stills?: boolean }> {
    return this.call.keep(run, this.state.marks, this.clockSpeed().speed);
  }
}

/** Videos in hand by what they are for; the oldest is put away when there are more. */
const sessions = new Map<string, CaptureSession>();
const mostSessions = 3;

/** What the first of two videos beside each other is for. */
export const firstOfTwo = "First video";

export function sessionFor(place: string): CaptureSession {
  const held = sessions.get(place) ?? new CaptureSession();
  sessions.delete(place);
  sessions.set(place, held);
  for (const [other, session] of sessions) {
    if (sessions.size <= mostSessions) break;
    session.end();
    sessions.delete(other);
  }
  return held;
}

/** Whether a video is in hand for it. */
export const isInHand = (place: string): boolean => (sessions.get(place)?.read().file ?? null) !== null;

/** Opens a video for what it is for, whatever is shown. */
export const takeInHand = (place: string, file: File): void => void sessionFor(place).open(file);

/** Puts a video away: its run was kept. */
export function endCapture(place: string): void {
  sessions.get(place)?.end();
  sessions.delete(place);
}

export const useInHand = (session: CaptureSession): InHand =>
  useSyncExternalStore(session.subscribe, session.read, session.read);
