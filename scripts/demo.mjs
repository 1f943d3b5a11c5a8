// npm run demo: installs what is missing, starts the database, adds the demo data once, builds, starts, prints the address.
//   --empty  start without the demo data: house rules and pre-flight items only
//   --reset  start over (asks; --yes answers)   --dev  the development server   --port N  first port tried
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { createInterface } from "node:readline/promises";
import { ensureBuild, healthAt, prepareDatabase, startServer, stopServer } from "./lib/application.mjs";
import { cluster, clusterHome } from "./lib/cluster.mjs";
import { ensurePackages, ensurePostgres } from "./lib/install.mjs";
import { SetupError, alive, freePort, say, stateFolder } from "./lib/run.mjs";

const args = process.argv.slice(2);
const dev = args.includes("--dev");
const empty = args.includes("--empty");
const wantedPort = Number(args[args.indexOf("--port") + 1]) || 3210;
const running = join(stateFolder, "running.json");

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

/** A server started earlier: still ours (its address), or an orphan of a killed start (ended here). */
async function findFirst() {
  if (!existsSync(running)) return null;
  let first;
  try {
    first = JSON.parse(readFileSync(running, "utf8"));
  } catch {
    return null;
  }
  const health = await healthAt(first.port);
  if (alive(first.supervisor) && first.supervisor !== process.pid && health) return first.port;
  if (health && alive(health.process)) {
    say("An earlier start was killed; ending what it left running.");
    for (const pid of [first.server, health.process]) if (alive(pid)) process.kill(pid, "SIGKILL");
  }
  rmSync(running, { force: true });
  return null;
}

async function main() {
  if (Number(process.versions.node.split(".")[0]) < 20)
    throw new SetupError(`Node 20 or newer is needed; this is ${process.version}.`);
  const reset = args.includes("--reset");
  const first = await findFirst();
  if (first && !reset) {
    say(`Velvet Lamp is running already: http://127.0.0.1:${first}`);
    return;
  }
  if (first)
    throw new SetupError("Stop the running application first (Ctrl-C where it was started), then reset.");
  if (reset && !(await confirmReset())) return;

  mkdirSync(stateFolder, { recursive: true });
  const own = process.env.DATABASE_URL ? null : cluster(clusterHome());
  if (own) ensurePostgres();
  ensurePackages();
  if (own && reset) own.remove();
  if (!own && reset)
    throw new SetupError("DATABASE_URL points at a database of yours; it isn't reset from here.");
  const url = own ? await own.start() : process.env.DATABASE_URL;

  let server = null;
  let stopping = false;
  const stop = async (code) => {
    if (stopping) return;
    stopping = true;
    await stopServer(server);
    own?.stop();
    rmSync(running, { force: true });
    process.exit(code);
  };
  process.on("SIGINT", () => {
    say("\nStopping …");
    void stop(0);
  });
  process.on("SIGTERM", () => void stop(0));

  try {
    prepareDatabase(url, { demo: !empty, empty });
    if (!dev) ensureBuild();
    const port = await freePort(wantedPort);
    if (port !== wantedPort) say(`Port ${wantedPort} is taken; using ${port}.`);
    if (stopping) return;
    server = await startServer({ port, url, dev });
    writeFileSync(running, JSON.stringify({ supervisor: process.pid, server: server.pid, port }));
    say(`\nVelvet Lamp: http://127.0.0.1:${port}\nCtrl-C stops it and its database.`);
    server.on("exit", (code) => {
      if (!stopping) {
        say(`The server ended (${code}).`);
        void stop(1);
      }
    });
  } catch (error) {
    say(error.message);
    await stop(1);
  }
}

main().catch((error) => {
  say(error instanceof SetupError ? error.message : error.stack);
  process.exit(1);
});
