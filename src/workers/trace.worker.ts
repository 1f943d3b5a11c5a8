import { expose } from "comlink";
import {
  fullSpeed,
  fullSpeedOfReadings,
  hitches,
  summarise,
  type MeasuringRules,
  type Summary,
  type Yardstick,
} from "@/core/metrics";
import {
  channelColumns,
  durationOf,
  endsOf,
  frameColumns,
  frameSpread,
  mostOfChannels,
  sliceTrace,
  unpackTrace,
  type ChannelRole,
  type FrameSpread,
  type Mark,
  type PixelColumns,
  type Trace,
} from "@/core/trace";

interface Held {
  trace: Trace;
  ends: Float64Array;
  durationMs: number;
}

export interface TraceFacts {
  durationMs: number;
  marks: Mark[];
  channels: ChannelRole[];
  /** Greatest reading of every channel, for a common scale. */
  most: Partial<Record<ChannelRole, number>>;
  dips: { from: number; to: number }[];
  hitches: { at: number; frameMs: number }[];
}

export interface TraceColumns {
  frames: PixelColumns;
  channels: { role: ChannelRole; columns: PixelColumns }[];
}

const mostHitches = 400;
const traces = new Map<string, Promise<Held>>();

function load(runId: string): Promise<Held> {
  const held = traces.get(runId) ?? fetchTrace(runId);
  traces.set(runId, held);
  held.catch(() => traces.delete(runId));
  return held;
}

async function fetchTrace(runId: string): Promise<Held> {
  const response = await fetch(`/api/v1/runs/${runId}/trace`);
  if (!response.ok) throw new Error((await response.json()).title);
  const { trace } = unpackTrace(new Uint8Array(await response.arrayBuffer()));
  return { trace, ends: endsOf(trace), durationMs: durationOf(trace) };
}

const api = {
  async facts(runId: string, yardstick: Yardstick, rules: MeasuringRules): Promise<TraceFacts> {
    const { trace, durationMs } = await load(runId);
    const speed =
      trace.form === "frames"
        ? fullSpeed(trace.frameTimes, yardstick.targetFps, rules)
        : fullSpeedOfReadings(trace.durations, trace.rates, yardstick.targetFps, rules);
    const found = trace.form === "frames" ? hitches(trace.frameTimes, rules) : [];
    return {
      durationMs,
      marks: trace.marks,
      channels: trace.channels.map(({ role }) => role),
      most: mostOfChannels(trace),
      dips: speed.stretches.map(({ startMs, endMs }) => ({ from: startMs, to: endMs })),
      hitches: found
        .sort((a, b) => b.lostMs - a.lostMs)
        .slice(0, mostHitches)
        .map(({ startMs, frameMs }) => ({ at: startMs, frameMs })),
    };
  },

  /** How the frames of some runs are spread, over one range; null of a run without frames. */
  async spreads(runIds: string[]): Promise<(FrameSpread | null)[]> {
    const held = await Promise.all(runIds.map(load));
    const own = held.map(({ trace }) => frameSpread(trace));
    const edges = own.flatMap((spread) =>
      spread ? [spread.histogram[0]?.ms ?? 0, spread.histogram.at(-1)?.ms ?? 0] : [],
    );
    return held.map(({ trace }) => frameSpread(trace, [Math.min(...edges), Math.max(...edges)]));
  },

  async columns(runId: string, fromMs: number, toMs: number, width: number): Promise<TraceColumns> {
    const { trace, ends } = await load(runId);
    return {
      frames: frameColumns(trace, ends, fromMs, toMs, width),
      channels: trace.channels.map((channel) => ({
        role: channel.role,
        columns: channelColumns(channel, fromMs, toMs, width),
      })),
    };
  },

  /** The figures of a selected stretch; null when it holds no frame. */
  async figures(
    runId: string,
    fromMs: number,
    toMs: number,
    yardstick: Yardstick,
    rules: MeasuringRules,
  ): Promise<Summary | null> {
    const { trace } = await load(runId);
    const part = sliceTrace(trace, fromMs, toMs);
    const frames = part.form === "frames" ? part.frameTimes.length : part.rates.length;
    return frames === 0 ? null : summarise(part, yardstick, rules);
  },
};

export type TraceReader = typeof api;
expose(api);
