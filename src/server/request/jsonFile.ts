import type { HandedOut } from "@/contract";

/** A file of JSON, laid out for reading. */
export const jsonFile = (file: object): HandedOut => ({ content: `${JSON.stringify(file, null, 2)}\n` });
