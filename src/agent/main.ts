import { setTimeout as wait } from "node:timers/promises";
import { parseArgs } from "node:util";
import { deviceOf, readingOf, type Kept } from "@/core/device";
import { kernelTree } from "./kernelTree";

const help = `lamp-agent: what a device says of itself, by its kernel's own files

  lamp-agent detect [--root FOLDER] [--json]
      what the device is: processors, memory, displays, battery, cooling
  lamp-agent sample [--root FOLDER] [--seconds N] [--rate N] [--json]
      what it does: one JSON object a sample, 4 a second unless said otherwise

It runs as whoever starts it, opens no port, sends nothing, and writes nothing but to its standard output.
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

async function sample(root: string, seconds: number, rate: number): Promise<void> {
  const tree = kernelTree(root);
  const begun = performance.now();
  let kept: Kept | null = null;
  const told = new Set<string>();
  for (let k = 0; ; k++) {
    const at = performance.now() - begun;
    const { reading, kept: now } = readingOf(tree, kept, at);
    kept = now;
    const { channels, all, onBattery, refused } = reading;
    for (const [path, why] of Object.entries(refused))
      if (!told.has(path)) {
        told.add(path);
        process.stderr.write(`${path}: ${why}\n`);
      }
    say(
      JSON.stringify({
        t: Math.round(at),
        ...channels,
        ...(onBattery === undefined ? {} : { onBattery }),
        all,
      }),
    );
    const next = ((k + 1) * 1000) / rate;
    if (next >= seconds * 1000) return;
    await wait(Math.max(0, next - (performance.now() - begun)));
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
        seconds: { type: "string", default: "10" },
        rate: { type: "string", default: String(usualRate) },
        json: { type: "boolean", default: false },
        help: { type: "boolean", default: false },
      },
    });
    const [command] = positionals;
    if (values.help || command === undefined) {
      process.stdout.write(help);
      return command === undefined && !values.help ? 2 : 0;
    }
    const [seconds, rate] = [Number(values.seconds), Number(values.rate)];
    if (!(seconds > 0) || !(rate > 0 && rate <= 100))
      throw new Error("--seconds and --rate are numbers above 0; a rate is 100 at most.");
    if (command === "detect") detect(values.root, values.json);
    else if (command === "sample") await sample(values.root, seconds, rate);
    else throw new Error(`“${command}” is no command.`);
    return 0;
  } catch (error) {
    process.stderr.write(`${(error as Error).message} Try --help.\n`);
    return 2;
  }
}

process.exitCode = await run(process.argv.slice(2));
