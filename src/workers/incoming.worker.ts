import { expose } from "comlink";
import { ByteLogReader } from "@/core/trace";
import { logWords } from "@/core/words";
import { keepTrace } from "./keepTrace";
import { headBytes, recognise, savedJob, type Incoming, type SavedJob } from "@/core/incoming";

/** Files read whole so that it can be told what they are, at most, bytes. */
const mostWhole = 64 * 1024 * 1024;

const bytesOf = async (blob: Blob) => new Uint8Array(await blob.arrayBuffer());

const api = {
  /** What a file is, by what it holds. */
  recognise: async (file: File): Promise<Incoming> =>
    recognise(file.name, await bytesOf(file.slice(0, headBytes)), async () =>
      file.size > mostWhole ? null : bytesOf(file),
    ),
  /** A saved job's runs as logs; null for what isn't one. */
  openJob: async (file: File): Promise<SavedJob | null> => savedJob(JSON.parse(await file.text()) as unknown),
  /**
   * Keeps a saved job's runs in a job, with settings, conditions, notes and faults as they were.
   * @param onShare told after each run how much is done
   * @returns what wasn't kept, with why
   */
  async keepJob(file: File, jobId: string, onShare: (share: number) => void): Promise<NotKept[]> {
    const saved = savedJob(JSON.parse(await file.text()) as unknown);
    const refused: NotKept[] = [];
    for (const [at, { name, csv, run, faults }] of (saved?.logs ?? []).entries()) {
      const why = run
        ? await keepSaved(csv, { ...run, jobId }, faults)
        : "The file doesn't say its conditions.";
      if (why !== null) refused.push({ name, why });
      onShare((at + 1) / (saved?.logs.length ?? 1));
    }
    return refused;
  },
};

/** A run of a saved job that wasn't kept. */
export interface NotKept {
  name: string;
  why: string;
}

/** Keeps one run and its faults. @returns why it wasn't kept; null where it was */
async function keepSaved(csv: string, run: object, faults: object[]): Promise<string | null> {
  const reader = new ByteLogReader({});
  reader.push(new TextEncoder().encode(csv));
  const result = reader.finish();
  if (!result.ok) return logWords(result.problem.reason);
  const lost = { title: "The application doesn't answer.", fix: "Take the job in again when it does." };
  const kept = await keepTrace(result.reading.trace, run, lost);
  if (!kept.ok) return `${kept.title} ${kept.fix}`;
  for (const fault of faults)
    await fetch("/api/v1/faults", {
      method: "POST",
      headers: { "content-type": "application/json", "idempotency-key": crypto.randomUUID() },
      body: JSON.stringify({ ...fault, runId: kept.id }),
    });
  return null;
}

export type IncomingReader = typeof api;
expose(api);
