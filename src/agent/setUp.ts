import { createHash } from "node:crypto";
import {
  chmodSync,
  closeSync,
  existsSync,
  fsyncSync,
  mkdirSync,
  openSync,
  readFileSync,
  readdirSync,
  rmSync,
  statSync,
  writeFileSync,
} from "node:fs";
import { join } from "node:path";
import { bytesOf, patchConfig, textIn } from "@/core/config";
import { formatHere, type EngineHere } from "./benchFile";
import { writeWhole } from "./home";

/** What stands in the agent's folder while a config file is changed: enough to put it back at the next start. */
interface Changed {
  config: string;
  sha256: string;
  mode: number;
  /** The engine that was started meanwhile, and how its process is called: told from another of the same number. */
  engine: { pid: number; called: string } | null;
}

const sha256 = (bytes: Uint8Array) => createHash("sha256").update(bytes).digest("hex");

/** Writes bytes into a file that is there, so that they are on the disk when it returns. */
function put(path: string, bytes: Uint8Array): void {
  const file = openSync(path, "w");
  try {
    writeFileSync(file, bytes);
    fsyncSync(file);
  } finally {
    closeSync(file);
  }
}

const calledOf = (pid: number): string => {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, "utf8");
  } catch {
    return "";
  }
};

/**
 * A config file with other settings for one run: kept byte for byte before, and put back on every way out, at the next
 * start where this one was killed.
 */
export class SetUp {
  private readonly folder: string;

  constructor(home: string) {
    this.folder = join(home, "changed");
    mkdirSync(this.folder, { recursive: true, mode: 0o700 });
  }

  /**
   * Puts settings into an engine's config file.
   * @throws ConfigProblem or Error in words; then nothing was changed
   */
  change(engine: EngineHere, wanted: { path: string; value: string | number | boolean }[]): void {
    if (!existsSync(engine.config)) throw new Error(`${engine.config} isn't there.`);
    const bytes = readFileSync(engine.config);
    const { text, encoding } = textIn(bytes);
    const made = patchConfig(text, formatHere(engine, text), wanted);
    const kept: Changed = {
      config: engine.config,
      sha256: sha256(bytes),
      mode: statSync(engine.config).mode & 0o777,
      engine: null,
    };
    put(join(this.folder, "bytes"), bytes);
    writeWhole(join(this.folder, "changed.json"), JSON.stringify(kept));
    put(engine.config, bytesOf(made.text, encoding));
  }

  /** Notes which process is the engine, so that one that outlives this program can be ended. */
  started(pid: number): void {
    const kept = this.kept();
    if (kept)
      writeWhole(
        join(this.folder, "changed.json"),
        JSON.stringify({ ...kept, engine: { pid, called: calledOf(pid) } }),
      );
  }

  private kept(): Changed | null {
    try {
      return JSON.parse(readFileSync(join(this.folder, "changed.json"), "utf8")) as Changed;
    } catch {
      return null;
    }
  }

  /** Puts back what was changed, as it was to the byte. @returns the file's path; null where nothing was changed */
  putBack(): string | null {
    const kept = this.kept();
    if (!kept) {
      for (const name of readdirSync(this.folder)) rmSync(join(this.folder, name), { force: true });
      return null;
    }
    if (kept.engine && kept.engine.called !== "" && calledOf(kept.engine.pid) === kept.engine.called)
      try {
        process.kill(kept.engine.pid, "SIGKILL");
      } catch {
        // It ended a moment ago.
      }
    const bytes = readFileSync(join(this.folder, "bytes"));
    if (sha256(bytes) !== kept.sha256)
      throw new Error(`What was kept of ${kept.config} in ${this.folder} isn't whole: put it back by hand.`);
    put(kept.config, bytes);
    chmodSync(kept.config, kept.mode);
    rmSync(join(this.folder, "changed.json"), { force: true });
    rmSync(join(this.folder, "bytes"), { force: true });
    return kept.config;
  }
}
