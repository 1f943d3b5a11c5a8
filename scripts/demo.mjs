// npm run demo: installs what is missing, starts the database, adds the demo data once, builds, starts, prints
// the address.
//   --empty  start without the demo data: house rules and pre-flight items only
//   --reset  start over, after a backup (asks; --yes answers)
//   --dev  the development server
//   --port N  first port tried
//   --listen ADDRESS  answer others too (0.0.0.0: everybody who reaches this machine): needs a passphrase, speaks HTTPS
//   --certificate FILE --key FILE  of your own, instead of one made here
//   --processes N  how many answer
import { existsSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { cpus, hostname } from "node:os";
import { join } from "node:path";
import { createInterface } from "node:readline/promises";
import { certificateFor, ownAddresses, secretOfCookies } from "./lib/access.mjs";
import { countPeople, ensureBuild, healthAt, prepareDatabase } from "./lib/application.mjs";
import { cluster, clusterHome } from "./lib/cluster.mjs";
import { ensurePackages, ensurePostgres } from "./lib/install.mjs";
import { SetupError, alive, freePort, inWords, makeFolder, say, stateFolder } from "./lib/run.mjs";
import { patiently } from "./lib/shortage.mjs";
import { supervise } from "./lib/supervise.mjs";

const args = process.argv.slice(2);
const valueOf = (flag) => (args.includes(flag) ? args[args.indexOf(flag) + 1] : undefined);
const dev = args.includes("--dev");
const empty = args.includes("--empty");
const wantedPort = Number(valueOf("--port")) || 3210;
const listen = valueOf("--listen") ?? "127.0.0.1";
const beyond = !/^(127\.|::1$|localhost$)/.test(listen);
/** Two answer where there are processors for them: one more than that only takes memory. */
const processes = Number(valueOf("--processes")) || Math.min(2, cpus().length);
const running = join(stateFolder, "running.json");
/** Holds the process that is starting, or that keeps what it started alive. */
const starting = join(stateFolder, "starting");

async function confirmReset() {
  if (args.includes("--yes")) return true;
  if (!process.stdin.isTTY) {
    say("--reset removes every job, run and rig you entered. Say --yes as well to do it without being asked.");
    return false;
  }
  const ask = createInterface({ input: process.stdin, output: process.stdout });
  const answer = await ask.question(
    "Remove every job, run and rig you entered, and start over with the demo data? Type yes: ",
  );
  ask.close();
  return answer.trim().toLowerCase() === "yes";
}

/** Whether a process is a server of this application, whatever it answers just now. */
function isOurs(pid) {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, "utf8").includes(join("src", "serve", "main.ts"));
  } catch {
    return false;
  }
}

/** A server started earlier: still ours (its address), or an orphan of a killed start (ended here). */
async function findFirst() {
  if (!existsSync(running)) return null;
  let first;
  try {
    first = JSON.parse(readFileSync(running, "utf8"));
  } catch {
    return null;
  }
  const health = await healthAt(first.port, first.secure);
  if (alive(first.supervisor) && first.supervisor !== process.pid && health) return first;
  const left = [first.server, health?.process].filter((pid) => pid > 0 && isOurs(pid));
  if (left.length > 0) {
    say("An earlier start was killed; ending what it left running.");
    for (const pid of left) process.kill(pid, "SIGKILL");
    // Its address is free when it is gone.
    for (let waited = 0; waited < 5_000 && left.some(alive); waited += 50)
      await new Promise((resolve) => setTimeout(resolve, 50));
  }
  rmSync(running, { force: true });
  return null;
}

/** Whether a process is a start of this application. */
function isStart(pid) {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, "utf8").includes("demo.mjs");
  } catch {
    return alive(pid);
  }
}

/**
 * Takes the place of the one start that may be under way here. @returns the process that has it; null where it
 * is this one
 */
function takeStart() {
  makeFolder(stateFolder);
  for (;;) {
    try {
      writeFileSync(starting, String(process.pid), { flag: "wx" });
      process.on("exit", () => rmSync(starting, { force: true }));
      return null;
    } catch (error) {
      if (error.code !== "EEXIST") throw error;
    }
    const other = Number(readFileSync(starting, "utf8"));
    if (alive(other) && isStart(other)) return other;
    // Left by a start that was killed.
    rmSync(starting, { force: true });
  }
}

async function main() {
  if (Number(process.versions.node.split(".")[0]) < 20)
    throw new SetupError(`Node 20 or newer is needed; this is ${process.version}.`);
  const reset = args.includes("--reset");
  const first = await findFirst();
  if (first && !reset) {
    say(`Velvet Lamp is running already: http${first.secure ? "s" : ""}://127.0.0.1:${first.port}`);
    return;
  }
  if (first)
    throw new SetupError("Stop the running application first (Ctrl-C where it was started), then reset.");
  if (reset && !(await confirmReset())) return;

  const other = await patiently(takeStart, stateFolder);
  if (other !== null) {
    say(`Velvet Lamp is being started already, by process ${other}: wait for the address it prints.`);
    return;
  }
  const own = process.env.DATABASE_URL ? null : cluster(clusterHome());
  const home = own?.home ?? stateFolder;
  if (own) ensurePostgres();
  await patiently(ensurePackages, stateFolder);
  if (own && reset) await keepBefore(own);
  if (!own && reset)
    throw new SetupError("DATABASE_URL points at a database of yours; it isn't reset from here.");
  let stopAll = null;
  let stopping = false;
  const isStopped = () => stopping;
  const stop = async (code) => {
    if (stopping) return;
    stopping = true;
    if (stopAll) await stopAll();
    else own?.stop();
    rmSync(running, { force: true });
    process.exit(code);
  };
  process.on("SIGINT", () => {
    say("\nStopping …");
    void stop(0);
  });
  // A closed terminal ends it as a service's manager does.
  for (const signal of ["SIGTERM", "SIGHUP"]) process.on(signal, () => void stop(0));
  const url = own ? await patiently(() => own.start(), home, isStopped) : process.env.DATABASE_URL;

  try {
    await patiently(() => prepareDatabase(url, { demo: !empty, empty }), home, isStopped);
    const access = beyond ? await accessFor(url) : null;
    if (!dev) await patiently(ensureBuild, stateFolder, isStopped);
    const port = await freePort(wantedPort, listen);
    if (port !== wantedPort) say(`Port ${wantedPort} is taken; using ${port}.`);
    if (stopping) return;
    await supervise({
      onStop: (how) => (stopAll = how),
      own,
      url,
      start: { port, dev, processes, env: access?.env ?? {} },
      onEnd: (code) => {
        rmSync(running, { force: true });
        process.exit(code);
      },
      onServer: ({ pid }) =>
        writeFileSync(
          running,
          JSON.stringify({ supervisor: process.pid, server: pid, port, secure: access !== null }),
        ),
    });
    const [there = hostname()] = ownAddresses();
    say(
      access
        ? `\nVelvet Lamp: https://${there}:${port}\nIts certificate's SHA-256 fingerprint, to compare with what a browser shows:\n${access.fingerprint}`
        : `\nVelvet Lamp: http://127.0.0.1:${port}`,
    );
    say("Ctrl-C stops it and its database.");
  } catch (error) {
    if (stopping) return;
    say(inWords(error));
    await stop(1);
  }
}

/** What the server is told where it answers others. @throws SetupError where nobody could sign in */
async function accessFor(url) {
  if (countPeople(url) === 0)
    throw new SetupError(
      `Nobody has a passphrase yet, so ${listen} isn't answered. Set one first:\n  npm run passphrase -- NAME`,
    );
  const { certificate, key, fingerprint } = await certificateFor({
    certificate: valueOf("--certificate"),
    key: valueOf("--key"),
  });
  return {
    fingerprint,
    env: {
      LAMP_LISTEN: listen,
      LAMP_SIGN_IN: "1",
      LAMP_SECRET: secretOfCookies(),
      LAMP_CERTIFICATE: certificate,
      LAMP_CERTIFICATE_KEY: key,
    },
  };
}

/** A reset takes everything away: what there was is kept as a backup first. */
async function keepBefore(own) {
  if (own.isThere()) {
    const { backup, nameForNow } = await import("./lib/archive.mjs");
    const file = join(stateFolder, `before-reset-${nameForNow().split("-").at(-1)}`);
    const { counts } = await backup(await own.start(), file);
    say(`What there was is kept in ${file}: ${counts.jobs} jobs, ${counts.runs} runs.`);
  }
  own.remove();
}

main().catch((error) => {
  say(inWords(error));
  process.exit(1);
});
