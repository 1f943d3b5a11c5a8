// What a machine may lack for a while: room on a disk, a disk that can be written, open files, memory. It is
// recognised, said once, and waited for.
import { accessSync, constants, existsSync, readFileSync, statfsSync } from "node:fs";
import { dirname } from "node:path";
import { say } from "./run.mjs";

const megabyte = 1024 * 1024;
/** With less than this a disk counts as full, and memory as used up, whatever was said, bytes. */
const scarceBytes = 24 * megabyte;
/** With more than this a disk isn't full any more, bytes. */
const plentyBytes = 128 * megabyte;
/** How often what is lacking is tried again, ms. */
const againMs = 2_000;

/** How Linux, PostgreSQL and Node say what lacks; a heap that reached its own bound isn't the machine's memory. */
const kinds = [
  {
    what: "room",
    codes: ["ENOSPC", "EDQUOT", "53100"],
    words: /No space left on device|Disk quota exceeded|no space left/,
  },
  { what: "a disk that can be written", codes: ["EROFS"], words: /Read-only file system/i },
  {
    what: "files",
    codes: ["EMFILE", "ENFILE"],
    words: /Too many open files|EMFILE|ENFILE|out of file descriptors/,
  },
  {
    what: "memory",
    codes: ["ENOMEM", "EAGAIN"],
    words: /Cannot allocate memory|could not fork|Resource temporarily unavailable|ENOMEM/,
  },
];

/** Bytes that are free on the disk of a folder, or of the nearest one above it that is there. */
function roomAt(folder) {
  let at = folder;
  while (!existsSync(at) && dirname(at) !== at) at = dirname(at);
  try {
    const { bavail, bsize } = statfsSync(at);
    return bavail * bsize;
  } catch {
    return Infinity;
  }
}

function freeMemory() {
  try {
    return (
      Number(/^MemAvailable:\s+(\d+) kB/m.exec(readFileSync("/proc/meminfo", "utf8"))?.[1] ?? Infinity) * 1024
    );
  } catch {
    return Infinity;
  }
}

/** Whether a folder's disk is mounted to be read only. */
function isReadOnly(folder) {
  try {
    accessSync(folder, constants.W_OK);
    return false;
  } catch (error) {
    return error.code === "EROFS";
  }
}

/**
 * What lines of a log say may be over: room and a disk are looked at as they are now.
 * @param told an error, or the last lines of a server
 */
function kindOf(told, folder) {
  const isLog = Array.isArray(told);
  const text = isLog ? told.join("\n") : String(told?.message ?? told);
  const named = kinds.find(({ codes, words }) => codes.includes(told?.code) || words.test(text))?.what;
  const isOver =
    isLog &&
    ((named === "room" && roomAt(folder) > plentyBytes) ||
      (named === "a disk that can be written" && !isReadOnly(folder)));
  if (named && !isOver) return named;
  if (roomAt(folder) < scarceBytes) return "room";
  return freeMemory() < scarceBytes ? "memory" : null;
}

/**
 * What lacks, where that is why something failed.
 * @param told   an error, or the last lines that a server wrote
 * @param folder what is kept there
 * @returns what it is and a sentence for a person; null for any other reason
 */
export function shortageOf(told, folder) {
  const what = kindOf(told, folder);
  if (what === null) return null;
  const path = told?.path ?? folder;
  const sentence = {
    room: () =>
      `${path} can't be written: its disk is full (${Math.floor(roomAt(folder) / megabyte)} MB free). Waiting for room; it goes on by itself, with everything that was kept.`,
    "a disk that can be written": () =>
      `${path} can't be written: its disk is read-only. Nothing was changed. Waiting until it can be; it goes on by itself.`,
    files: () =>
      "This machine has too many files open, so nothing more can be opened. Waiting; it goes on by itself when some are closed.",
    memory: () =>
      `This machine has no memory left (${Math.floor(freeMemory() / megabyte)} MB available). Waiting; it goes on by itself.`,
  }[what]();
  return { what, sentence };
}

/** Says a shortage when it begins, and when it is over. */
export function shortageTeller() {
  let said = null;
  return {
    lacks({ what, sentence }) {
      if (what !== said) say(sentence);
      said = what;
    },
    /** @returns whether anything lacked */
    isOver() {
      const was = said !== null;
      said = null;
      return was;
    },
  };
}

/**
 * Does something as often as the machine lacks something for it. @param isStopped whether nobody waits any more
 * @throws what `work` throws for any other reason
 */
export async function patiently(work, folder, isStopped = () => false) {
  const teller = shortageTeller();
  for (;;) {
    try {
      const done = await work();
      if (teller.isOver()) say("It goes on.");
      return done;
    } catch (error) {
      const shortage = shortageOf(error, folder);
      if (shortage === null || isStopped()) throw error;
      teller.lacks(shortage);
      await new Promise((resolve) => setTimeout(resolve, againMs));
    }
  }
}
