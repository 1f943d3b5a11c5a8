import type { Incoming, IncomingKind } from "@/core/incoming";

/** A file that was brought in, and what it was taken for. */
export interface BroughtIn {
  id: number;
  file: File;
  as: Incoming;
}

/** Endings of text files that logs are saved under: what isn't told by its rows is left to the log reader, with its reasons. */
const logEndings = /\.(csv|tsv|txt|log|dat)$/i;

/** Whether a page that takes some kinds takes this file. */
export const isTaken = ({ file, as }: Pick<BroughtIn, "file" | "as">, kinds: readonly IncomingKind[]) =>
  kinds.includes(as.kind) || (as.kind === "unknown" && kinds.includes("log") && logEndings.test(file.name));
