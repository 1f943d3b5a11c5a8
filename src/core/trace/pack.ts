import { longList, z } from "@/core/schema";
import { leastFrameMs, mostFrameMs, mostRunMs } from "./bounds";
import { channelUnits, type Channel, type ChannelRole, type Mark, type SeenBy, type Trace } from "./types";

/**
 * A trace as bytes, for sending and keeping: a 4-byte little-endian header length, a JSON header,
 * padding to 4 bytes, then little-endian Float32 values: the trace's own (frame times, or pairs of
 * duration and rate), then each channel's pairs of time and value.
 *
 * Float32 keeps a 16.7 ms frame to 1 ns; what is measured is far coarser.
 */
interface PackHeader<Meta> {
  form: Trace["form"];
  length: number;
  channels: { role: ChannelRole; length: number }[];
  marks: Mark[];
  seenBy?: SeenBy;
  meta: Meta;
}

/** Two columns of equal length M as one array of 2M: a0, b0, a1, b1, … */
export function interleave(a: Float64Array, b: Float64Array): Float32Array<ArrayBuffer> {
  const pairs = new Float32Array(a.length * 2);
  for (let i = 0; i < a.length; i++) {
    pairs[2 * i] = a[i];
    pairs[2 * i + 1] = b[i];
  }
  return pairs;
}

/** The inverse of `interleave`. */
export function separate(pairs: Float32Array): [Float64Array, Float64Array] {
  const a = new Float64Array(pairs.length / 2);
  const b = new Float64Array(pairs.length / 2);
  for (let i = 0; i < a.length; i++) {
    a[i] = pairs[2 * i];
    b[i] = pairs[2 * i + 1];
  }
  return [a, b];
}

/** A trace's own values as kept: frame times, or pairs of duration and rate. */
export function valuesOf(trace: Trace): Float32Array<ArrayBuffer> {
  return trace.form === "frames"
    ? Float32Array.from(trace.frameTimes)
    : interleave(trace.durations, trace.rates);
}

/** The trace that `valuesOf` came from, at Float32 precision. */
export function traceFrom(
  form: Trace["form"],
  values: Float32Array,
  channels: Channel[],
  marks: Mark[],
): Trace {
  if (form === "frames") return { form, frameTimes: values, channels, marks };
  const [durations, rates] = separate(values);
  return { form, durations, rates, channels, marks };
}

/** Role of the part that holds the trace itself; every other is a channel's. */
export const traceRole = "trace";

/**
 * A trace as it is kept and sent: the trace's own values, then each channel's, with their marks. Nothing of it
 * is decoded.
 */
export interface KeptTrace {
  form: Trace["form"];
  marks: Mark[];
  seenBy?: SeenBy;
  /** The first is the trace's own; channels are pairs of time and value. */
  parts: { role: typeof traceRole | ChannelRole; values: Float32Array<ArrayBuffer> }[];
}

/** A kept trace without its values: of what it consists, and how many values each part has. */
export interface KeptOutline extends Omit<KeptTrace, "parts"> {
  parts: { role: KeptTrace["parts"][number]["role"]; length: number }[];
}

export const keptOf = (trace: Trace): KeptTrace => ({
  form: trace.form,
  marks: trace.marks,
  ...(trace.form === "frames" && trace.seenBy && { seenBy: trace.seenBy }),
  parts: [
    { role: traceRole, values: valuesOf(trace) },
    ...trace.channels.map(({ role, times, values }) => ({ role, values: interleave(times, values) })),
  ],
});

/** The trace that was kept, to be measured or drawn. */
export function traceOf({ form, marks, seenBy, parts }: KeptTrace): Trace {
  const channels = parts.flatMap(({ role, values }) => {
    if (role === traceRole) return [];
    const [times, readings] = separate(values);
    return [{ role, times, values: readings }];
  });
  const own = parts.find(({ role }) => role === traceRole)?.values ?? new Float32Array();
  const trace = traceFrom(form, own, channels, marks);
  return trace.form === "frames" && seenBy ? { ...trace, seenBy } : trace;
}

export const packTrace = <Meta>(trace: Trace, meta: Meta): Uint8Array<ArrayBuffer> =>
  packKept(keptOf(trace), meta);

/** What stands before a packed trace's values, which follow part by part as 32-bit floats, least byte first. */
export function packHead<Meta>(
  { form, marks, seenBy, parts }: KeptOutline,
  meta: Meta,
): Uint8Array<ArrayBuffer> {
  const [own, ...channels] = parts;
  const header: PackHeader<Meta> = {
    form,
    length: own?.length ?? 0,
    channels: channels.flatMap(({ role, length }) => (role === traceRole ? [] : [{ role, length }])),
    marks,
    ...(seenBy && { seenBy }),
    meta,
  };
  const json = new TextEncoder().encode(JSON.stringify(header));
  const bytes = new Uint8Array(Math.ceil((4 + json.length) / 4) * 4);
  new DataView(bytes.buffer).setUint32(0, json.length, true);
  bytes.set(json, 4);
  return bytes;
}

/** A kept trace as bytes, with what is said of it. */
export function packKept<Meta>({ parts, ...outline }: KeptTrace, meta: Meta): Uint8Array<ArrayBuffer> {
  const head = packHead(
    { ...outline, parts: parts.map(({ role, values }) => ({ role, length: values.length })) },
    meta,
  );
  const bytes = new Uint8Array(head.length + parts.reduce((sum, { values }) => sum + values.byteLength, 0));
  bytes.set(head);
  let at = head.length;
  for (const { values } of parts) {
    bytes.set(new Uint8Array(values.buffer, values.byteOffset, values.byteLength), at);
    at += values.byteLength;
  }
  return bytes;
}

/** A header that is read for its particulars alone isn't longer than this, bytes. */
const mostPeekedBytes = 256 * 1024;

/** What is said of a packed trace, unchecked and without reading the trace; null where that can't be told. */
export function packedMeta(bytes: Uint8Array): unknown {
  if (bytes.length < 8) return null;
  const length = new DataView(bytes.buffer, bytes.byteOffset).getUint32(0, true);
  if (length > Math.min(mostPeekedBytes, bytes.length - 4)) return null;
  try {
    const header: unknown = JSON.parse(new TextDecoder().decode(bytes.subarray(4, 4 + length)));
    return (header as { meta?: unknown } | null)?.meta ?? null;
  } catch {
    return null;
  }
}

const mostHeaderBytes = 4 * 1024 * 1024,
  mostMarks = 10_000,
  mostChannels = 64;

const least = z.number().int().min(0);
const pairs = least.refine((length) => length % 2 === 0, "half a pair");
const channelRoles = Object.keys(channelUnits) as [ChannelRole, ...ChannelRole[]];
const headerSchema = z
  .object({
    form: z.enum(["frames", "interval"]),
    length: least,
    channels: z
      .array(z.object({ role: z.enum(channelRoles, "there is no such channel"), length: pairs }))
      .max(mostChannels, `more than ${mostChannels} channels`)
      .superRefine((channels, context) => {
        const at = channels.findIndex(
          ({ role }, index) => channels.findIndex((each) => each.role === role) < index,
        );
        const twice = channels[at];
        if (twice)
          context.addIssue({
            code: "custom",
            path: [at, "role"],
            message: `the channel ${twice.role} stands there twice`,
          });
      }),
    marks: longList(
      z
        .object({ label: z.string().max(120), startMs: z.number().min(0), endMs: z.number() })
        .refine(({ startMs, endMs }) => endMs >= startMs, "a mark ends before it begins"),
      { most: mostMarks },
    ),
    seenBy: z
      .object({
        captureFps: z.number().positive(),
        averageFpsInterval: z.tuple([z.number().min(0), z.number().min(0)]),
        ceiling: z.boolean(),
      })
      .optional(),
    meta: z.unknown(),
  })
  .refine(({ form, length }) => form === "frames" || length % 2 === 0, {
    path: ["length"],
    message: "half a pair: readings are pairs of duration and rate",
  });

/** What a mark may lie beyond a run's end: clocks and 32 bits differ a little. */
const marksBeyondMs = 1_000,
  marksBeyondShare = 0.01;

/** Milliseconds that a kept trace lasts. */
export function keptMs({ form, parts }: KeptTrace): number {
  const step = form === "frames" ? 1 : 2;
  let sum = 0;
  for (const { role, values } of parts)
    if (role === traceRole) for (let at = 0; at < values.length; at += step) sum += values[at] ?? 0;
  return sum;
}

/** The first mark that ends after the run that it is of, by its index; -1 where none does. */
export function strayMark(marks: readonly Mark[], kept: KeptTrace): number {
  const end = keptMs(kept) * (1 + marksBeyondShare) + marksBeyondMs;
  return marks.findIndex(({ endMs }) => endMs > end);
}

/** Why bytes are no trace, and which field of their header says so; empty where none does. */
export class PackRefusal extends Error {
  constructor(
    why: string,
    readonly field = "",
  ) {
    super(`The trace can't be read: ${why}.`);
  }
}

/** Unpacks, checks and decodes. @throws as `unpackKept` does */
export function unpackTrace(bytes: Uint8Array<ArrayBuffer>): { trace: Trace; meta: unknown } {
  const { kept, meta } = unpackKept(bytes);
  return { trace: traceOf(kept), meta };
}

function headerOf(bytes: Uint8Array): z.output<typeof headerSchema> {
  let json: unknown;
  try {
    json = JSON.parse(new TextDecoder("utf-8", { fatal: true }).decode(bytes));
  } catch {
    throw new PackRefusal("its header is no JSON");
  }
  const read = headerSchema.safeParse(json);
  if (read.success) return read.data;
  const [issue] = read.error.issues;
  const field = issue?.path.join(".") ?? "";
  throw new PackRefusal(`its header can't be${field === "" ? "" : `, at ${field}`}: ${issue?.message}`, field);
}

/**
 * Unpacks and checks; values come from outside, so every one is looked at. The values stay where they lie in
 * the bytes if they can.
 * @throws PackRefusal with a message for a person when the bytes are no pack or a value can't be
 */
export function unpackKept(bytes: Uint8Array<ArrayBuffer>): { kept: KeptTrace; meta: unknown } {
  const bad = (why: string, field?: string) => new PackRefusal(why, field);
  if (bytes.length < 8) throw bad("it is too short");
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const jsonLength = view.getUint32(0, true);
  const start = Math.ceil((4 + jsonLength) / 4) * 4;
  if (start > bytes.length) throw bad("its header is cut off");
  if (jsonLength > mostHeaderBytes) throw bad("its header is larger than 4 MB");
  const { form, length, channels: heads, marks, seenBy, meta } = headerOf(bytes.subarray(4, 4 + jsonLength));
  const lengths = [length, ...heads.map((head) => head.length)];
  if (bytes.length !== start + 4 * lengths.reduce((sum, n) => sum + n, 0)) throw bad("it is cut off");
  let at = start;
  const take = (many: number) => {
    const from = bytes.byteOffset + at;
    const isAligned = from % Float32Array.BYTES_PER_ELEMENT === 0;
    const part = isAligned
      ? new Float32Array(bytes.buffer, from, many)
      : new Float32Array(bytes.slice(at, at + 4 * many).buffer);
    at += 4 * many;
    return part;
  };
  const values = take(length);
  if (values.length === 0) throw bad("it holds no frames", "length");
  let lasts = 0;
  values.forEach((value, index) => {
    const zeroAllowed = form === "interval" && index % 2 === 1;
    if (!Number.isFinite(value) || value < 0 || (value === 0 && !zeroAllowed))
      throw bad(`value ${index + 1} is ${value}`, "values");
    const isTime = form === "frames" || index % 2 === 0;
    if (isTime && (value < Math.fround(leastFrameMs) || value > mostFrameMs))
      throw bad(`value ${index + 1} is ${value} ms; one lasts from a microsecond to an hour`, "values");
    if (isTime) lasts += value;
  });
  if (lasts > mostRunMs) throw bad("it lasts longer than a week", "values");
  const channels = heads.map((head) => {
    const part = take(head.length);
    if (!part.every(Number.isFinite))
      throw bad(`channel ${head.role} holds a value that is no number`, head.role);
    return { role: head.role, values: part };
  });
  return {
    kept: { form, marks, ...(seenBy && { seenBy }), parts: [{ role: traceRole, values }, ...channels] },
    meta,
  };
}
