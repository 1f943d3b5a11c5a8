// Database, build and server of the application, as every script needs them.
import { spawn } from "node:child_process";
import { existsSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { SetupError, fingerprint, must, root, say } from "./run.mjs";

const bin = (name) => join(root, "node_modules", ".bin", name);

/** Brings the database at `url` up to date; `demo` adds the demo data once, `empty` what a store without it starts with. */
export function prepareDatabase(url, { demo = false, empty = false } = {}) {
  const told = must(
    bin("tsx"),
    ["scripts/database.ts", "migrate", ...(demo ? ["demo"] : []), ...(empty ? ["empty"] : [])],
    {
      env: { ...process.env, DATABASE_URL: url },
    },
  ).trim();
  if (told) say(told);
}

/** Builds when what the build is made of has changed since the last one. */
export function ensureBuild() {
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
  // Next may have put its own touch on tsconfig.json: the stamp is of what lies there now.
  writeFileSync(
    stamp,
    fingerprint(["src", "package-lock.json", "next.config.mjs", "postcss.config.mjs", "tsconfig.json"]),
  );
}

/** What answers at a port: the health of a Velvet Lamp, or null. */
export async function healthAt(port) {
  try {
    const response = await fetch(`http://127.0.0.1:${port}/api/v1/health`, {
      signal: AbortSignal.timeout(2000),
    });
    const health = await response.json();
    return health.application === "velvet-lamp" ? health : null;
  } catch {
    return null;
  }
}

/**
 * Starts the server and waits until it answers.
 * @param options processes: how many answer; env: more of the environment
 */
export async function startServer({ port, url, dev = false, quiet = false, processes = 1, env = {} }) {
  const child = spawn(process.execPath, ["--import", "tsx", join(root, "src", "serve", "main.ts")], {
    cwd: root,
    stdio: ["ignore", quiet ? "ignore" : "pipe", "inherit"],
    env: {
      LAMP_LOG: quiet ? "error" : "warn",
      LAMP_PROCESSES: String(processes),
      ...process.env,
      NODE_ENV: dev ? "development" : "production",
      LAMP_PORT: String(port),
      DATABASE_URL: url,
      NEXT_TELEMETRY_DISABLED: "1",
      ...env,
    },
  });
  if (dev && !quiet) child.stdout.pipe(process.stdout);
  else child.stdout?.resume();
  let ended = null;
  child.on("exit", (code) => (ended = code ?? 1));
  for (let waited = 0; waited < 120_000; waited += 150) {
    if (ended !== null) throw new SetupError(`The server ended at once (${ended}).`);
    if (await healthAt(port)) return child;
    await new Promise((resolve) => setTimeout(resolve, 150));
  }
  child.kill("SIGKILL");
  throw new SetupError("The server did not answer within two minutes.");
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
