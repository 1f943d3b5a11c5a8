import { existsSync, mkdirSync, writeFileSync } from "node:fs";
import { join, resolve } from "node:path";
import { setTimeout as wait } from "node:timers/promises";
import type { Command } from "commander";
import { benchDraft } from "@/core/profile";
import { seedOf, standInCooled } from "@/core/simulator";
import { places, put, readJson, temperatureIn, writeKernel, type StandInDevice } from "@/standIn/folder";
import { BadInput } from "./input";
import { answerOf, clientAt, type At } from "./running";

interface Flags extends At {
  rig: string;
  engine: string;
  folder?: string;
  trouble?: string;
}

/** How often a device that rests is a little cooler, ms. */
const everyMs = 500;
/** A device that nobody has used yet, °C. */
const freshC = 34;

/** A simulated device that the agent runs on unchanged: kernel-like files, an engine, and its bench.toml. */
export function standInCommand(program: Command): void {
  program
    .command("stand-in")
    .description("Make a simulated device in a folder, and let it cool there until it is stopped.")
    .requiredOption("--rig <name>", "the rig that it is like")
    .requiredOption("--engine <name>", "the engine that runs on it")
    .option("--folder <path>", "where (default: .lamp/stand-in-RIG)")
    .option("--trouble <what>", "what goes wrong with the next run: crash@SECONDS or hang@SECONDS")
    .option("--address <url>", "where the application runs (default: LAMP_ADDRESS, or the one started here)")
    .action(standIn);
}

async function standIn(flags: Flags): Promise<void> {
  const folder = resolve(flags.folder ?? join(".lamp", `stand-in-${flags.rig.replace(/\W+/g, "-")}`));
  const at = places(folder);
  if (flags.trouble !== undefined) {
    const [, what, seconds] = /^(crash|hang)@(\d+(?:\.\d+)?)$/.exec(flags.trouble) ?? [];
    if (what === undefined) throw new BadInput("Trouble is crash@SECONDS or hang@SECONDS.");
    mkdirSync(folder, { recursive: true });
    writeFileSync(at.trouble, JSON.stringify({ what, atS: Number(seconds) }));
    // One that runs already takes it from there.
    if (existsSync(at.device)) return void process.stdout.write(`The next run: ${flags.trouble}.\n`);
  }
  await make(folder, flags);
  process.stdout.write(
    `A simulated ${flags.rig} is in ${folder}. On it, as on a real device:\n` +
      `  node lamp-agent.mjs pair ADDRESS CODE --home ${join(folder, "agent")}\n` +
      `  node lamp-agent.mjs work --bench ${at.bench} --root ${at.root} --home ${join(folder, "agent")}\n` +
      `It cools here until Ctrl-C.\n`,
  );
  await cooling(folder);
}

/** Writes the device, its engine and its bench.toml. */
async function make(folder: string, flags: Flags): Promise<void> {
  const at = places(folder);
  const call = clientAt(flags);
  const named = <Row extends { name: string }>(rows: Row[], name: string, what: string): Row => {
    const found = rows.find((row) => row.name === name);
    if (!found) throw new BadInput(`There is no ${what} “${name}”.`);
    return found;
  };
  const rig = named(answerOf(await call("listRigs", { query: { search: flags.rig } })).rows, flags.rig, "rig");
  const engine = named(answerOf(await call("viewKitNames")).engines, flags.engine, "engine");
  const { spec } = answerOf(await call("viewRig", { id: rig.id }));
  const { catalogue } = answerOf(await call("viewEngine", { id: engine.id }));
  const device: StandInDevice = {
    spec,
    powerMode: spec.powerModes[0]?.name ?? null,
    engine: engine.name,
    build: "",
    catalogue,
    seed: seedOf(rig.name),
  };
  put(at.device, JSON.stringify(device));
  const program = ["node", "{program}", "--title", "{title}", "--scene", "{scene}", "--seconds", "{seconds}"];
  const { bench, config } = benchDraft(engine.name, catalogue, {
    start: program.map((part) =>
      part === "{program}" ? at.program : part === "node" ? process.execPath : part,
    ),
    log: at.logs,
    config: at.config,
  });
  if (!existsSync(at.config)) put(at.config, config);
  mkdirSync(at.logs, { recursive: true });
  put(at.bench, bench);
  const { build } = await import("esbuild");
  await build({
    entryPoints: [join("src", "standIn", "engine.ts")],
    outfile: at.program,
    bundle: true,
    platform: "node",
    format: "esm",
    target: "node20",
    mainFields: ["module", "main"],
    banner: {
      js: 'import { createRequire as asking } from "node:module"; const require = asking(import.meta.url);',
    },
    logLevel: "error",
  });
  rest(folder, device, temperatureIn(at.root) ?? freshC, 0);
}

const rest = (folder: string, { spec }: StandInDevice, temperature: number, passedMs: number) =>
  writeKernel(places(folder).root, spec, { temperature, watts: 1.5, cpu: 4, gpu: 0, mhz: 600 }, passedMs);

/** Lets the device cool while its engine doesn't run. */
async function cooling(folder: string): Promise<void> {
  const at = places(folder);
  const device = readJson<StandInDevice>(at.device);
  let stopped = false;
  for (const signal of ["SIGINT", "SIGTERM"] as const) process.once(signal, () => (stopped = true));
  while (device && !stopped) {
    await wait(everyMs);
    const celsius = temperatureIn(at.root);
    if (existsSync(at.playing) || celsius === null) continue;
    rest(folder, device, standInCooled(device.spec, celsius, everyMs / 1000), everyMs);
  }
}
