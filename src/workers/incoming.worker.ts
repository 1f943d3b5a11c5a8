import { expose } from "comlink";
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
};

export type IncomingReader = typeof api;
expose(api);
