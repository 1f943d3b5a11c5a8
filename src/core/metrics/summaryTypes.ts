import type { ChannelRole, Trace } from "@/core/trace";
import type { Dips } from "./fullSpeed";
import type { Looked } from "./looks";
import type { Pacing } from "./pacing";
import type { Lows } from "./rate";
import type { Segment } from "./segments";
import type { RegularSpikes } from "./spikes";

/** What a run is measured against. */
export interface Yardstick {
  /** The title's own rate, fps. */
  nativeFps: number;
  /** Whether the title's speed is tied to its rate. */
  tied: boolean;
  /** The rate wanted, fps; the native one unless chosen otherwise. */
  targetFps: number;
  /** The display's refresh, Hz. */
  refreshHz: number;
  /** The title's own rate in scenes where it is another, fps, by their names. */
  sceneFps?: Record<string, number>;
}

/** All metrics of one run. Null where the form of the trace can't say. */
export interface Summary {
  /** Of the method that made it. */
  version: number;
  form: Trace["form"];
  /** Frames, or readings of a counter. */
  frames: number;
  durationMs: number;
  averageFps: number;
  /** What readings of a counter leave open of the average, and whether they are whole numbers. */
  looked?: Looked & { whole: boolean };
  /** From the counter: average against native rate; 100 for titles whose speed isn't tied to their rate. */
  speedPercent: number;
  /** From the engine itself, where it was logged. */
  reportedSpeedPercent: number | null;
  counterDisagrees: boolean;
  targetFps: number;
  tied: boolean;
  medianFrameTimeMs: number | null;
  p95FrameTimeMs: number | null;
  p99FrameTimeMs: number | null;
  maxFrameTimeMs: number | null;
  lows: Lows | null;
  fullSpeedTimePercent: number | null;
  dips: Dips | null;
  hitches: { count: number; perMinute: number; lostMsPerMinute: number } | null;
  freezes: number | null;
  /** Spikes that come back by a clock of their own; null where none do, absent from readings. */
  spikes?: RegularSpikes | null;
  pacing: Pacing | null;
  /** Scenes whose first visit was cold, of those visited more than once. */
  coldScenes: { cold: number; revisited: number } | null;
  /** A cap or the display holds it, so that it says nothing of how runs differ. */
  held: boolean;
  /** Mean, least, greatest and last of every channel, and its robust slope once the first tenth is past. */
  channels: Partial<
    Record<ChannelRole, { mean: number; min: number; max: number; last: number; perMinute: number | null }>
  >;
  /** Scene by scene, or in equal parts; of readings what rates and channels tell. */
  segments: Segment[];
  /** Place by place, where more than one is named; absent otherwise. */
  scenes?: SceneFigures[];
}

/** A place of a run by itself: every visit to it together. */
export interface SceneFigures {
  label: string;
  visits: number;
  /** Of its least second, or its least reading, fps. */
  worstFps: number | null;
  figures: Omit<Summary, "segments" | "scenes">;
}
