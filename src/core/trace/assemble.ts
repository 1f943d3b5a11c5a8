import { said } from "./codes";
import type { Said } from "@/core/said";
import type { Collector } from "./collect";
import {
  channelUnits,
  type Channel,
  type ChannelRole,
  type Column,
  type Mark,
  type ReadOptions,
  type Role,
  type Trace,
} from "./types";
import { conversion, plausibleClockUnit, plausibleFrameTimeUnit } from "./units";

/** More changes of scene than this in one log, and the column isn't a scene. */
const mostMarks = 2000;
/** Readings further apart than this are a counter's, not frames. */
const intervalStepMs = 100;

/** What a log's rows became, or null when no frame or reading is left. */
export interface Assembly {
  trace: Trace;
  columns: Column[];
  notes: Said[];
  needsConfirming: boolean;
}

/** A typical value, of an even sample where there are many: enough to tell a unit by. */
function median(values: Float64Array): number {
  if (values.length === 0) return NaN;
  const step = Math.ceil(values.length / 10_000);
  const sample = Float64Array.from(
    { length: Math.ceil(values.length / step) },
    (_, i) => values[i * step],
  ).sort();
  return sample[sample.length >> 1];
}

/** A clock further from the sum of the frame times than this isn't of the same frames; ours. */
const clockSlack = 0.05;

/**
 * What a log's clock covers beside what its frame times add up to, in s; null where they agree. The clock may stand at
 * a frame's beginning or its end, so that the longest frame is left open.
 */
function clockAgainst(
  clock: Float64Array,
  frameTimes: Float64Array,
): { clockS: number; framesS: number } | null {
  let covered = 0,
    added = 0,
    longest = 0;
  for (let i = 1; i < Math.min(clock.length, frameTimes.length); i++) {
    const step = clock[i] - clock[i - 1];
    if (!(step >= 0)) continue;
    covered += step;
    added += frameTimes[i];
    longest = Math.max(longest, frameTimes[i]);
  }
  return Math.abs(covered - added) > clockSlack * Math.max(covered, added) + 2 * longest
    ? { clockS: covered / 1000, framesS: added / 1000 }
    : null;
}

/** Steps between successive clock readings, leaving out the border between glued logs. */
function stepsOf(times: Float64Array): Float64Array {
  const steps = new Float64Array(Math.max(0, times.length - 1));
  for (let i = 1; i < times.length; i++) steps[i - 1] = times[i] - times[i - 1];
  return steps;
}

/**
 * Keeps the readings at which a channel changes, and its ends: a reading repeated on every frame row is kept
 * once.
 */
function thinned(role: ChannelRole, times: Float64Array, values: Float64Array): Channel | null {
  const at: number[] = [];
  const present: number[] = [];
  for (let i = 0; i < values.length; i++) if (Number.isFinite(values[i])) present.push(i);
  present.forEach((index, k) => {
    const before = present[k - 1],
      after = present[k + 1];
    if (
      before === undefined ||
      after === undefined ||
      values[index] !== values[before] ||
      values[index] !== values[after]
    )
      at.push(index);
  });
  if (at.length === 0) return null;
  return {
    role,
    times: Float64Array.from(at, (index) => times[index]),
    values: Float64Array.from(at, (index) => values[index]),
  };
}

function marksFrom(codes: Float64Array, labels: string[], columnName: string, ends: Float64Array): Mark[] {
  const marks: Mark[] = [];
  for (let i = 0, start = 0; i < codes.length; i++) {
    if (i + 1 < codes.length && codes[i + 1] === codes[i]) continue;
    const label = labels[codes[i]];
    if (label !== "")
      marks.push({
        label: /^-?\d+(\.\d+)?$/.test(label) ? `${columnName} ${label}` : label,
        startMs: start === 0 ? 0 : ends[start - 1],
        endMs: ends[i],
      });
    start = i + 1;
    if (marks.length > mostMarks) return [];
  }
  return marks;
}

/**
 * Turns collected rows into a trace: units settled, the form decided, channels and marks put on the trace's own
 * time.
 *
 * @param collected rows as read
 * @param columns   the columns in force; units may still be null
 */
export function assemble(collected: Collector, columns: Column[], options: ReadOptions): Assembly | null {
  const notes: Said[] = [];
  let needsConfirming = false;
  const settled = columns.map((column) => ({ ...column }));
  const columnOf = (role: Role) => settled.find((column) => column.role === role);

  const borders = collected.restarts.map(({ row }) => row);
  const part =
    options.part === "all" || borders.length === 0
      ? null
      : Math.max(1, Math.min(options.part ?? 1, borders.length + 1));
  const from = part === null || part === 1 ? 0 : borders[part - 2];
  const to = part === null || part > borders.length ? collected.rows : borders[part - 1];
  if (part !== null) notes.push(said("log.part", { part, parts: borders.length + 1 }));

  /** A role's readings in the unit it is kept in. */
  const kept = (role: Role, judge?: (raw: Float64Array) => Column["unit"]): Float64Array | null => {
    const raw = collected.numbers.get(role)?.done().slice(from, to);
    const column = columnOf(role);
    if (!raw || !column) return null;
    if (column.unit === null && judge) {
      column.unit = judge(raw);
      column.unitFrom = "values";
      needsConfirming = true;
      notes.push(said("log.unitJudged", { column: column.name, unit: column.unit }));
    }
    const { factor, offset } = conversion(role, column.unit);
    if (factor !== 1 || offset !== 0) for (let i = 0; i < raw.length; i++) raw[i] = raw[i] * factor + offset;
    return raw;
  };

  const rates = collected.numbers.get("rate")?.done().slice(from, to) ?? null;
  const frameTimes = kept("frameTime", (raw) => plausibleFrameTimeUnit(median(raw)));
  const clock = kept("presentTime", (raw) =>
    plausibleClockUnit(
      median(stepsOf(raw)),
      rates ? median(rates) : frameTimes ? 1000 / median(frameTimes) : null,
    ),
  );
  const clockStep = clock && clock.length > 1 ? median(stepsOf(clock)) : NaN;

  let trace: Trace;
  let rowOffset = 0;
  let ends: Float64Array;
  const isInterval = frameTimes
    ? clockStep >= intervalStepMs && clockStep > 3 * median(frameTimes)
    : rates !== null && (clock === null || clockStep >= intervalStepMs || clock.length < 2);
  if (isInterval) {
    // eslint-disable-next-line @typescript-eslint/no-non-null-assertion -- a log without frame times that is one of readings has rates
    const readings = frameTimes ? frameTimes.map((ms) => 1000 / ms) : rates!;
    const durations = new Float64Array(readings.length).fill(1000);
    if (clock && clock.length > 1) {
      for (let i = 1; i < durations.length; i++) durations[i] = clock[i] - clock[i - 1];
      durations[0] = clockStep;
      // Readings at the same instant cover no time; a joined second log starts afresh.
      for (let i = 0; i < durations.length; i++)
        if (!(durations[i] > 0)) durations[i] = borders.includes(i + from) ? clockStep : 1e-6;
    } else {
      needsConfirming = true;
      notes.push(said("log.noClock"));
    }
    notes.push(said("log.readings"));
    ends = cumulative(durations);
    trace = { form: "interval", durations, rates: Float64Array.from(readings), channels: [], marks: [] };
  } else if (frameTimes) {
    ends = cumulative(frameTimes);
    trace = { form: "frames", frameTimes, channels: [], marks: [] };
    const disagreement = clock && clockAgainst(clock, frameTimes);
    if (disagreement) {
      needsConfirming = true;
      notes.push(said("log.clockDisagrees", disagreement));
    }
  } else if (clock) {
    const steps: number[] = [];
    const rowEnds: number[] = [];
    let total = 0,
      repeats = 0;
    for (let i = 1; i < clock.length; i++) {
      const step = clock[i] - clock[i - 1];
      if (step > 0) steps.push(step);
      else if (!borders.includes(i + from)) repeats++;
      if (step > 0) total += step;
      rowEnds.push(total);
    }
    if (repeats > 0) notes.push(said("log.repeats", { rows: repeats }));
    rowOffset = 1;
    ends = Float64Array.from(rowEnds);
    trace = { form: "frames", frameTimes: Float64Array.from(steps), channels: [], marks: [] };
  } else {
    return null;
  }
  if ((trace.form === "frames" ? trace.frameTimes : trace.rates).length === 0) return null;

  for (const role of Object.keys(channelUnits) as ChannelRole[]) {
    if (role === "rate" && trace.form === "interval") continue;
    const values =
      role === "rate"
        ? rates
        : kept(
            role,
            role === "memory"
              ? (raw) => (median(raw) < 64 ? "GB" : "MB")
              : role.endsWith("Clock")
                ? (raw) => (median(raw) < 10 ? "GHz" : "MHz")
                : undefined,
          );
    const rows = values?.subarray(rowOffset);
    const channel = rows && thinned(role, ends, role === "dropouts" ? sinceStart(rows) : rows);
    if (channel) trace.channels.push(channel);
  }
  const sceneColumn = columnOf("scene");
  if (sceneColumn && collected.sceneCodes.length > 0) {
    trace.marks = marksFrom(
      collected.sceneCodes.done().slice(from + rowOffset, to),
      collected.sceneLabels,
      sceneColumn.name,
      ends,
    );
    if (trace.marks.length === 0 && collected.sceneLabels.length > 1)
      notes.push(said("log.scenesLeftOut", { column: sceneColumn.name }));
  }
  return { trace, columns: settled, notes, needsConfirming };
}

/**
 * Dropouts since the start: a counter that never falls is taken from its first reading on; anything else is how many
 * there were in each row.
 */
function sinceStart(values: Float64Array): Float64Array {
  const present = values.filter(Number.isFinite);
  const isCounter = present.every((value, at) => at === 0 || value >= (present[at - 1] ?? 0));
  let total = 0;
  return values.map((value) => (isCounter ? value - (present[0] ?? 0) : (total += value > 0 ? value : 0)));
}

function cumulative(steps: Float64Array): Float64Array {
  const ends = new Float64Array(steps.length);
  let total = 0;
  for (let i = 0; i < steps.length; i++) ends[i] = total += steps[i];
  return ends;
}
