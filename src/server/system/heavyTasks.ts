import { understand, type TrialFacts, type Understood } from "@/core/trial";
import { heldWithOrigins, profileFile, type ToldWithOrigin } from "@/core/profile";
import { PackRefusal, traceCsv, traceOf, unpackKept, type KeptTrace } from "@/core/trace";
import { endpointNamed, openApi, type EndpointName } from "@/contract";
import { badTextIn, issueOf, readJson, type BadText } from "@/server/request/badText";
import { measured } from "@/server/runs/measured";

/** What is wrong with a body, at most so much of it. */
const mostIssues = 100;

/** A file as it is laid out for reading, UTF-8. */
const written = (file: object) => new TextEncoder().encode(`${JSON.stringify(file, null, 2)}\n`);

/** What takes long and asks nothing of the store: done on a thread of its own where there is one. */
export const tasks = {
  /** A packed trace, held against its bounds, or why it is none. */
  unpack: (bytes: Uint8Array<ArrayBuffer>) => {
    try {
      const unpacked = unpackKept(bytes);
      const text = badTextIn(unpacked.meta);
      return text === null ? unpacked : { refusal: text.message, field: text.field };
    } catch (error) {
      if (error instanceof PackRefusal) return { refusal: error.message, field: error.field };
      throw error;
    }
  },
  /** A kept trace's figures and verdict. */
  measure: (kept: KeptTrace, run: Parameters<typeof measured>[1]) => measured(traceOf(kept), run),
  /** What a trial comes to. */
  understand: (facts: TrialFacts, kept: ReadonlyMap<string, KeptTrace>): Understood =>
    understand(facts, new Map([...kept].map(([id, each]) => [id, traceOf(each)]))),
  /** A run as a log that can be read again, UTF-8. */
  csvFile: (kept: KeptTrace) => new TextEncoder().encode(traceCsv(traceOf(kept))),
  /** A job as a file with its runs' traces, in the order of its runs, UTF-8. */
  jobFile: (file: { runs: object[] }, traces: (KeptTrace | null)[]) => {
    const runs = file.runs.map((run, at) => {
      const kept = traces[at];
      return { ...run, trace: kept ? traceCsv(traceOf(kept)) : null };
    });
    return written({ ...file, runs });
  },
  /** A profile as a file, UTF-8. @param told what stands in it, as the store tells it (JSON) */
  profileFile: (of: { rig: string; engine: string }, told: string, names: ReadonlyMap<string, string>) =>
    written(profileFile(of, heldWithOrigins(JSON.parse(told) as ToldWithOrigin[]), names)),
  /** The endpoints described, UTF-8. */
  apiDescription: () => written(openApi()),
  /** A body that holds much, by its endpoint's schema; null where it is no JSON. */
  readBody: (bytes: Uint8Array, endpoint: EndpointName) => {
    let sent: unknown;
    let text: BadText | null;
    try {
      ({ value: sent, text } = readJson(bytes));
    } catch {
      return null;
    }
    if (text) return { ok: false as const, issues: [issueOf(text)] };
    const read = endpointNamed(endpoint).body?.safeParse(sent);
    return read?.success === false
      ? { ok: false as const, issues: read.error.issues.slice(0, mostIssues) }
      : { ok: true as const, body: read ? read.data : sent };
  },
};
export type Tasks = typeof tasks;

/** Memory that a kept trace lies in. */
export const buffersOf = ({ parts }: KeptTrace): ArrayBuffer[] => [
  ...new Set(parts.map(({ values }) => values.buffer)),
];

/** Memory that an answer hands over instead of copying it. */
export const handedOver = (answer: unknown): ArrayBuffer[] => {
  if (answer instanceof Uint8Array) return [answer.buffer as ArrayBuffer];
  const kept = (answer as { kept?: KeptTrace } | null)?.kept;
  return kept ? buffersOf(kept) : [];
};
