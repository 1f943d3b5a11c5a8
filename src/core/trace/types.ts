import type { Said } from "@/core/said";

/** What a column of a log can be. `ignore` is a choice too: it is kept out on purpose. */
export const roles = [
  "frameTime",
  "presentTime",
  "rate",
  "speed",
  "cpu",
  "cpuBusiest",
  "gpu",
  "cpuClock",
  "gpuClock",
  "watts",
  "temperature",
  "gpuTemperature",
  "memory",
  "videoMemory",
  "battery",
  "dropouts",
  "scene",
  "pass",
  "ignore",
] as const;
export type Role = (typeof roles)[number];

/** Roles that become a telemetry channel, with the unit every channel of that role is kept in. */
export const channelUnits = {
  rate: "fps",
  speed: "%",
  cpu: "%",
  cpuBusiest: "%",
  gpu: "%",
  cpuClock: "MHz",
  gpuClock: "MHz",
  watts: "W",
  temperature: "°C",
  gpuTemperature: "°C",
  memory: "MB",
  videoMemory: "MB",
  battery: "%",
  dropouts: "since the start",
} as const satisfies Partial<Record<Role, string>>;
export type ChannelRole = keyof typeof channelUnits;
/** Every role of a channel. */
export const channelRoles = Object.keys(channelUnits) as [ChannelRole, ...ChannelRole[]];

/** Readings of one quantity at their own instants, both length M; times in ms from the start of the trace. */
export interface Channel {
  role: ChannelRole;
  times: Float64Array;
  values: Float64Array;
}

/** A named stretch: from `startMs` to `endMs`, e.g. a room or a lap of the test route. */
export interface Mark {
  label: string;
  startMs: number;
  endMs: number;
}

/**
 * Figures as they were read, or as they are kept: those are measured where they lie, without a copy twice as
 * large.
 */
export type Floats = Float64Array | Float32Array;

/** One row a frame: frame times in ms, all finite and > 0. */
export interface FrameTrace {
  form: "frames";
  frameTimes: Floats;
  channels: Channel[];
  marks: Mark[];
  /** Of one measured from a video. */
  seenBy?: SeenBy;
}

/** How finely a video saw a run: what it leaves open is no chance, and no repeat takes it away. */
export interface SeenBy {
  /** Pictures captured a second: every time is known to one of their intervals. */
  captureFps: number;
  averageFpsInterval: [low: number, high: number];
  /** Nearly every captured picture was new: more may have been shown. */
  ceiling: boolean;
}

/** A counter read now and then: `rates` in fps (≥ 0), each over the `durations` ms before it. */
export interface IntervalTrace {
  form: "interval";
  durations: Float64Array;
  rates: Float64Array;
  channels: Channel[];
  marks: Mark[];
}

export type Trace = FrameTrace | IntervalTrace;

/** A column as it was understood: what it is, its unit, and whether the header said so or the values did. */
export interface Column {
  name: string;
  role: Role;
  unit: Unit | null;
  unitFrom: "header" | "values" | "user" | "none";
}

export const units = [
  "s",
  "ms",
  "us",
  "ns",
  "fps",
  "%",
  "Hz",
  "kHz",
  "MHz",
  "GHz",
  "W",
  "mW",
  "C",
  "F",
  "B",
  "KB",
  "MB",
  "GB",
  "clock",
] as const;
export type Unit = (typeof units)[number];

/** Why a log can't be read, and what a person can do. Line numbers count from 1. */
export interface LogProblem {
  code:
    | "empty"
    | "headerOnly"
    | "binary"
    | "noTiming"
    | "badTimes"
    | "backwards"
    | "glued"
    | "badMap"
    | "tooLarge"
    | "decimalCommas";
  reason: Said;
  remedy: Said;
  /** First lines at fault, at most 20. */
  lines: number[];
  /** How many rows are at fault in all. */
  count: number;
  /** The columns as far as they were understood, so that a person can correct them. */
  columns: Column[];
  /** The first rows' cells, so that a person can see what stands where. */
  sample: string[][];
}

export interface SkippedRow {
  line: number;
  text: string;
}

/** What was read from a log, and everything that a person should know about how. */
export interface LogReading {
  trace: Trace;
  columns: Column[];
  delimiter: string;
  decimalComma: boolean;
  /** Data rows that made the trace. */
  rows: number;
  /** Rows left out: not numeric, repeated headers, a cut last line. Comment and blank lines don't count. */
  skippedRows: number;
  /** The first 20 of them. */
  skipped: SkippedRow[];
  /** The first rows' cells. */
  sample: string[][];
  notes: Said[];
  /** True when a unit or form was judged from the values alone and a person should confirm it. */
  needsConfirming: boolean;
}

export type LogResult = { ok: true; reading: LogReading } | { ok: false; problem: LogProblem };

/** Corrections a person makes before or after a first reading. */
export interface ReadOptions {
  /** Column name → role and unit; columns not named keep their guess. */
  map?: Record<string, { role: Role; unit?: Unit | null }>;
  /** Leave out rows whose times can't be (negative, zero, not finite, backwards) instead of refusing. */
  leaveOutBad?: boolean;
  /** Which log to read when several were glued into one file, from 1; `all` joins them. */
  part?: number | "all";
}
