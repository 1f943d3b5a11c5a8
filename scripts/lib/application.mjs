// Database, build and server of the application, as every script needs them.
import { spawn } from "node:child_process";
import { get as plainGet } from "node:http";
import { get as secureGet } from "node:https";
import { existsSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { precompress } from "./precompress.mjs";
import { SetupError, fingerprint, must, root, say, stateFolder, tellTo } from "./run.mjs";

const bin = (name) => join(root, "node_modules", ".bin", name);

/**
 * Brings the database at `url` up to date, or `to` the state that a migration of ours left it in; `demo` adds the
 * demo data once, `empty` what a store without it starts with.
 */
export function prepareDatabase(url, { demo = false, empty = false, to = null } = {}) {
  const told = must(
    bin("tsx"),
    [
      "scripts/database.ts",
      to === null ? "migrate" : `migrate=${to}`,
      ...(demo ? ["demo"] : []),
      ...(empty ? ["empty"] : []),
    ],
    {
      env: { ...process.env, DATABASE_URL: url },
    },
  ).trim();
  if (told && to === null) say(told);
}

/** How many people have a passphrase in the store at `url`. */
export const countPeople = (url) =>
  Number(
    must(bin("tsx"), ["scripts/people.ts", "count"], { env: { ...process.env, DATABASE_URL: url } }).trim(),
  );

/** Builds when what the build is made of has changed since the last one. */
export async function ensureBuild() {
  const stamp = join(root, ".next", "lamp-stamp");
  const wanted = fingerprint([
    "src",
    "package-lock.json",
    "next.config.mjs",
    "postcss.config.mjs",
    "tsconfig.json",
  ]);
  if (existsSync(stamp) && readFileSync(stamp, "utf8") === wanted) return;
  say("Building …");
  must(bin("next"), ["build"], { env: { ...process.env, NEXT_TELEMETRY_DISABLED: "1" } });
  mkdirSync(join(root, ".next"), { recursive: true });
  await precompress(join(root, ".next", "static"));
  // Its bundler is a package, and may not be there before the packages are.
  const { bundleAgent } = await import("./agent.mjs");
  await bundleAgent(join(root, ".next", "lamp-agent.mjs"));
  // What it is made of, for whoever has to know (CycloneDX 1.5).
  const bill = must("npm", ["sbom", "--sbom-format", "cyclonedx", "--omit", "dev"], {
    stdio: ["ignore", "pipe", "ignore"],
  });
  writeFileSync(join(root, ".next", "bom.cdx.json"), bill);
  // Next may have put its own touch on tsconfig.json: the stamp is of what lies there now.
  writeFileSync(
    stamp,
    fingerprint(["src", "package-lock.json", "next.config.mjs", "postcss.config.mjs", "tsconfig.json"]),
  );
}

/** What answers at a port of this machine: the health of a Velvet Lamp, or null. */
export async function healthAt(port, secure = false) {
  // Only asked whether it lives, on this machine: a certificate of its own making is as good as any.
  const options = { host: "127.0.0.1", port, path: "/api/v1/health", timeout: 2000, rejectUnauthorized: false };
  const told = await new Promise((resolve) => {
    const request = (secure ? secureGet : plainGet)(options, (response) => {
      let text = "";
      response.setEncoding("utf8");
      response.on("data", (part) => (text += part));
      response.on("end", () => resolve(text));
      response.on("error", () => resolve(""));
    });
    request.on("timeout", () => request.destroy());
    request.on("error", () => resolve(""));
  });
  try {
    const health = JSON.parse(told);
    return health.application === "velvet-lamp" ? health : null;
  } catch {
    return null;
  }
}

/** Lines that a server wrote to its standard error last, kept to be said when it ends. */
const mostLines = 20;

/**
 * Without a bound a process takes gigabytes before it tidies up; traces lie outside this heap, and its threads
 * tidy up after them when asked to.
 */
const memoryFlags = ["--max-old-space-size=640", "--expose-gc"];

/**
 * Starts the server and waits until it answers.
 * @param options processes: how many answer; env: more of the environment
 */
export async function startServer({
  port,
  url,
  dev = false,
  quiet = false,
  processes = 1,
  env = {},
  onSpawn = () => {},
}) {
  const child = spawn(
    process.execPath,
    [...memoryFlags, "--import", "tsx", join(root, "src", "serve", "main.ts")],
    {
      cwd: root,
      stdio: ["ignore", quiet ? "ignore" : "pipe", "pipe"],
      env: {
        LAMP_LOG: quiet ? "error" : "warn",
        LAMP_PROCESSES: String(processes),
        ...process.env,
        NODE_ENV: dev ? "development" : "production",
        LAMP_PORT: String(port),
        LAMP_UPLOADS: join(stateFolder, "uploads", String(port)),
        DATABASE_URL: url,
        NEXT_TELEMETRY_DISABLED: "1",
        ...env,
      },
    },
  );
  // Whoever stops while it comes up has to know of it.
  onSpawn(child);
  const lines = [];
  child.stderr.on("data", (part) => {
    tellTo(process.stderr, part);
    lines.push(...String(part).split("\n").filter(Boolean));
    lines.splice(0, lines.length - mostLines);
  });
  child.lastLines = () => lines;
  if (dev && !quiet) child.stdout.on("data", (part) => tellTo(process.stdout, part));
  else child.stdout?.resume();
  let ended = null;
  child.on("exit", (code) => (ended = code ?? 1));
  let progress = -1;
  let since = Date.now();
  for (const began = Date.now(); Date.now() - began < mostStartMs;) {
    if (ended !== null)
      throw Object.assign(new SetupError(`The server ended at once (${ended}).`), { lastLines: lines });
    if (await healthAt(port, Boolean(env.LAMP_CERTIFICATE))) return child;
    // On a busy machine it may take long: as long as it gets on it is waited for.
    const now = workOf(child.pid);
    if (now !== progress) [progress, since] = [now, Date.now()];
    if (Date.now() - since > stillMs) break;
    await new Promise((resolve) => setTimeout(resolve, 150));
  }
  child.kill("SIGKILL");
  throw Object.assign(new SetupError("The server did not answer, and did nothing for two minutes."), {
    lastLines: lines,
  });
}

/** A start that does nothing for so long is given up; one that only seems to get on, after so long, ms. */
const stillMs = 120_000,
  mostStartMs = 30 * 60_000;

/** Processor time that a process and those it began have used, in ticks; 0 where the system doesn't say. */
function workOf(pid) {
  try {
    // Behind the name in brackets, which may hold anything: user and system time are fields 14 and 15 (proc(5)).
    const stat = readFileSync(`/proc/${pid}/stat`, "utf8");
    const fields = stat.slice(stat.lastIndexOf(")") + 2).split(" ");
    const children = readFileSync(`/proc/${pid}/task/${pid}/children`, "utf8").split(" ").filter(Boolean);
    return (
      Number(fields[11]) + Number(fields[12]) + children.reduce((sum, child) => sum + workOf(Number(child)), 0)
    );
  } catch {
    return 0;
  }
}

/** Ends a server politely, then not. */
export async function stopServer(child) {
  if (!child || child.exitCode !== null || child.signalCode !== null) return;
  const gone = new Promise((resolve) => child.once("exit", resolve));
  child.kill("SIGTERM");
  const timer = setTimeout(() => child.kill("SIGKILL"), 5000);
  await gone;
  clearTimeout(timer);
}
