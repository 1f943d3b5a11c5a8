import { createHash } from "node:crypto";
import { readFileSync } from "node:fs";
import { basename } from "node:path";
import type { Command } from "commander";
import { createClient, type Sent } from "@/contract";
import { differing, underArm, type Differing } from "@/core/job";
import { cacheStates, type NewRun } from "@/core/kit";
import { packTrace } from "@/core/trace";
import { lightWords, said, words } from "@/core/words";
import { BadInput, readLogFile } from "./input";

export interface At {
  address?: string;
}

/** The application that runs here, or the one that is named; a program's token comes from LAMP_TOKEN. */
export function clientAt({ address }: At) {
  const given = address ?? process.env.LAMP_ADDRESS;
  const kept = () => {
    try {
      const { port, secure } = JSON.parse(readFileSync(".lamp/running.json", "utf8")) as {
        port: number;
        secure?: boolean;
      };
      return `http${secure ? "s" : ""}://127.0.0.1:${port}`;
    } catch {
      return undefined;
    }
  };
  const base = given ?? kept();
  if (!base)
    throw new BadInput("No application runs here: start it with npm run demo, or name it with --address.");
  return createClient(base.replace(/\/$/, ""), process.env.LAMP_TOKEN ?? null);
}

/** What was answered. @throws BadInput for a refusal, as its own words */
export function answerOf<Answer>(sent: Sent<Answer>): Answer {
  if (sent.ok) return sent.answer;
  throw new BadInput(`${sent.refusal.title} ${sent.refusal.fix}`);
}

/** What asks the running application, by the same endpoints as its pages. */
export function running(program: Command): void {
  program
    .command("jobs")
    .description("Jobs of the running application, the newest first.")
    .option("--address <url>", "where it runs (default: LAMP_ADDRESS, or the one started here)")
    .option("--open", "open ones only")
    .option("--json", "one JSON object")
    .action(async ({ open, json, ...at }: At & { open?: boolean; json?: boolean }) => {
      const query: Record<string, string> = open ? { filter: "open" } : {};
      const { rows } = answerOf(await clientAt(at)("listJobs", { query }));
      process.stdout.write(
        json
          ? `${JSON.stringify({ rows })}\n`
          : rows
              .map(({ id, title, rig, engine, grade }) =>
                [id, title, rig, engine, grade === null ? "open" : lightWords(grade).name].join("\t"),
              )
              .join("\n")
              .concat(rows.length > 0 ? "\n" : ""),
      );
    });

  program
    .command("keep")
    .description(
      "Bring a log into a job of the running application, with the conditions that are on its bench.",
    )
    .argument("<file>", "a frame log")
    .requiredOption("--job <id>", "the job")
    .option("--trial <id>", "the trial that it was run for")
    .option("--arm <name>", "the trial's arm")
    .option("--cache <state>", `shader cache: ${cacheStates.join(", ")}`, "unknown")
    .option("--name <text>", "the run's name", "")
    .option("--again", "keep it though the job has a run of the same file")
    .option("--address <url>", "where the application runs (default: LAMP_ADDRESS, or the one started here)")
    .option("--json", "one JSON object")
    .action(async (file: string, flags: At & Keeping) => {
      const call = clientAt(flags);
      const reading = await readLogFile(file, {});
      const { run, target, otherwise } = await runFor(call, file, flags);
      if (otherwise.length > 0)
        process.stderr.write(`${words(said("holds.otherwise", { differing: otherwise }))}\n`);
      const kept = answerOf(
        await call("importRun", {
          body: packTrace(reading.trace, { ...run, skippedRows: reading.skippedRows }),
        }),
      );
      process.stdout.write(
        flags.json
          ? `${JSON.stringify(kept)}\n`
          : `Run ${kept.number} of ${target}: ${lightWords(kept.grade).name}: ${lightWords(kept.grade).meaning}\n`,
      );
    });
}

interface Keeping {
  job: string;
  trial?: string;
  arm?: string;
  cache: string;
  name: string;
  again?: boolean;
  json?: boolean;
}

/**
 * What is said of a run: settings in force or the arm's, conditions on the bench. @throws BadInput where the
 * bench holds another rig
 */
async function runFor(
  call: ReturnType<typeof createClient>,
  file: string,
  { job: id, trial: trialId, arm: armName, cache, name, again }: Keeping,
): Promise<{ run: NewRun; target: string; otherwise: Differing[] }> {
  const cacheState = cacheStates.find((state) => state === cache);
  if (!cacheState) throw new BadInput(`--cache takes ${cacheStates.join(", ")}, not "${cache}".`);
  const [view, bench] = [answerOf(await call("viewJob", { id })), answerOf(await call("viewBench"))];
  const { job, holds, trials, catalogue } = view;
  if (bench.rig?.id !== job.rigId || !bench.conditions)
    throw new BadInput(
      `${job.rig} isn't on the bench, and conditions are taken from there: put it on the bench.`,
    );
  const trial = trialId === undefined ? null : trials.find((each) => each.id === trialId);
  if (trial === undefined) throw new BadInput(`The job has no trial ${trialId}.`);
  const place = trial ? trial.arms.findIndex((arm) => arm.name === armName) : -1;
  const arm = trial?.arms[place];
  if (trial && !arm)
    throw new BadInput(`--arm names one of: ${trial.arms.map((each) => each.name).join(", ")}.`);
  const conditions = arm ? { ...bench.conditions, ...holds.decided, ...arm.conditions } : bench.conditions;
  const settings = arm?.settings ?? holds.settings;
  const wanted = underArm(holds, { settings, conditions: arm?.conditions ?? {} });
  return {
    target: `${job.title} on ${job.rig}`,
    otherwise: differing(wanted, { settings, conditions }, catalogue),
    run: {
      jobId: job.id,
      source: "log",
      label: name,
      fileName: basename(file).slice(0, 255),
      fileHash: createHash("sha256").update(readFileSync(file)).digest("hex"),
      again: again ?? false,
      conditions,
      settings,
      cacheState,
      crashed: false,
      skippedRows: 0,
      preflight: [],
      notes: "",
      trialId: trial?.id ?? null,
      arm: trial ? place : null,
    },
  };
}
