import { chmodSync, mkdirSync, readFileSync, renameSync, writeFileSync } from "node:fs";
import { homedir } from "node:os";
import { join } from "node:path";

/** The agent's own folder, unless said otherwise; nothing is written elsewhere while streaming. */
export const usualHome = (): string => join(homedir(), ".lamp-agent");

/** Which server a device brings its runs to, and the token it got there. */
export interface Pairing {
  address: string;
  token: string;
  rig: string;
}

/** Writes a file so that it is there whole or not at all, for its owner alone. */
export function writeWhole(path: string, text: string): void {
  const beside = `${path}.${process.pid}.tmp`;
  writeFileSync(beside, text, { mode: 0o600 });
  renameSync(beside, path);
}

export function keepPairing(home: string, pairing: Pairing): void {
  mkdirSync(home, { recursive: true, mode: 0o700 });
  chmodSync(home, 0o700);
  writeWhole(join(home, "pairing.json"), JSON.stringify(pairing));
}

/** @throws Error in words where this device isn't paired */
export function readPairing(home: string): Pairing {
  try {
    return JSON.parse(readFileSync(join(home, "pairing.json"), "utf8")) as Pairing;
  } catch {
    throw new Error(
      "This device isn't paired: lamp-agent pair ADDRESS CODE, with the code that its rig's page shows.",
    );
  }
}
