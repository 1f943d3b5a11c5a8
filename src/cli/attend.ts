import { spawn } from "node:child_process";
import { createHash, randomUUID } from "node:crypto";
import { createWriteStream, mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { finished } from "node:stream/promises";
import type { Command } from "commander";
import type { createClient, Output } from "@/contract";
import { deviceTaker, type SlotAnswer } from "@/core/campaign";
import { firstConditions, type Conditions, type RigSpec, type Settings } from "@/core/kit";
import { seedOf, standInRun } from "@/core/simulator";
import { packTrace, type Trace } from "@/core/trace";
import { lightWords } from "@/core/words";
import { BadInput, positive, readLogFile } from "./input";
import { answerOf, clientAt, type At } from "./running";

type Client = ReturnType<typeof createClient>;

interface Attending extends At {
  campaign: string;
  rig: string;
  with?: string;
  standIn?: boolean;
  runs?: number;
  rest?: number;
  json?: boolean;
}

/** What a device is asked to run. */
interface Asked {
  spec: RigSpec;
  title: string;
  system: string;
  scene: string;
  seconds: number;
  engine: string;
  build: string;
  settings: Settings;
  scale: number;
  conditions: Conditions;
  round: number;
}

/** What came of it: a trace, or an answer that leaves none. */
type Made =
  | { trace: Trace; skippedRows: number; crashed: boolean; fileHash: string | null }
  | { answer: SlotAnswer; note: string };

/**
 * A device that runs what a campaign asks for by itself: by a program of the tuner's own, or a stand-in for
 * one.
 */
export function attendCommand(program: Command): void {
  program
    .command("attend")
    .description("Take a campaign's runs on one rig by itself, one after another, until none is left.")
    .requiredOption("--campaign <name>", "the campaign, by its name or id")
    .requiredOption("--rig <name>", "the rig that this is")
    .option(
      "--with <command>",
      "what makes a run: it is told what by LAMP_TITLE, LAMP_SCENE, LAMP_SECONDS, LAMP_ENGINE, LAMP_BUILD, LAMP_POWER_MODE, LAMP_CLOCKS, LAMP_SET_UP and LAMP_SETTINGS (JSON), and prints the frame log",
    )
    .option("--stand-in", "make runs up, as a device of the rig's size might")
    .option("--runs <n>", "at most so many", positive("--runs"))
    .option("--rest <seconds>", "let the device rest between runs", positive("--rest"))
    .option("--address <url>", "where the application runs (default: LAMP_ADDRESS, or the one started here)")
    .option("--json", "one JSON object a run")
    .action(attend);
}

async function attend(flags: Attending): Promise<void> {
  if ((flags.with === undefined) === (flags.standIn !== true))
    throw new BadInput("Say what makes the runs: --with COMMAND, or --stand-in.");
  const call = clientAt(flags);
  const { rows } = answerOf(await call("listCampaigns", {}));
  const named = rows.filter(({ id, name }) => id === flags.campaign || name === flags.campaign);
  const [campaign] = named;
  if (!campaign || named.length > 1)
    throw new BadInput(
      campaign
        ? `${named.length} campaigns are called “${flags.campaign}”: name it by its id.`
        : `There is no campaign “${flags.campaign}”.`,
    );
  const { arms } = answerOf(await call("viewCampaign", { id: campaign.id }));
  const rigId = arms.find(({ rig }) => rig === flags.rig)?.rigId;
  if (!rigId)
    throw new BadInput(
      `No arm of it is on “${flags.rig}”: ${[...new Set(arms.map(({ rig }) => rig))].join(", ")}.`,
    );
  const taker = deviceTaker(flags.rig, randomUUID());
  const release = async () => call("releaseRun", { id: campaign.id, body: { taker } });
  // Stopped by hand, what was taken is given up.
  for (const signal of ["SIGINT", "SIGTERM"] as const)
    process.once(signal, () => void release().finally(() => process.exit(signal === "SIGINT" ? 130 : 143)));
  try {
    await takeAll(call, campaign.id, rigId, taker, flags);
  } finally {
    await release();
  }
}

/** Takes runs until there is none left, or as many as were asked for. */
async function takeAll(
  call: Client,
  id: string,
  rigId: string,
  taker: string,
  flags: Attending,
): Promise<void> {
  for (let run = 0; run < (flags.runs ?? Infinity); run++) {
    if (run > 0 && flags.rest) await new Promise((resolve) => setTimeout(resolve, 1000 * (flags.rest ?? 0)));
    const taken = await call("takeRun", { id, body: { taker, rigId, bench: false } });
    if (!taken.ok && taken.refusal.status === 409) {
      if (!flags.json) process.stdout.write(`${taken.refusal.title}\n`);
      return;
    }
    await make(call, id, rigId, answerOf(taken), flags);
  }
}

/** Makes one run that was taken, and brings it in or answers it. */
async function make(
  call: Client,
  id: string,
  rigId: string,
  taken: Output<"takeRun">,
  flags: Attending,
): Promise<void> {
  const [{ titles, arms }, view, rig] = [
    answerOf(await call("viewCampaign", { id })),
    answerOf(await call("viewJob", { id: taken.jobId })),
    answerOf(await call("viewRig", { id: rigId })),
  ];
  const title = titles[taken.title],
    arm = arms[taken.arm];
  if (!title || !arm) throw new BadInput("The campaign was changed meanwhile: start again.");
  const planned = view.trials.find((trial) => trial.id === taken.trialId)?.arms[taken.trialArm ?? -1];
  const settings = planned?.settings ?? view.standing.settings;
  const scale = view.catalogue.find(({ purpose }) => purpose === "scale");
  const asked: Asked = {
    spec: rig.spec,
    title: title.name,
    system: title.system,
    scene: title.scene ?? "",
    seconds: Math.round(60 * title.passMin),
    engine: arm.engine,
    build: arm.build,
    settings,
    scale: Number(scale ? (settings[scale.key] ?? scale.default) : 1) || 1,
    conditions: { ...firstConditions(rig.spec), ...view.holds.conditions, ...arm.conditions },
    round: taken.round,
  };
  const made = flags.with === undefined ? standIn(asked) : await byProgram(flags.with, asked);
  const what = `${asked.title}, ${arm.name}, round ${taken.round}`;
  const told = { title: asked.title, arm: arm.name, round: taken.round };
  if ("answer" in made) {
    const { title: at, arm: place, round } = taken;
    answerOf(await call("answerRun", { id, body: { title: at, arm: place, round, ...made } }));
    process.stdout.write(
      flags.json ? `${JSON.stringify({ ...told, ...made })}\n` : `${what}: ${made.answer} (${made.note})\n`,
    );
    return;
  }
  const { trace, crashed, skippedRows, fileHash } = made;
  const kept = answerOf(
    await call("importRun", {
      body: packTrace(trace, {
        jobId: taken.jobId,
        trialId: taken.trialId,
        arm: taken.trialArm,
        source: "log",
        label: "",
        fileName: null,
        fileHash,
        again: false,
        conditions: asked.conditions,
        settings,
        cacheState: "unknown",
        crashed,
        skippedRows,
        preflight: [],
        notes: flags.with === undefined ? "made up by a stand-in" : "",
      }),
    }),
  );
  process.stdout.write(
    flags.json
      ? `${JSON.stringify({ ...told, ...kept })}\n`
      : `${what}: run ${kept.number}, ${lightWords(kept.grade).name}\n`,
  );
}

function standIn({ spec, conditions, title, engine, build, scale, seconds, round }: Asked): Made {
  const seed = seedOf(`${title} ${engine} ${build} ${conditions.powerMode ?? ""} ${round} ${randomUUID()}`);
  const { trace, crashed } = standInRun({
    ...{ spec, title, engine, build, scale, seconds, seed },
    powerMode: conditions.powerMode,
  });
  return { trace, crashed, skippedRows: 0, fileHash: null };
}

/** The last line that a program wrote, for whoever asks why. */
const lastLine = (text: string) => text.trim().split("\n").at(-1)?.slice(0, 200) ?? "";

/**
 * Runs a program that prints a frame log. One that fails with rows is a crash, one that fails without any
 * didn't start.
 * @throws BadInput where what it printed is no log: then the program is at fault, and nothing is answered
 */
async function byProgram(command: string, asked: Asked): Promise<Made> {
  const folder = mkdtempSync(join(tmpdir(), "lamp-attend-"));
  const file = join(folder, "log.csv");
  try {
    const { conditions } = asked;
    const child = spawn(command, {
      shell: true,
      stdio: ["ignore", "pipe", "pipe"],
      env: {
        ...process.env,
        LAMP_TITLE: asked.title,
        LAMP_SYSTEM: asked.system,
        LAMP_SCENE: asked.scene,
        LAMP_SECONDS: String(asked.seconds),
        LAMP_ENGINE: asked.engine,
        LAMP_BUILD: asked.build,
        LAMP_POWER_MODE: conditions.powerMode ?? "",
        LAMP_CLOCKS: conditions.clocks ?? "",
        LAMP_SET_UP: conditions.setUp ?? "",
        LAMP_SETTINGS: JSON.stringify(asked.settings),
      },
    });
    let errors = "";
    child.stderr.on("data", (piece: Buffer) => (errors = (errors + piece.toString()).slice(-4000)));
    const ended = new Promise<number | null>((resolve, reject) =>
      child.on("error", reject).on("close", (code) => resolve(code)),
    );
    await finished(child.stdout.pipe(createWriteStream(file)));
    const code = await ended;
    const bytes = readFileSync(file);
    const failed = code !== 0;
    const why = lastLine(errors) || `it ended with ${code ?? "a signal"}`;
    if (failed && bytes.length === 0) return { answer: "won't start", note: why };
    try {
      const { trace, skippedRows } = await readLogFile(file, {});
      const fileHash = createHash("sha256").update(bytes).digest("hex");
      return { trace, skippedRows, crashed: failed, fileHash };
    } catch (error) {
      if (failed) return { answer: "crashed", note: why };
      throw error instanceof BadInput
        ? new BadInput(`What “${command}” printed is no log: ${error.message}`)
        : error;
    }
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
