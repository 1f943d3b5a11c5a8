import { spawn, type ChildProcess } from "node:child_process";
import { statfsSync } from "node:fs";
import { setTimeout as wait } from "node:timers/promises";
import type { DeviceReading } from "@/core/device";
import type { Work } from "@/core/records";
import { readBenchFile, wantedHere, type BenchHere, type EngineHere } from "./benchFile";
import { backOff } from "./bringing";
import { Following } from "./following";
import { readPairing, type Pairing } from "./home";
import { readings } from "./readings";
import { asked, greeting, wordsOf } from "./server";
import { SetUp } from "./setUp";
import { Spool } from "./spool";
import { Streaming } from "./streaming";

/** Where there is nothing to do, the server is asked so often, ms. */
const idleMs = 10_000;
/** Whether it goes on is asked so often while a run is made, ms. */
const beatMs = 3000;
/** A run begins no warmer than the first one did, and so much, °C. */
const warmerBy = 2;
/** An engine that was asked to end has so long, ms. */
const endsWithinMs = 5000;
/** What an engine's run may lack of its seconds and still be whole, as a share. */
const lackingShare = 0.1;

const note = (line: string) => void process.stderr.write(`${line}\n`);

/** How a run ended, and what is said of it. */
interface Made {
  state: "whole" | "cut off" | "crashed";
  /** Told to the server: what happened. */
  told: { what: "crashed" | "hung" | "stopped"; text: string } | null;
}

/**
 * Takes the runs of trials that run by themselves on this device's rig, one after another, until it is stopped.
 * @param once whether it ends where there is nothing to do
 * @returns the exit code: 1 where something was refused or still waits
 */
export async function work(
  root: string,
  { home, bench: file, once }: { home: string; bench: string; once: boolean },
  rate: number,
): Promise<number> {
  const pairing = readPairing(home);
  const bench = readBenchFile(file);
  const setUp = new SetUp(home);
  const left = setUp.putBack();
  if (left !== null) note(`${left} is as it was before the last run, which was cut off.`);
  const worker = new Worker(root, home, pairing, bench, setUp, rate);
  for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"] as const)
    process.once(signal, () => worker.stop.abort());
  try {
    return await worker.run(once);
  } finally {
    setUp.putBack();
  }
}

class Worker {
  readonly stop = new AbortController();
  private readonly spool: Spool;
  private offsetMs = 0;
  /** The temperature that the first run of a trial began with here, °C. */
  private readonly firstStart = new Map<string, number>();
  /** When the last run ended, by `performance.now()`. */
  private endedAt = -Infinity;

  constructor(
    private readonly root: string,
    home: string,
    private readonly pairing: Pairing,
    private readonly bench: BenchHere,
    private readonly setUp: SetUp,
    private readonly rate: number,
  ) {
    this.spool = new Spool(home);
  }

  async run(once: boolean): Promise<number> {
    let [failures, said] = [0, ""];
    while (!this.stop.signal.aborted) {
      // What was measured goes first: what is left to run is told from it.
      const sent = await this.spool.send(this.pairing);
      if (sent === "later") {
        if (failures === 0) note(`${this.pairing.address} isn't reached: tried again.`);
        await this.pause(backOff(failures++));
        continue;
      }
      if (sent !== null) {
        note(sent.refused);
        if (sent.isEnd) return 1;
      }
      const hello = failures > 0 || this.offsetMs === 0 ? await greeting(this.pairing) : null;
      if (hello && "offsetMs" in hello) this.offsetMs = hello.offsetMs;
      const taken = await asked(this.pairing, "POST", "/device/work");
      if (taken.status !== 200) {
        if (taken.status === 401 || taken.status === 403) {
          note(wordsOf(taken));
          return 1;
        }
        await this.pause(backOff(failures++));
        continue;
      }
      failures = 0;
      const { work: next, why } = taken.answer as unknown as { work: Work | null; why: string };
      if (next) {
        said = "";
        await this.make(next);
        continue;
      }
      if (once) {
        note(why);
        return 0;
      }
      if (why !== said) note((said = why));
      await this.pause(idleMs);
    }
    return 0;
  }

  private async pause(ms: number): Promise<void> {
    await wait(ms, undefined, { signal: this.stop.signal }).catch(() => {});
  }

  private async tell(
    { trialId }: Work,
    what: string,
    text = "",
    temperatureC: number | null = null,
  ): Promise<boolean> {
    if (text !== "") note(text);
    const said = await asked(this.pairing, "POST", `/device/work/${trialId}/notes`, {
      what,
      text,
      temperatureC,
    });
    // Who can't be reached hasn't said that it is over.
    return said.status !== 200 || said.answer.goesOn === true;
  }

  /** The device as it is now. */
  private async look(): Promise<DeviceReading["channels"]> {
    let seen: DeviceReading["channels"] = {};
    await readings(this.root, { seconds: 0.01, rate: 100 }, ({ channels }) => (seen = channels));
    return seen;
  }

  private async make(next: Work): Promise<void> {
    const engine = Object.hasOwn(this.bench.engines, next.engine) ? this.bench.engines[next.engine] : undefined;
    const refuse = async (why: string) => void (await this.tell(next, "refused", why));
    if (!engine) return refuse(`“${next.engine}” isn't among the engines of bench.toml.`);
    if (next.powerMode !== null || next.clocks !== null)
      return refuse(
        "This agent sets no power mode and no clocks: set them by hand, and bring such runs in by hand.",
      );
    const wanted = wantedHere(engine, next.settings);
    if ("refused" in wanted) return refuse(wanted.refused);
    const free = freeMegabytes(engine.folder ?? ".");
    if (free < this.bench.diskMegabytes)
      return void (await this.tell(next, "stopped", `The disk is short: ${Math.floor(free)} MB are free.`));
    if (!(await this.cooled(next))) return;
    const start = await this.look();
    const battery = start.battery;
    if (next.terms.leastBattery !== null && battery !== undefined && battery < next.terms.leastBattery)
      return void (await this.tell(next, "stopped", `The battery is at ${Math.round(battery)} %.`));
    if (start.temperature !== undefined && !this.firstStart.has(next.trialId))
      this.firstStart.set(next.trialId, start.temperature);
    try {
      this.setUp.change(engine, wanted.wanted);
    } catch (error) {
      return refuse(`${engine.config}: ${(error as Error).message}`);
    }
    let made: Made;
    try {
      made = await this.play(next, engine);
    } finally {
      this.setUp.putBack();
      this.endedAt = performance.now();
    }
    note(`${next.title}, ${next.armName}: ${made.state}`);
    await this.spool.send(this.pairing);
    if (made.told) await this.tell(next, made.told.what, made.told.text);
  }

  /** Waits until the device is as cool as at the first start, or has rested. @returns false where it is over meanwhile */
  private async cooled(next: Work): Promise<boolean> {
    const first = this.firstStart.get(next.trialId);
    const begun = performance.now();
    const until =
      this.endedAt + 60_000 * (first === undefined ? next.terms.restMinutes : this.bench.mostWaitMinutes);
    for (let told = false; !this.stop.signal.aborted; told = true) {
      const { temperature } = await this.look();
      const isCool = first !== undefined && temperature !== undefined && temperature <= first + warmerBy;
      if (isCool || performance.now() >= until) break;
      const text =
        first === undefined || temperature === undefined
          ? "Rests."
          : `Waits until it is at ${(first + warmerBy).toFixed(0)} °C; it is at ${temperature.toFixed(0)} °C.`;
      if (!(await this.tell(next, told ? "told" : "waits", told ? "" : text, temperature ?? null)))
        return false;
      await this.pause(beatMs);
    }
    if (performance.now() - begun > beatMs) note("Cool again.");
    return !this.stop.signal.aborted;
  }

  /** Runs the engine once, and streams what it writes. */
  private async play(next: Work, engine: EngineHere): Promise<Made> {
    const fill = (part: string) =>
      part
        .replaceAll("{title}", next.title)
        .replaceAll("{scene}", next.scene)
        .replaceAll("{seconds}", String(next.seconds))
        .replaceAll("{file}", engine.titles[next.title] ?? "");
    const ran = async (command: string[] | undefined) => {
      if (!command) return;
      const child = begin(command.map(fill), engine);
      await new Promise((resolve) => child.once("close", resolve).once("error", resolve));
    };
    await ran(engine.before);
    const { trialId, arm, seconds, terms } = next;
    const streaming = new Streaming(
      this.spool,
      { label: "", offsetMs: () => this.offsetMs, work: { trialId, arm } },
      note,
    );
    // What an earlier run wrote is no part of this one.
    const following = new Following(engine.log, streaming.take, Date.now());
    const child = begin(engine.start.map(fill), engine);
    if (child.pid !== undefined) this.setUp.started(child.pid);
    const over = new AbortController();
    let ended: { code: number | null; why: string } | null = null;
    child.once("error", (error) => {
      ended ??= { code: -1, why: error.message };
      over.abort();
    });
    child.once("close", (code, signal) => {
      ended ??= { code, why: signal === null ? `it ended with ${code}` : `it was ended by ${signal}` };
      over.abort();
    });
    let made: Made | null = null;
    const finish = (as: Made) => {
      made ??= as;
      over.abort();
    };
    let [grewAt, grew, beatAt] = [0, 0, 0];
    const stopped = (text: string) => finish({ state: "cut off", told: { what: "stopped", text } });
    const took = await readings(
      this.root,
      { seconds: 24 * 3600, rate: this.rate },
      ({ channels }, at) => {
        streaming.sample({ atMs: at, channels });
        following.look(at);
        const length = streaming.lengthMs;
        if (length > grew) [grew, grewAt] = [length, at];
        const { temperature, battery } = channels;
        if (this.stop.signal.aborted) finish({ state: "cut off", told: null });
        else if (terms.limitC !== null && temperature !== undefined && temperature > terms.limitC)
          stopped(`It was at ${temperature.toFixed(0)} °C, above the limit of ${terms.limitC} °C.`);
        else if (terms.leastBattery !== null && battery !== undefined && battery < terms.leastBattery)
          stopped(`The battery is at ${battery.toFixed(0)} %.`);
        else if (length >= 1000 * seconds) finish({ state: "whole", told: null });
        else if (
          at - grewAt >
          1000 * (grew === 0 ? engine.startSeconds + terms.hangSeconds : terms.hangSeconds)
        )
          finish({
            state: "crashed",
            told: {
              what: "hung",
              text:
                grew === 0
                  ? `${next.engine} wrote no frame in ${Math.round((at - grewAt) / 1000)} s.`
                  : `No frame came for ${terms.hangSeconds} s, after ${(grew / 1000).toFixed(1)} s.`,
            },
          });
        if (at - beatAt > beatMs) {
          beatAt = at;
          void this.tell(next, "told").then((goesOn) => {
            if (!goesOn) finish({ state: "cut off", told: null });
          });
          void this.sending();
        }
      },
      over.signal,
    );
    await endOf(child);
    following.look(took);
    const length = streaming.lengthMs;
    const isWhole = length >= 1000 * seconds * (1 - lackingShare);
    const { code, why } = ended ?? { code: 0, why: "" };
    const how: Made =
      made ??
      (isWhole && code === 0
        ? { state: "whole", told: null }
        : {
            state: "crashed",
            told: { what: "crashed", text: `${next.engine}: ${why}, after ${(length / 1000).toFixed(1)} s.` },
          });
    streaming.endsAs = how.state;
    following.end();
    await this.sending();
    await ran(engine.after);
    return how;
  }

  private under: Promise<unknown> | null = null;
  /** Sends what waits, one request at a time. */
  private async sending(): Promise<void> {
    this.under ??= this.spool.send(this.pairing).finally(() => (this.under = null));
    await this.under;
  }
}

const begin = ([program = "", ...args]: string[], { folder }: EngineHere): ChildProcess =>
  spawn(program, args, { cwd: folder, stdio: "ignore", shell: false });

/** Ends an engine that still runs: asked first, then made to. */
async function endOf(child: ChildProcess): Promise<void> {
  if (child.pid === undefined || child.exitCode !== null || child.signalCode !== null) return;
  const gone = new Promise((resolve) => child.once("close", resolve));
  child.kill("SIGTERM");
  const timer = setTimeout(() => child.kill("SIGKILL"), endsWithinMs);
  await gone;
  clearTimeout(timer);
}

function freeMegabytes(folder: string): number {
  const { bavail, bsize } = statfsSync(folder);
  return (bavail * bsize) / 2 ** 20;
}
