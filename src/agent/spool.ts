import { randomUUID } from "node:crypto";
import { existsSync, mkdirSync, readFileSync, readdirSync, renameSync, rmSync, statSync } from "node:fs";
import { join } from "node:path";
import { joinedMarks, type Grown } from "@/core/device";
import { channelRoles, traceRole, type ChannelRole, type Mark } from "@/core/trace";
import { writeWhole, type Pairing } from "./home";
import { asked, wordsOf, type Said } from "./server";

/** A run on disk: what is known of it, beside the batches that weren't sent yet. */
interface SpooledRun {
  /** Tells the server the same opening from another. */
  key: string;
  form: Grown["form"];
  label: string;
  fileName: string | null;
  /** When its trace began by this device's clock, ms since 1970, UTC, and how far the server's was ahead. */
  begunMs: number;
  offsetMs: number;
  /** The server's id, once it is open there. */
  id: string | null;
  state: "whole" | "cut off" | "crashed" | null;
  marks: Mark[];
  /** The run of a trial that it is; null for one of the job in hand. */
  work?: { trialId: string; arm: number } | null;
}

interface Piece {
  role: ChannelRole | typeof traceRole;
  sequence: number;
  values: number[];
}

/** The run that is being written. */
interface Writing {
  path: string;
  run: SpooledRun;
  sequences: Map<string, number>;
  batch: number;
  /** What came since the last batch. */
  gathered: Map<Piece["role"], number[]>;
  writtenAt: number;
}

/** A batch is written so often, ms: a kill loses no more. */
const gatherMs = 1000;
/** Values in one piece, at most. A pair is never cut in two. */
const mostValues = 20_000;
/** Pieces in one request, at most. */
const mostAtOnce = 90;
/** What may wait on disk, bytes. */
export const mostSpoolBytes = 256 * 1024 * 1024;

const runFile = "run.json";
const isBatch = (name: string) => /^\d{9}\.json$/.test(name);

/**
 * Runs that wait to be sent, in folders of the agent's own: every batch is a file that is there whole or not at all,
 * and is taken away once the server has it. What a kill leaves is sent at the next start.
 */
export class Spool {
  readonly folder: string;
  private writing: Writing | null = null;
  private bytes: number;
  /** The run in hand was ended on a page: what comes of it now belongs to no run. */
  private endedThere = false;

  constructor(
    home: string,
    private readonly mostBytes = mostSpoolBytes,
  ) {
    this.folder = join(home, "spool");
    mkdirSync(this.folder, { recursive: true, mode: 0o700 });
    this.bytes = this.runs().reduce((sum, path) => sum + bytesIn(path), 0);
    // Nobody writes them any more.
    for (const path of this.runs()) {
      const run = readRun(path);
      if (run === null) rmSync(path, { recursive: true, force: true });
      else if (run.state === null) putRun(path, { ...run, state: "cut off" });
    }
  }

  /** Runs in the order they were begun. */
  runs(): string[] {
    return readdirSync(this.folder)
      .sort()
      .map((name) => join(this.folder, name));
  }

  /** Batches that wait, of all runs. */
  waiting(): number {
    return this.runs().reduce((sum, path) => sum + readdirSync(path).filter(isBatch).length, 0);
  }

  /** Whether there is room for more, and somebody still wants it. */
  get isOver(): "ended there" | "full" | null {
    return this.writing ? null : this.endedThere ? "ended there" : "full";
  }

  begin(of: Pick<SpooledRun, "form" | "label" | "fileName" | "begunMs" | "offsetMs" | "work">): void {
    this.endedThere = false;
    const key = randomUUID();
    const path = join(this.folder, `${String(Date.now()).padStart(15, "0")}-${key}`);
    const run: SpooledRun = { ...of, key, id: null, state: null, marks: [] };
    mkdirSync(path, { mode: 0o700 });
    putRun(path, run);
    this.writing = {
      path,
      run,
      sequences: new Map(),
      batch: 0,
      gathered: new Map(),
      writtenAt: performance.now(),
    };
  }

  /** Takes what came; once a second, it is kept until the server has it. @returns false where there is no room for it */
  add({ values, channels, marks }: Grown): boolean {
    const { writing } = this;
    if (!writing) return false;
    const roles = Object.entries({ [traceRole]: values, ...channels }) as [Piece["role"], number[]][];
    for (const [role, fresh] of roles) {
      const all = writing.gathered.get(role) ?? [];
      for (const value of fresh) all.push(value);
      writing.gathered.set(role, all);
    }
    if (marks.length > 0) {
      writing.run.marks = joinedMarks([...writing.run.marks, ...marks]);
      this.keepRun();
    }
    return performance.now() - writing.writtenAt < gatherMs || this.write();
  }

  /** Writes what was gathered. @returns false where there is no room for it */
  private write(): boolean {
    const { writing } = this;
    if (!writing) return false;
    writing.writtenAt = performance.now();
    for (const pieces of batchesOf(writing.gathered, writing.sequences)) {
      const text = JSON.stringify(pieces);
      if (this.bytes + text.length > this.mostBytes) return false;
      writeWhole(join(writing.path, `${String(writing.batch++).padStart(9, "0")}.json`), text);
      this.bytes += text.length;
    }
    writing.gathered.clear();
    return true;
  }

  /** Nothing more comes of the run in hand. */
  end(state: "whole" | "cut off" | "crashed"): void {
    if (!this.writing) return;
    this.write();
    this.writing.run.state = state;
    this.keepRun();
    this.writing = null;
  }

  private keepRun(): void {
    if (!this.writing) return;
    const { path, run } = this.writing;
    // Its id came from the sender meanwhile.
    putRun(path, { ...run, id: readRun(path)?.id ?? null });
  }

  /**
   * Sends what waits, a request at a time, until all is there.
   * @returns why it stopped: null for done, "later" where the server can't be reached, or what it refused for good
   */
  async send(pairing: Pairing): Promise<"later" | { refused: string; isEnd: boolean } | null> {
    for (const path of this.runs()) {
      const failed = await this.sendRun(pairing, path);
      if (failed === null) continue;
      const { status } = failed;
      if (isFinished(failed)) {
        // A person ended it on a page: what was measured after that is no part of it.
        if (this.writing?.path === path) {
          this.writing = null;
          this.endedThere = true;
        }
        this.bytes -= bytesIn(path);
        this.done(path);
        continue;
      }
      if (status === null || status >= 500 || status === 408 || status === 429) return "later";
      const refused = wordsOf(failed);
      if (status === 401 || status === 403) return { refused, isEnd: true };
      // What can't be taken is kept aside: nothing that was measured is thrown away.
      this.putAside(path);
      return { refused, isEnd: false };
    }
    return null;
  }

  /** @returns what the server said where it didn't take something; null where all that waits was sent */
  private async sendRun(pairing: Pairing, path: string): Promise<Said | null> {
    let run = readRun(path);
    if (run === null) return null;
    const batches = readdirSync(path).filter(isBatch).sort();
    if (run.id === null) {
      if (batches.length === 0 && run.state === null) return null;
      if (batches.length === 0) return this.done(path);
      const { form, label, fileName, begunMs, offsetMs, work = null } = run;
      const body = { form, label, fileName, startedMs: Math.round(begunMs + offsetMs), work };
      const said = await asked(pairing, "POST", "/device/runs", body, run.key);
      if (said.status !== 201) return said;
      run = { ...(readRun(path) ?? run), id: String(said.answer.id) };
      putRun(path, run);
      if (this.writing?.path === path) this.writing.run.id = run.id;
    }
    let [pieces, files, bytes]: [Piece[], string[], number] = [[], [], 0];
    for (const [at, name] of batches.entries()) {
      const file = join(path, name);
      const text = readFileSync(file, "utf8");
      pieces.push(...(JSON.parse(text) as Piece[]));
      files.push(file);
      bytes += text.length;
      if (
        at < batches.length - 1 &&
        pieces.length < mostAtOnce - channelRoles.length &&
        bytes < mostBytesAtOnce
      )
        continue;
      const said = await asked(pairing, "POST", `/device/runs/${run.id}/pieces`, { pieces });
      if (said.status !== 201) return said;
      for (const each of files) rmSync(each, { force: true });
      this.bytes -= bytes;
      [pieces, files, bytes] = [[], [], 0];
    }
    const now = readRun(path);
    if (now === null || now.state === null || readdirSync(path).some(isBatch)) return null;
    const said = await asked(pairing, "POST", `/device/runs/${run.id}/finish`, {
      state: now.state,
      marks: now.marks,
    });
    // Finished before, and the answer was lost.
    return said.status === 200 || isFinished(said) ? this.done(path) : said;
  }

  private done(path: string): null {
    rmSync(path, { recursive: true, force: true });
    return null;
  }

  private putAside(path: string): void {
    const refused = join(this.folder, "..", "refused");
    mkdirSync(refused, { recursive: true, mode: 0o700 });
    if (this.writing?.path === path) this.writing = null;
    renameSync(path, join(refused, path.split("/").at(-1) ?? "run"));
  }
}

/** Ended there before, by a page or by a request whose answer was lost. */
const isFinished = ({ status, answer }: Said): boolean =>
  status === 409 && answer.title === "This run is finished.";

/** A request is no larger than this by much, bytes. */
const mostBytesAtOnce = 500_000;

/** What was gathered in pieces that a server takes, a batch of them at a time. */
function batchesOf(gathered: Writing["gathered"], sequences: Writing["sequences"]): Piece[][] {
  const batches: Piece[][] = [];
  for (const [role, values] of gathered)
    for (let at = 0; at < values.length; at += mostValues) {
      const sequence = sequences.get(role) ?? 0;
      sequences.set(role, sequence + 1);
      (batches[at / mostValues] ??= []).push({ role, sequence, values: values.slice(at, at + mostValues) });
    }
  return batches;
}

const putRun = (path: string, run: SpooledRun) => writeWhole(join(path, runFile), JSON.stringify(run));

function readRun(path: string): SpooledRun | null {
  try {
    return JSON.parse(readFileSync(join(path, runFile), "utf8")) as SpooledRun;
  } catch {
    return null;
  }
}

const bytesIn = (path: string): number =>
  existsSync(path) ? readdirSync(path).reduce((sum, name) => sum + statSync(join(path, name)).size, 0) : 0;
