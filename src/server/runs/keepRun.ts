import type { Body, HandedOut } from "@/contract";
import { baselineOf } from "@/core/job";
import { newRunSchema, type NewRun } from "@/core/kit";
import {
  keptOf,
  leastFrameMs,
  mostFrameMs,
  keptMs,
  strayMark,
  traceRole,
  type KeptTrace,
  type Mark,
  type Trace,
} from "@/core/trace";
import type { RunState } from "@/core/records";
import type { ArmConditions } from "@/core/trial";
import { yardstickOf, type Grade } from "@/core/verdict";
import * as data from "@/data";
import { theApplication, type Actor } from "@/server/actor";
import { armOf } from "@/server/trials/armOf";
import { heavy, measuredAside } from "@/server/system/heavy";
import { loadStory } from "@/server/jobs/loadStory";
import { lockOpenJob } from "@/server/jobs/lockJob";
import { queueNoise } from "@/server/trials/noise";
import { mended } from "./mended";
import { Problem, notFound } from "@/server/problem";
import { writing } from "@/server/writing";

export interface ImportedRun {
  id: string;
  number: number;
  grade: Grade | null;
}

/** The same file makes the same run: kept twice it would count as a repeat that nobody made. */
async function refuseTwice({
  jobId,
  fileHash,
  again,
}: Pick<NewRun, "jobId" | "fileHash" | "again">): Promise<void> {
  const keptAs = fileHash && !again ? await data.runOfFile(jobId, fileHash) : null;
  if (keptAs !== null)
    throw new Problem(
      409,
      `This file is run ${keptAs} of this job already.`,
      "Keep it again only if you mean to: a copy looks like a repeat, and makes figures surer than they are.",
      {},
      { keptAs },
    );
}

/** What a profile says of the rig, in as far as a run was made under it. */
const madeUnder = (said: ArmConditions, run: NewRun["conditions"]): ArmConditions =>
  Object.fromEntries(Object.entries(said).filter(([key, value]) => run[key as keyof typeof run] === value));

/** Opens a run in a job: what is known of it before its trace comes. */
async function open({ again, ...run }: Omit<NewRun, "crashed">, form: Trace["form"], madeAt?: Date) {
  const job = await lockOpenJob(run.jobId);
  await refuseTwice({ ...run, again });
  const [rig, arm, story] = await data.together(
    async () => data.findRig(job.rigId),
    async () => armOf(run),
    async () => loadStory(job),
  );
  if (!rig) throw notFound("rig");
  const { standing, catalogue } = story;
  // What a job begins from is what its first run was made with; later runs, and leaving that one out, change
  // nothing.
  const begins = run.trialId === null && !(await data.hasBegun(job.id));
  if (begins)
    await data.putBaseline(
      job.id,
      baselineOf(job, catalogue, {
        settings: run.settings,
        conditions: madeUnder(standing.conditions, run.conditions),
        targetFps: standing.targetFps,
      }),
    );
  return data.openRun({
    ...run,
    form,
    rules: job.rules,
    yardstick: yardstickOf({ ...job, targetFps: standing.targetFps }, rig.spec, run.conditions.display),
    rigRevisionId: rig.revisionId,
    buildId: arm?.buildId ?? standing.buildId,
    madeAt: madeAt?.toISOString(),
  });
}

/**
 * Ends a run with figures made from what is kept of it. @param sent what was kept just now, and needn't be read
 * again; handed over
 */
async function finish(
  id: string,
  state: Exclude<RunState, "open">,
  brought: Mark[],
  sent: KeptTrace | null = null,
): Promise<Grade | null> {
  const [run, kept] = await data.together(
    async () => data.findRun(id),
    async () => sent ?? data.findKept(id),
  );
  if (!run || !kept) throw notFound("run");
  if (!kept.parts.some(({ role, values }) => role === traceRole && values.length > 0))
    throw new Problem(409, "Nothing was appended to this run.", "Append its trace, then finish it.");
  const marks = sent ? brought : [...brought, ...markedByHand(kept)].sort((a, b) => a.startMs - b.startMs);
  const stray = strayMark(marks, kept);
  if (stray >= 0) {
    const why = `Mark ${stray + 1} ends after the run does.`;
    throw new Problem(422, why, "Correct the mark and send it again.", { [`marks.${stray}.endMs`]: why });
  }
  const figures = await measuredAside({ ...kept, marks }, { ...run, crashed: state === "crashed" });
  await data.finishRun(id, state, marks, figures);
  return figures.verdict.grade;
}

/** Marks that a page made while a run grew, within the run; the one that is open lasts to its end. */
function markedByHand(kept: KeptTrace): Mark[] {
  const end = keptMs(kept);
  return kept.marks
    .map(({ label, startMs, endMs }, at) => {
      const isOpen = at === kept.marks.length - 1 && endMs === startMs;
      return { label, startMs, endMs: isOpen ? end : Math.min(endMs, end) };
    })
    .filter(({ startMs, endMs }) => endMs > startMs);
}

const touched = ({ jobId, trialId }: { jobId: string; trialId: string | null }) => [
  { kind: "job" as const, id: jobId },
  { kind: "jobs" as const, id: jobId },
  ...(trialId ? [{ kind: "trial" as const, id: trialId }] : []),
];

/** Keeps a whole run at once: opened, appended to and finished in one transaction, all of it or nothing. */
export const keepRun = async (actor: Actor, run: NewRun, trace: Trace, madeAt?: Date): Promise<ImportedRun> =>
  keepWhole(actor, run, keptOf(trace), madeAt);

async function keepWhole(actor: Actor, run: NewRun, kept: KeptTrace, madeAt?: Date): Promise<ImportedRun> {
  const { crashed, ...rest } = run;
  return writing(actor, async (touch) => {
    const made = await open(rest, kept.form, madeAt);
    for (const chunk of data.chunksOf(kept)) await data.appendChunk(made.id, chunk);
    const grade = await finish(made.id, crashed ? "crashed" : "whole", kept.marks, kept);
    touch(...touched(run));
    await queueNoise(run.jobId);
    return { ...made, grade };
  });
}

/** A run sent as a packed trace, unpacked in a thread of its own. @param fix what whoever sent it can do */
async function unpackedRun(
  bytes: Uint8Array<ArrayBuffer>,
  fix: string,
): Promise<{ run: NewRun; kept: KeptTrace }> {
  const handed = bytes.byteLength === bytes.buffer.byteLength ? [bytes.buffer] : [];
  const unpacked = await heavy("unpack", [bytes], handed);
  if ("refusal" in unpacked) {
    const { refusal, field } = unpacked;
    throw new Problem(422, refusal, fix, field === "" ? {} : { [field]: refusal });
  }
  return { run: newRunSchema.parse(unpacked.meta), kept: unpacked.kept };
}

/** Keeps a run sent as a packed trace with the run's particulars in its header. */
export async function importRun(actor: Actor, bytes: Uint8Array<ArrayBuffer>): Promise<ImportedRun> {
  const { run, kept } = await unpackedRun(bytes, "Read the log again and send it once more; nothing was kept.");
  return keepWhole(actor, run, kept);
}

/**
 * Reads a run anew from its log, by other columns or units: everything that was said about it stays, and so does its
 * number. The run as it was read before is left out, and comes back with one undoing.
 */
export async function rereadRun(
  actor: Actor,
  id: string,
  bytes: Uint8Array<ArrayBuffer>,
): Promise<ImportedRun> {
  const { run, kept } = await unpackedRun(bytes, "Read the log again; nothing was changed.");
  const { skippedRows } = run;
  return writing(actor, async (touch) => {
    const place = await data.placeOfRun(id);
    if (!place || place.deleted) throw notFound("run");
    await lockOpenJob(place.jobId);
    const before = await data.findRun(id);
    if (!before) throw notFound("run");
    if (before.state === "open") throw new Problem(409, "This run is still growing.", "Finish it first.");
    const trial = before.trialId === null ? null : await data.findTrial(before.trialId);
    if (trial?.decidedAt)
      throw new Problem(
        409,
        "The trial of this run is decided.",
        "Take its decision back first: it rests on this run.",
      );
    const made = await data.openRunLike(id, { form: kept.form, skippedRows });
    for (const chunk of data.chunksOf(kept)) await data.appendChunk(made, chunk);
    const grade = await finish(made, before.state === "crashed" ? "crashed" : "whole", kept.marks, kept);
    await data.putInPlaceOf(id, made);
    await data.addEdit(made, actor.name, [{ field: "columns", from: "as first read", to: "read again" }]);
    await mended(actor, await data.changesSoFar(), touch);
    touch(...touched({ jobId: place.jobId, trialId: place.trialId }));
    return { id: made, number: before.number, grade };
  });
}

/** A log's packed bytes begin so: gzip (RFC 1952). */
const isGzip = (bytes: Uint8Array) => bytes[0] === 0x1f && bytes[1] === 0x8b;

/** Keeps the log that a run was read from, as it was: packed, once. */
export async function keepRunFile(id: string, name: string, bytes: Uint8Array<ArrayBuffer>): Promise<void> {
  if (!isGzip(bytes)) throw new Problem(422, "The log isn't packed with gzip.", "Pack it, and send it again.");
  const place = await data.placeOfRun(id);
  if (!place || place.deleted) throw notFound("run");
  const run = await data.findRun(id);
  await data.putRunFile(id, name || run?.fileName || "log", Buffer.from(bytes));
}

/** The log that a run was read from, packed. */
export async function readRunFile(id: string): Promise<HandedOut> {
  const file = await data.findRunFile(id);
  if (!file) throw notFound("file of this run");
  return { name: `${file.name}.gz`, content: new Uint8Array(file.bytes) };
}

/** Opens a run that grows. @param madeAt when it began; now unless said */
export async function openRun(
  actor: Actor,
  input: Body<"openRun">,
  madeAt?: Date,
): Promise<{ id: string; number: number }> {
  const { run, form } = input;
  const { crashed: _crashed, ...rest } = run;
  return writing(actor, async (touch) => {
    touch(...touched(run));
    return open(rest, form, madeAt);
  });
}

/** What an appended piece may hold: times and durations above 0, pairs whole. */
function refuseValues({ role, values }: Body<"appendRun">, form: Trace["form"]): void {
  const refuse = (message: string) => {
    throw new Problem(422, message, "Correct the piece and append it again; nothing was kept.", {
      values: message,
    });
  };
  const pairs = role !== traceRole || form === "interval";
  if (pairs && values.length % 2 !== 0) refuse("Pairs of values are wanted: their number is odd.");
  const isTime = (index: number) => role === traceRole && (form === "frames" || index % 2 === 0);
  const bad = values.findIndex(
    (value, index) =>
      !Number.isFinite(Math.fround(value)) ||
      (isTime(index) && !(value >= leastFrameMs && value <= mostFrameMs)),
  );
  if (bad >= 0) refuse(`Value ${bad + 1} can't be: ${values[bad]}.`);
}

async function openOne(id: string) {
  const place = await data.placeOfRun(id);
  if (!place || place.deleted) throw notFound("run");
  await lockOpenJob(place.jobId);
  const run = await data.findRun(id);
  if (!run) throw notFound("run");
  if (run.state !== "open") throw new Problem(409, "This run is finished.", "Open another to append to.");
  return run;
}

/** Appends pieces to an open run, all or none; one seen before changes nothing. @returns how many were new */
export async function appendPieces(actor: Actor, id: string, pieces: Body<"appendRun">[]): Promise<number> {
  return writing(actor, async (touch) => {
    const run = await openOne(id);
    let kept = 0;
    for (const piece of pieces) {
      refuseValues(piece, run.form);
      const values = Float32Array.from(piece.values);
      if (await data.appendChunk(id, { ...piece, bytes: Buffer.from(values.buffer) })) kept++;
    }
    if (kept > 0) touch({ kind: "job", id: run.jobId });
    return kept;
  });
}

/** Appends a piece to an open run; a piece seen before changes nothing. */
export const appendRun = async (
  actor: Actor,
  id: string,
  piece: Body<"appendRun">,
): Promise<{ kept: boolean }> => ({ kept: (await appendPieces(actor, id, [piece])) > 0 });

/** Marks an open run from a moment on; the mark before it ends there. @param label null only ends it */
export async function markRun(actor: Actor, id: string, { label, atMs }: Body<"markRun">): Promise<void> {
  return writing(actor, async (touch) => {
    const run = await openOne(id);
    await data.markOpenRun(id, label, atMs);
    touch(...touched(run));
  });
}

/**
 * Ends an open run: measured and judged from what was appended.
 * @throws Problem 409 that names the pieces still missing
 */
export async function finishRun(actor: Actor, id: string, input: Body<"finishRun">): Promise<ImportedRun> {
  const { state, marks } = input;
  return writing(actor, async (touch) => {
    const run = await openOne(id);
    const missing = await data.missingChunks(id);
    const [gap] = missing;
    if (gap)
      throw new Problem(
        409,
        `Piece ${gap.sequence} of “${gap.role}” is missing${missing.length > 1 ? `, and ${missing.length - 1} more` : ""}.`,
        "Append what is missing, then finish the run.",
        {},
        { missingChunks: missing.slice(0, 100) },
      );
    const grade = await finish(id, state, marks);
    touch(...touched(run));
    await queueNoise(run.jobId);
    return { id, number: run.number, grade };
  });
}

/** Open runs that nothing was appended to for so long are given up, hours. */
const staleHours = 12;

/**
 * Ends runs that were opened and never finished: what came is kept as *cut off*; where nothing came, or a piece
 * is missing, the run is left out, and can be taken back.
 */
export async function endStaleRuns(hours = staleHours): Promise<number> {
  const stale = await data.staleRuns(hours);
  for (const id of stale)
    try {
      await finishRun(theApplication, id, { state: "cut off", marks: [] });
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      await writing(theApplication, async (touch) => {
        const place = await data.placeOfRun(id);
        if (!place || place.deleted) return;
        await data.setDeleted(id, true);
        touch({ kind: "job", id: place.jobId });
      });
    }
  return stale.length;
}
