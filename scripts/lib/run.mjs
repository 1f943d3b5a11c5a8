// Small process helpers. Only Node's own modules: this runs before anything is installed.
import { spawn, spawnSync } from "node:child_process";
import { createServer } from "node:net";
import { createHash } from "node:crypto";
import {
  accessSync,
  chmodSync,
  constants,
  existsSync,
  mkdirSync,
  readFileSync,
  readdirSync,
  renameSync,
  statSync,
  writeFileSync,
} from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

export const root = join(dirname(fileURLToPath(import.meta.url)), "..", "..");
/** Where this checkout keeps what isn't in it; LAMP_STATE names another place, for tests and benchmarks. */
export const stateFolder = process.env.LAMP_STATE ?? join(root, ".lamp");
export const isRoot = process.getuid?.() === 0;

export class SetupError extends Error {}

/** What a disk says of a file or folder; only a read-only one has surely changed nothing. */
const ofDisks = {
  EROFS: "can't be written: its disk is read-only. Nothing was changed.",
  ENOSPC: "can't be written: its disk is full.",
  EDQUOT: "can't be written: your share of its disk is full.",
  EACCES: "can't be used: its owner doesn't let you.",
  EPERM: "can't be used: its owner doesn't let you.",
  EIO: "can't be used: its disk fails.",
};

/** What ended a command, in words where it is one of what a disk does; a stack only for a mistake of ours. */
export function inWords(error) {
  if (error instanceof SetupError) return error.message;
  const why = ofDisks[error?.code];
  // Ports and processes are refused by the same codes, and name no path; a full disk may name none while it is
  // written.
  return why && (error.path || error.syscall === "write")
    ? `${error.path ?? "A file"} ${why} Mend that, or name other places for what is kept (LAMP_STATE, LAMP_CLUSTER).`
    : (error?.stack ?? String(error));
}

/**
 * Makes a folder. @throws as the disk refuses it, with its path: made with its parents, a read-only one looks
 * as if it weren't there
 */
export function makeFolder(path, mode = 0o777) {
  if (existsSync(path)) return;
  let above = dirname(path);
  while (!existsSync(above)) above = dirname(above);
  accessSync(above, constants.W_OK);
  mkdirSync(path, { recursive: true, mode });
}

// Nobody may read what is said, or not any more: that ends nothing.
for (const stream of [process.stdout, process.stderr]) stream.on("error", () => {});

/** What is said and not read yet is kept up to so much, bytes; the rest is dropped. */
const mostUnread = 256 * 1024;

/** Writes to a stream that may have no reader. */
export function tellTo(stream, text) {
  if (stream.writableLength < mostUnread) stream.write(text);
}

export const say = (line) => tellTo(process.stdout, `${line}\n`);

/** Runs a command to its end; throws SetupError with its output's tail when it fails. */
export function must(command, args, options = {}) {
  const done = spawnSync(command, args, { cwd: root, encoding: "utf8", maxBuffer: 64 << 20, ...options });
  if (done.signal === "SIGINT" || done.status === 130) throw new SetupError("Stopped.");
  if (done.error || done.status !== 0) {
    const tail = `${done.stdout ?? ""}${done.stderr ?? ""}`.trim().split("\n").slice(-25).join("\n");
    throw new SetupError(
      `${command} ${args.join(" ")} failed${done.error ? `: ${done.error.message}` : ` (${done.status})`}\n${tail}`,
    );
  }
  return done.stdout ?? "";
}

export function works(command, args, options = {}) {
  const done = spawnSync(command, args, { stdio: "ignore", ...options });
  return !done.error && done.status === 0;
}

/** Runs a command with its output shown; resolves with the exit code. */
export function show(command, args, options = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { cwd: root, stdio: "inherit", ...options });
    child.on("error", reject);
    child.on("exit", (code) => resolve(code ?? 1));
  });
}

/** Runs a command to its end beside others; resolves with the exit code and what it wrote. */
export function heard(command, args, options = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { cwd: root, stdio: ["ignore", "pipe", "pipe"], ...options });
    let output = "";
    for (const stream of [child.stdout, child.stderr]) stream.on("data", (piece) => (output += piece));
    child.on("error", reject);
    child.on("close", (code) => resolve({ code: code ?? 1, output }));
  });
}

/** The first port from `wanted` upwards that nobody listens on, on this machine or at `address`. */
export async function freePort(wanted, address = "127.0.0.1") {
  for (let port = wanted; port < wanted + 200; port++) {
    const isFree = (at) =>
      new Promise((resolve) => {
        const probe = createServer();
        probe.once("error", () => resolve(false));
        probe.listen(port, at, () => probe.close(() => resolve(true)));
      });
    if ((await isFree("127.0.0.1")) && (address === "127.0.0.1" || (await isFree(address)))) return port;
  }
  throw new SetupError(`No free port between ${wanted} and ${wanted + 199}.`);
}

/** A hash over names and contents of files and folders; what a stamp is compared with. */
export function fingerprint(paths) {
  const hash = createHash("sha256");
  const visit = (path) => {
    if (!existsSync(path)) return;
    if (statSync(path).isDirectory()) {
      for (const name of readdirSync(path).sort()) visit(join(path, name));
    } else {
      hash.update(path.slice(root.length)).update(readFileSync(path));
    }
  };
  for (const path of paths) visit(join(root, path));
  return hash.digest("hex");
}

export function alive(pid) {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return error.code === "EPERM";
  }
}

/**
 * Writes a file that only its owner reads, whole or not at all: whoever is killed meanwhile leaves the old one.
 */
export function writeWhole(file, content) {
  makeFolder(dirname(file));
  const half = `${file}.new`;
  writeFileSync(half, content, { mode: 0o600, flush: true });
  chmodSync(half, 0o600);
  renameSync(half, file);
}
