import { existsSync, statSync, writeFileSync } from "node:fs";
import { hostname } from "node:os";
import { basename, join } from "node:path";
import { fileURLToPath } from "node:url";
import { parseArgs } from "node:util";
import { deviceOf, type Sampled } from "@/core/device";
import { traceCsv } from "@/core/trace";
import { pair, stream } from "./bringing";
import { Following } from "./following";
import { usualHome } from "./home";
import { kernelTree } from "./kernelTree";
import { Recording } from "./recording";
import { readings, type Pace } from "./readings";

const help = `lamp-agent: what a device says of itself, by its kernel's own files

  lamp-agent detect [--root FOLDER] [--json]
      what the device is: processors, memory, displays, battery, cooling
  lamp-agent sample [--root FOLDER] [--seconds N] [--rate N] [--json]
      what it does: one JSON object a sample, 4 a second unless said otherwise

  lamp-agent record --follow FILE|FOLDER [--seconds N] [--rate N] [--out FOLDER] [--root FOLDER]
      both: follows a frame log while it is written, or the newest of a folder, and when it is stopped by
      Ctrl-C or the seconds are over writes each log again with what was read of the device beside it

  lamp-agent pair ADDRESS CODE [--name NAME]
      pairs this device with the rig whose page shows the code
  lamp-agent stream [--follow FILE|FOLDER] [--label TEXT] [--seconds N] [--rate N] [--root FOLDER]
      sends each log while it is written, or what comes by standard input, with what is read of the device;
      what can't be sent waits in --home, and goes at the next chance

  lamp-agent work [--bench FILE] [--once] [--home FOLDER] [--rate N] [--root FOLDER]
      makes the runs of trials that were set to run by themselves on this device's rig. What an engine, a
      title and a setting mean here stands in FILE, bench.toml unless said otherwise; the server names them,
      and sends no command. An engine's config file is kept before a run, and put back after it

It runs as whoever starts it, opens no port, and sends nothing but to the server it was paired with. It
writes to its standard output, record to the folder of --out, which is this one unless said otherwise, pair,
stream and work to that of --home, ~/.lamp-agent; a file that is there is never written over, but for the config
file that bench.toml names, and that for the time of a run.
--root reads a recorded tree of kernel files in place of this device's.
`;

/** Samples a second, unless said otherwise. */
const usualRate = 4;

const say = (line: string): void => void process.stdout.write(`${line}\n`);

/** What a device is, for people. */
function detect(root: string, json: boolean): void {
  const facts = deviceOf(kernelTree(root));
  if (json) return say(JSON.stringify(facts));
  for (const [name, value] of Object.entries(facts)) {
    if (name === "from" || name === "lacking") continue;
    say(`${name}: ${typeof value === "object" ? JSON.stringify(value) : String(value)}`);
  }
  for (const lacking of facts.lacking) say(`not said: ${lacking}`);
}

async function sample(root: string, pace: Pace): Promise<void> {
  await readings(root, pace, ({ channels, all, onBattery }, at) =>
    say(
      JSON.stringify({
        t: Math.round(at),
        ...channels,
        ...(onBattery === undefined ? {} : { onBattery }),
        all,
      }),
    ),
  );
}

/** Follows a log and writes it with what the device did meanwhile. @returns the exit code: 1 where no log came */
async function record(root: string, follow: string, out: string, pace: Pace): Promise<number> {
  const recording = new Recording();
  const following = new Following(follow, recording.take);
  const samples: Sampled[] = [];
  const stop = new AbortController();
  for (const signal of ["SIGINT", "SIGTERM"] as const) process.once(signal, () => stop.abort());
  process.stderr.write(`Following ${follow}. Ctrl-C ends it and writes what was recorded.\n`);
  const took = await readings(
    root,
    pace,
    ({ channels }, at) => {
      samples.push({ atMs: at, channels });
      following.look(at);
    },
    stop.signal,
  );
  following.look(took);
  const { logs, left } = recording.end(samples);
  for (const { path, why } of left) process.stderr.write(`${path}: ${why}\n`);
  for (const { path, trace } of logs) {
    const roles = trace.channels.map(({ role }) => role);
    const to = freeName(out, basename(path));
    writeFileSync(to, traceCsv(trace), { flag: "wx" });
    say(`${to}: ${roles.length === 0 ? "nothing was read beside it" : `with ${roles.join(", ")}`}`);
  }
  if (logs.length === 0) process.stderr.write("No log was written meanwhile.\n");
  return logs.length === 0 ? 1 : 0;
}

/** A name for a log with telemetry that no file has. */
function freeName(folder: string, name: string): string {
  const stem = name.replace(/\.[^.]*$/, "");
  for (let k = 1; ; k++) {
    const path = join(folder, `${stem}-recorded${k === 1 ? "" : `-${k}`}.csv`);
    if (!existsSync(path)) return path;
  }
}

/** Runs a command. @returns the exit code: 0 where it was done, 2 where it wasn't understood */
async function run(given: string[]): Promise<number> {
  try {
    const { values, positionals } = parseArgs({
      args: given,
      allowPositionals: true,
      options: {
        root: { type: "string", default: "/" },
        follow: { type: "string" },
        out: { type: "string", default: "." },
        home: { type: "string", default: usualHome() },
        name: { type: "string", default: hostname() },
        label: { type: "string", default: "" },
        seconds: { type: "string" },
        rate: { type: "string", default: String(usualRate) },
        bench: { type: "string", default: "bench.toml" },
        once: { type: "boolean", default: false },
        json: { type: "boolean", default: false },
        help: { type: "boolean", default: false },
      },
    });
    const [command] = positionals;
    if (values.help || command === undefined) {
      process.stdout.write(
        `${help}\nThis file holds ${statSync(fileURLToPath(import.meta.url)).size} bytes.\n`,
      );
      return command === undefined && !values.help ? 2 : 0;
    }
    // A recording goes on until it is stopped.
    const seconds = Number(values.seconds ?? (command === "record" || command === "stream" ? 24 * 3600 : 10));
    const rate = Number(values.rate);
    if (!(seconds > 0) || !(rate > 0 && rate <= 100))
      throw new Error("--seconds and --rate are numbers above 0; a rate is 100 at most.");
    if (command === "detect") detect(values.root, values.json);
    else if (command === "sample") await sample(values.root, { seconds, rate });
    else if (command === "pair") {
      const [, address, code] = positionals;
      if (address === undefined || code === undefined)
        throw new Error("pair takes the server's address and the code.");
      return await pair(values.home, address, code, values.name);
    } else if (command === "stream")
      return await stream(values.root, { ...values, follow: values.follow }, { seconds, rate });
    else if (command === "work") {
      // What reads config files is large, and only this needs it.
      const { work } = await import("./working");
      return await work(values.root, values, rate);
    } else if (command === "record") {
      if (values.follow === undefined) throw new Error("record takes --follow FILE, or a folder.");
      return await record(values.root, values.follow, values.out, { seconds, rate });
    } else throw new Error(`“${command}” is no command.`);
    return 0;
  } catch (error) {
    process.stderr.write(`${(error as Error).message} Try --help.\n`);
    return 2;
  }
}

process.exitCode = await run(process.argv.slice(2));
