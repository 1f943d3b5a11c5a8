import type { Recommends } from "./shape";
import { said } from "./codes";
import type { Channel, ChannelRole, Trace } from "@/core/trace";
import type { Judged } from "./facts";
import type { Advised } from "./kind";
import { recommended } from "./outcome";

/** The first of some channels that a trace holds readings of. */
export const channelIn = (trace: Trace | undefined, ...roles: ChannelRole[]): Channel | null =>
  roles
    .map((role) => trace?.channels.find((channel) => channel.role === role))
    .find((channel) => channel !== undefined && channel.values.length > 0) ?? null;

/** Points of a curve that a page draws. */
export const drawnPoints = 120;

/** Most sweeps advise what their reading recommends. */
export const adviseReading = (_judged: Judged, reading: Recommends | null): Advised =>
  reading
    ? { ok: true, outcome: recommended(reading.arm, reading.sentence, reading.missing) }
    : { ok: false, missing: [said("missing.runs")] };

export const meanOf = (values: number[]): number | null =>
  values.length > 0 ? values.reduce((sum, value) => sum + value, 0) / values.length : null;
