import { createReadStream, readFileSync } from "node:fs";
import { stat } from "node:fs/promises";
import { textIn } from "@/core/config";
import {
  ByteLogReader,
  roles,
  tooLarge,
  units,
  unitsFor,
  type LogReading,
  type LogResult,
  type ReadOptions,
  type Role,
  type Unit,
} from "@/core/trace";
import { refusalWords } from "@/core/words";

/** Input that can't be used, with one line for the person who gave it. */
export class BadInput extends Error {}

/** A file's bytes. @throws BadInput */
export function bytesFrom(file: string): Uint8Array {
  try {
    return readFileSync(file);
  } catch (error) {
    throw new BadInput(`${file} can't be read: ${(error as Error).message}`);
  }
}

/** What a JSON file says. @throws BadInput */
export function jsonFrom(file: string): unknown {
  const bytes = bytesFrom(file);
  try {
    return JSON.parse(textIn(bytes).text);
  } catch {
    throw new BadInput(`${file}: no JSON.`);
  }
}

/** "COLUMN=role" or "COLUMN=role:unit" → one entry of a column map. */
export function mapEntry(
  text: string,
  map: NonNullable<ReadOptions["map"]> = {},
): NonNullable<ReadOptions["map"]> {
  const at = text.lastIndexOf("=");
  if (at < 1) throw new BadInput(`--map "${text}": write it as "COLUMN=role" or "COLUMN=role:unit".`);
  const [role, unit] = text.slice(at + 1).split(":") as [Role, Unit | undefined];
  if (!roles.includes(role))
    throw new BadInput(`--map "${text}": there is no role "${role}". Roles: ${roles.join(", ")}.`);
  if (unit !== undefined && (!units.includes(unit) || !unitsFor(role).includes(unit)))
    throw new BadInput(`--map "${text}": ${role} is measured in ${unitsFor(role).join(", ") || "no unit"}.`);
  return { ...map, [text.slice(0, at)]: { role, unit: unit ?? null } };
}

/** A positive number of a flag. */
export function positive(name: string): (text: string) => number {
  return (text) => {
    const value = Number(text);
    if (!(value > 0) || !Number.isFinite(value))
      throw new BadInput(`${name} takes a number above 0, not "${text}".`);
    return value;
  };
}

/** Reads a log from a file, or from standard input for "-". @throws BadInput with one clear line */
export async function readLogFile(path: string, options: ReadOptions): Promise<LogReading> {
  const reader = new ByteLogReader(options);
  let result: LogResult;
  try {
    if (path !== "-") {
      const found = await stat(path);
      if (found.isDirectory()) throw new BadInput(`${path} is a folder.`);
      const large = tooLarge(found.size);
      if (large) throw new BadInput(`${path}: ${refusalWords(large)}`);
    }
    for await (const bytes of path === "-" ? process.stdin : createReadStream(path, { highWaterMark: 1 << 20 }))
      if (!reader.push(bytes as Uint8Array)) break;
    result = reader.finish();
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === "ENOENT")
      throw new BadInput(`${path}: there is no such file.`);
    if ((error as NodeJS.ErrnoException).code === "EACCES") throw new BadInput(`${path} may not be read.`);
    throw error;
  }
  if (!result.ok)
    throw new BadInput(`${path === "-" ? "standard input" : path}: ${refusalWords(result.problem)}`);
  return result.reading;
}
